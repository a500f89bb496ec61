import type { Edit } from './edit';
import { newTicket } from './ticket';

/** What somebody typed into one thing in one window, kept beyond the window. */
export interface Kept<V> {
  edits: [string, Edit<V>][];
  /** When it was last typed into. */
  at: string;
}

/** Where one window keeps what is typed into one thing. */
export interface Slot<V> {
  lay(edits: ReadonlyMap<string, Edit<V>>, at: string): void;
  /** Writes at once what was laid a moment ago. */
  flush(): void;
}

/** How long nothing is typed before it is written, in milliseconds. */
const pause = 200;

const beginning = 'dibujo pending ';

/** The person, the thing and the slot, as the name of what is kept. */
const nameOf = (person: string, what: string, slot: string) => beginning + JSON.stringify([person, what, slot]);

function named(name: string): [person: string, what: string, slot: string] | undefined {
  try {
    return name.startsWith(beginning) ? (JSON.parse(name.slice(beginning.length)) as [string, string, string]) : undefined;
  } catch {
    return undefined;
  }
}

/** What was laid and is not written yet, in whichever slot: a window that goes writes it first. */
const unwritten = new Set<() => void>();
globalThis.window?.addEventListener('pagehide', () => [...unwritten].forEach((write) => write()));

/** What one person typed at this browser and did not store, by what it was typed into. It is nobody else's: who signs in next does not see it. */
export class Shelf<V> {
  constructor(
    private readonly person: string,
    private readonly what: string,
    private readonly storage: Storage = localStorage,
  ) {}

  /** What was kept in other windows, or at other times, the latest first. */
  others(own = ''): { slot: string; kept: Kept<V> }[] {
    return Object.keys(this.storage)
      .flatMap((name) => {
        const [person, what, slot] = named(name) ?? [];
        const kept = person === this.person && what === this.what && slot !== undefined && slot !== own && this.read(slot);
        return kept ? [{ slot, kept }] : [];
      })
      .sort((one, other) => other.kept.at.localeCompare(one.kept.at));
  }

  /** A slot of a window's own; another one each time. */
  slot(): Slot<V> & { name: string } {
    const name = newTicket() ?? `${Date.now()} ${Math.random()}`;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let laid: Kept<V> = { edits: [], at: '' };
    const flush = () => {
      if (timer !== undefined) {
        clearTimeout(timer);
        timer = undefined;
        unwritten.delete(flush);
        this.write(name, laid);
      }
    };
    return {
      name,
      lay(edits, at) {
        laid = { edits: [...edits], at };
        timer ??= setTimeout(flush, pause);
        unwritten.add(flush);
      },
      flush,
    };
  }

  remove(slot: string) {
    this.storage.removeItem(nameOf(this.person, this.what, slot));
  }

  private read(slot: string): Kept<V> | null {
    try {
      const kept = JSON.parse(this.storage.getItem(nameOf(this.person, this.what, slot)) ?? 'null') as Kept<V> | null;
      return kept && Array.isArray(kept.edits) && kept.edits.length > 0 ? kept : null;
    } catch {
      return null;
    }
  }

  private write(slot: string, kept: Kept<V>) {
    if (kept.edits.length === 0) {
      this.remove(slot);
      return;
    }
    try {
      this.storage.setItem(nameOf(this.person, this.what, slot), JSON.stringify(kept));
    } catch {
      // A full shelf keeps nothing; what is typed stands on the page, and is sent, all the same.
    }
  }
}

/** Into what that person typed something that is still on a shelf: the names by which shelves were asked for. */
export const shelved = (person: string, storage: Storage = localStorage): Set<string> =>
  new Set(
    Object.keys(storage).flatMap((name) => {
      const [whose, what] = named(name) ?? [];
      return whose === person && what !== undefined ? [what] : [];
    }),
  );
