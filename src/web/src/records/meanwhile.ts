import { answered } from '../api/client';
import { readHistory, type HistoryView } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import type { Collision as Colliding } from '../pending/edit';
import { isSame } from '../pending/same';

/** A field that was changed since. */
export interface Change {
  field: string;
  before: Value;
  now: Value;
  /** Account name of who changed it last. */
  by: string;
}

/** What has been done to a record while somebody typed. */
export interface Meanwhile {
  changes: Change[];
  /** Where the record was moved to and by whom; undefined where it was not. */
  moved?: { stage: string; by: string };
}

/** A field that was changed here and since: one of the two has to be chosen. */
export interface Collision {
  field: string;
  mine: Value;
  now: Value;
  /** Account name of who changed it last; undefined where a publication did. */
  by?: string;
}

export const isNothing = ({ changes, moved }: Meanwhile) => changes.length === 0 && !moved;

/** Account names of who did it, each once. */
export const authors = ({ changes, moved }: Meanwhile): string[] => [
  ...new Set([...changes, ...(moved ? [moved] : [])].map(({ by }) => by)),
];

/** Of it what somebody else than that person did. */
export const byOthers = ({ changes, moved }: Meanwhile, person: string): Meanwhile => ({
  changes: changes.filter(({ by }) => by !== person),
  moved: moved?.by === person ? undefined : moved,
});

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
  return { changes: [...changes.values()].filter(({ before, now }) => !isSame(before, now)), moved };
}

/** Who is on the other side of what collides. */
export const collisionsOf = ({ changes }: Meanwhile, colliding: Colliding<Value>[]): Collision[] =>
  colliding.map(({ key, mine, theirs }) => ({
    field: key,
    mine,
    now: theirs,
    by: changes.find(({ field }) => field === key)?.by,
  }));

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
