/** Something that was typed and is not stored yet. */
export interface Edit<V> {
  value: V;
  /** What stood there when it was begun; undefined where nobody knows any more. Whatever else others put there collides with it. */
  base?: V | null;
  /** The version of the whole on which it was begun. */
  since: number;
}

/** What is stored, as far as it is known here: what edits are made on. */
export interface Base<V> {
  version: number;
  /** What stands at a key; null for nothing. */
  value(key: string): V | null;
}

/** The same was changed here and by others: one of the two has to be chosen. */
export interface Collision<V> {
  key: string;
  mine: V;
  theirs: V | null;
}
