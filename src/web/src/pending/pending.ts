import type { Base, Collision, Edit } from './edit';
import { isSame } from './same';
import type { Slot } from './shelf';

/** What came of two values, and whether some part of them still collides. */
export interface Merged<V> {
  value: V;
  collides: boolean;
}

/**
 * What one person has typed into one thing and is not stored yet: a draft, a record, a row of a list. Each edit knows what it was
 * made on, so that it is merged with what others do, three ways, however late that is heard of; all of it outlasts the window in
 * its slot of the shelf. It never sends anything itself: see `Sending` and `attempt`.
 */
export class Pending<V> {
  private edits = new Map<string, Edit<V>>();
  /** What was sent last, arrived or not: where it stands there later, nobody else put it there. */
  private readonly sent = new Map<string, V>();
  private readonly listeners = new Set<(key: string) => void>();
  /** When something was last typed; what becomes of it later is no typing. */
  private at = new Date().toISOString();

  constructor(
    private base: Base<V>,
    private readonly slot?: Slot<V>,
    private readonly same: (one: V | null | undefined, other: V | null | undefined) => boolean = isSame,
    /** Makes one value of what was changed here and by others, where it can be told part by part; undefined where it cannot. */
    private readonly merge: (key: string, was: V, mine: V, theirs: V) => Merged<V> | undefined = () => undefined,
  ) {}

  /** All edits, in the order in which they were begun. */
  get all(): ReadonlyMap<string, Edit<V>> {
    return this.edits;
  }

  get(key: string): V | undefined {
    return this.edits.get(key)?.value;
  }

  /** Those that would change what is stored, by key. */
  unsaved(): Record<string, V> {
    return Object.fromEntries(
      [...this.edits]
        .filter(([key, { value }]) => !this.same(value, this.base.value(key)))
        .map(([key, { value }]) => [key, value]),
    );
  }

  /** Calls with the key of each edit that is made, chosen or taken back. */
  onEdit(listener: (key: string) => void) {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** Takes in what was typed. */
  type(key: string, value: V) {
    this.edits.set(key, { ...this.beginning(key), value });
    this.at = new Date().toISOString();
    this.lay();
    this.tell(key);
  }

  /** What was typed so is that value: the same edit, said otherwise. */
  understood(key: string, typed: V, value: V) {
    const edit = this.edits.get(key);
    if (edit && this.same(edit.value, typed)) {
      this.edits.set(key, { ...edit, value });
      this.lay();
    }
  }

  /** Takes these for all that is pending, in that order; what was pending before knows what it was made on. */
  become(values: Iterable<[string, V]>) {
    this.edits = new Map([...values].map(([key, value]) => [key, { ...this.beginning(key), value }]));
    this.at = new Date().toISOString();
    this.lay();
  }

  /** Takes up edits that were kept from another time, with what they were made on; what has been typed here since stays. */
  takeUp(kept: Iterable<[string, Edit<V>]>) {
    const taken = [...kept].filter(([key]) => !this.edits.has(key));
    taken.forEach(([key, edit]) => this.edits.set(key, edit));
    this.at = new Date().toISOString();
    this.lay();
    taken.forEach(([key]) => this.tell(key));
  }

  /** Forgets edits; all of them by default. */
  takeBack(keys: Iterable<string> = [...this.edits.keys()]) {
    const gone = [...keys].filter((key) => this.edits.delete(key));
    this.lay();
    gone.forEach((key) => this.tell(key));
  }

  /**
   * Goes on upon what is stored by now. An edit that says what stands there is settled; one of what nobody else has touched goes
   * along; one of what others have changed stays as it is, and collides. Who is behind already is not taken back.
   */
  rebase(base: Base<V>) {
    if (base.version < this.base.version) {
      return;
    }
    this.base = base;
    for (const [key, edit] of [...this.edits]) {
      const theirs = base.value(key);
      if (this.same(theirs, edit.value)) {
        this.edits.delete(key);
      } else if (
        edit.base === undefined
          ? edit.since === base.version
          : this.same(theirs, edit.base) || (this.sent.has(key) && this.same(theirs, this.sent.get(key)))
      ) {
        this.edits.set(key, { ...edit, base: theirs, since: base.version });
      } else if (edit.base !== undefined && edit.base !== null && theirs !== undefined && theirs !== null) {
        this.take(key, edit, theirs, this.merge(key, edit.base, edit.value, theirs));
      }
    }
    this.lay();
  }

  /** Takes what was made of both; where parts of it collide still, it stays based on what it was made on. */
  private take(key: string, edit: Edit<V>, theirs: V, merged: Merged<V> | undefined) {
    if (merged && !merged.collides && this.same(merged.value, theirs)) {
      this.edits.delete(key);
    } else if (merged) {
      this.edits.set(key, {
        ...edit,
        value: merged.value,
        ...(merged.collides ? {} : { base: theirs, since: this.base.version }),
      });
    }
  }

  /** What was changed here and, to something else, by others. */
  collisions(): Collision<V>[] {
    return [...this.edits].flatMap(([key, { value, base, since }]) => {
      const theirs = this.base.value(key);
      const isUntouched = base === undefined ? since === this.base.version : this.same(theirs, base);
      return isUntouched || this.same(theirs, value) ? [] : [{ key, mine: value, theirs }];
    });
  }

  /** Settles a collision: what was typed here stands from now on, or it is forgotten. */
  choose(key: string, which: 'mine' | 'theirs') {
    const edit = this.edits.get(key);
    if (which === 'theirs' || !edit) {
      this.takeBack([key]);
    } else {
      this.edits.set(key, { ...edit, base: this.base.value(key), since: this.base.version });
      this.lay();
      this.tell(key);
    }
  }

  /** The edits of those keys as they are sent now. */
  sending(keys: Iterable<string>): Map<string, V> {
    const values = new Map<string, V>();
    for (const key of keys) {
      const edit = this.edits.get(key);
      if (edit) {
        values.set(key, edit.value);
        this.sent.set(key, edit.value);
      }
    }
    return values;
  }

  /**
   * The server has those. What was typed since they were sent is pending still.
   * @param isTaken Whether it took an edit over, whatever it made of it; where it only keeps it beside, what was typed since collides as well.
   */
  arrived(values: ReadonlyMap<string, V>, base: Base<V>, isTaken: (key: string, value: V) => boolean = () => true) {
    for (const [key, value] of values) {
      const edit = this.edits.get(key);
      if (edit && this.same(edit.value, value)) {
        this.edits.delete(key);
      } else if (edit && isTaken(key, value)) {
        this.edits.set(key, { ...edit, base: base.value(key), since: base.version });
      } else if (edit && this.merge(key, value, edit.value, value)) {
        // What can be merged has been, with what others did: only what was typed since is still to be carried over.
        this.edits.set(key, { ...edit, base: value });
      }
    }
    this.rebase(base);
    values.forEach((_, key) => this.sent.delete(key));
  }

  /** What is known of an edit of that key, or of one that is begun now. */
  private beginning(key: string): Omit<Edit<V>, 'value'> {
    return this.edits.get(key) ?? { base: this.base.value(key), since: this.base.version };
  }

  private lay() {
    this.slot?.lay(this.edits, this.at);
  }

  private tell(key: string) {
    [...this.listeners].forEach((listener) => listener(key));
  }
}
