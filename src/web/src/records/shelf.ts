import type { Values } from '../engine/answers';

/** What somebody typed into a record and has not saved, kept beyond the window. */
export interface Kept {
  typed: Values;
  /** The version that it was typed on; 0 for a new record. */
  version: number;
  /** When it was last typed into. */
  at: string;
}

/** Keeps, for one person at this browser, what is typed into one record. */
export interface Shelf {
  read(): Kept | null;
  keep(kept: Kept): void;
  /** Keeps what is typed now, on that version, beside what was typed at another time and is still offered; clears it where both are nothing. */
  lay(typed: Values, version: number, offered: Kept | null): void;
  clear(): void;
}

const nameOf = (person: string, record: number | string) => `dibujo typed ${person} ${record}`;

/** Numbers of the records into which that person typed something that is still on a shelf. */
export const shelved = (person: string, storage: Storage = localStorage): Set<number> =>
  new Set(
    Object.keys(storage).flatMap((name) =>
      name.startsWith(nameOf(person, '')) ? Number(name.slice(nameOf(person, '').length)) : [],
    ),
  );

/** The shelf of a record, or of a new one of a type. */
export function shelfOf(person: string, record: number | string, storage: Storage = localStorage): Shelf {
  const name = nameOf(person, record);
  const shelf: Shelf = {
    read() {
      try {
        const kept = JSON.parse(storage.getItem(name) ?? 'null') as Kept | null;
        return kept && typeof kept.typed === 'object' && Object.keys(kept.typed).length > 0 ? kept : null;
      } catch {
        return null;
      }
    },
    keep(kept) {
      try {
        storage.setItem(name, JSON.stringify(kept));
      } catch {
        // A full shelf keeps nothing; what is typed stands on the page all the same.
      }
    },
    lay(typed, version, offered) {
      const all = { ...offered?.typed, ...typed };
      if (Object.keys(all).length > 0) {
        shelf.keep({ typed: all, version: offered?.version ?? version, at: new Date().toISOString() });
      } else {
        shelf.clear();
      }
    },
    clear: () => storage.removeItem(name),
  };
  return shelf;
}
