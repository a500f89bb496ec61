import type { ListRow } from '../api/generated';

/**
 * Rows as they are now, in the order in which they stood. One that the list no longer has stays as it was, what has come in
 * between waits, and what comes after all of them follows.
 */
export function standing(before: ListRow[], now: ListRow[]): ListRow[] {
  const byId = new Map(now.map((row) => [row.id, row]));
  const known = new Set(before.map(({ id }) => id));
  const last = now.findLastIndex(({ id }) => known.has(id));
  return [...before.map((row) => byId.get(row.id) ?? row), ...now.slice(last + 1)];
}
