/** Letters that come apart into no accents. */
const apart: Record<string, string> = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', ł: 'l', đ: 'd', þ: 'th', ı: 'i' };

/** A key for something that is called so: its words run together, with no accents; unlike all that are taken. */
export function keyFor(label: string, taken: ReadonlySet<string>): string {
  const words = label
    .toLowerCase()
    .replaceAll(/[ßæœøłđþı]/g, (letter) => apart[letter]!)
    .normalize('NFD')
    .replaceAll(/\p{M}/gu, '')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean);
  const joined = words
    .map((word, i) => (i === 0 ? word.toLowerCase() : word[0]!.toUpperCase() + word.slice(1).toLowerCase()))
    .join('');
  const base = (/^[a-z]/.test(joined) ? joined : `f${joined}`).slice(0, 40);
  let key = base;
  for (let number = 2; taken.has(key); number++) {
    key = `${base}${number}`;
  }
  return key;
}
