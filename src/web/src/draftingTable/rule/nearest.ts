/** How many are worth offering, and how alike they have to be, from 0 to 1. */
const most = 2;
const least = 0.4;

/** Those whose names are most like a name that is not known, by the pairs of letters that both have (Dice 1945). */
export function nearest<T>(sought: string, all: T[], namesOf: (one: T) => string[]): T[] {
  return sought === ''
    ? []
    : all
        .map((one) => ({ one, likeness: Math.max(...namesOf(one).map((name) => likeness(sought, name))) }))
        .filter((found) => found.likeness >= least)
        .sort((a, b) => b.likeness - a.likeness)
        .slice(0, most)
        .map(({ one }) => one);
}

function likeness(one: string, other: string): number {
  const [a, b] = [pairsOf(one), pairsOf(other)];
  const shared = a.filter((pair) => b.includes(pair)).length;
  return a.length + b.length === 0 ? 0 : (2 * shared) / (a.length + b.length);
}

function pairsOf(name: string): string[] {
  const letters = name.toLowerCase().replaceAll(/[^\p{L}\p{N}]/gu, '');
  return [...new Set(Array.from({ length: Math.max(0, letters.length - 1) }, (_, i) => letters.slice(i, i + 2)))];
}
