import type { NotationView } from '../api/generated';

/** How the person writes dates and numbers; as the server says along with who is signed in. Read is by the engine and the server alone. */
let notation: NotationView = {
  language: 'en-GB',
  day: 'd MMM yyyy',
  is12Hours: false,
  numbers: '1,234.5',
  months: ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'],
};

const listeners = new Set<() => void>();

/** Writes so from now on. */
export function writeBy(next: NotationView) {
  notation = next;
  listeners.forEach((listener) => listener());
}

export const ownNotation = () => notation;

/** Calls whenever the person writes otherwise. */
export function onNotation(listener: () => void) {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}
