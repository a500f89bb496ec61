import { keyFor } from '../fields/keyFor';

/** A record type's key, as it stands in addresses: words apart, object-loan. */
export const addressKeyFor = (label: string, taken: string[]): string => {
  const key = keyFor(label, new Set()).replaceAll(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
  let free = key;
  for (let number = 2; taken.includes(free); number++) {
    free = `${key}-${number}`;
  }
  return free;
};
