import { answered } from '../api/client';
import { readHistory, type HistoryView } from '../api/generated';
import type { Value, Values } from '../engine/answers';

/** A field that others have changed. */
export interface Change {
  field: string;
  before: Value;
  now: Value;
  /** Account name of who changed it last. */
  by: string;
}

/** What others have done to a record while somebody typed. */
export interface Meanwhile {
  changes: Change[];
  /** Where the record was moved to and by whom; undefined where it was not. */
  moved?: { stage: string; by: string };
}

/** A field that was changed here and by others: one of the two has to be chosen. */
export interface Collision extends Change {
  mine: Value;
}

export const same = (one: Value | undefined, other: Value | undefined) =>
  JSON.stringify(one ?? null) === JSON.stringify(other ?? null);

/** What came of the saves, latest first, that were made after somebody began to type. */
export function meanwhileOf(saves: HistoryView[]): Meanwhile {
  const changes = new Map<string, Change>();
  for (const { before, after, by } of [...saves].reverse()) {
    for (const field of new Set([...Object.keys(before), ...Object.keys(after)])) {
      const known = changes.get(field);
      const first = known ? known.before : (((before as Values)[field] as Value | undefined) ?? null);
      changes.set(field, { field, before: first, now: ((after as Values)[field] as Value | undefined) ?? null, by });
    }
  }
  const [last] = saves;
  const moved = last && last.toStage !== saves.at(-1)?.fromStage ? { stage: last.toStage, by: last.by } : undefined;
  return { changes: [...changes.values()].filter(({ before, now }) => !same(before, now)), moved };
}

/** Which of them collide with what was typed here. */
export const collisionsOf = ({ changes }: Meanwhile, mine: Values): Collision[] =>
  changes
    .filter(({ field, now }) => field in mine && !same(mine[field], now))
    .map((change) => ({ ...change, mine: mine[change.field] ?? null }));

/** What was saved after that version, as the server's history tells. */
export async function readMeanwhile(id: number, version: number): Promise<Meanwhile> {
  const saves: HistoryView[] = [];
  for (let before: number | undefined; ; before = saves.at(-1)?.version) {
    const page = await answered(readHistory({ path: { id }, query: { before } }));
    const later = page.filter((save) => save.version > version);
    saves.push(...later);
    if (later.length === 0 || later.length < page.length) {
      return meanwhileOf(saves);
    }
  }
}
