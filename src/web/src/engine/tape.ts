/** A JSON model as the engine takes it: see Tape in Dibujo.Core, which says how it is laid out. */
export interface Tape {
  items: number[];
  text: string;
}

const kinds = { null: 0, false: 1, true: 2, integer: 3, text: 4, list: 5, object: 6, number: 7 } as const;

/** Lays a model out. Text is composed (NFC) on the way, since the engine's runtime has no tables for that. */
export function tapeOf(model: unknown): Tape {
  const nodes: number[] = [];
  const texts: string[] = [];
  const places = new Map<string, number>();

  function placeOf(text: string) {
    let place = places.get(text);
    if (place === undefined) {
      place = texts.length;
      texts.push(text.normalize('NFC'));
      places.set(text, place);
    }
    return place;
  }

  /** Writes a node, with what is in it before it; where it begins comes back. */
  function write(value: unknown): number {
    let node: number[];
    if (value === null || value === undefined) {
      node = [kinds.null];
    } else if (typeof value === 'boolean') {
      node = [value ? kinds.true : kinds.false];
    } else if (typeof value === 'number') {
      node = (value | 0) === value ? [kinds.integer, value] : [kinds.number, placeOf(String(value))];
    } else if (typeof value === 'string') {
      node = [kinds.text, placeOf(value)];
    } else if (Array.isArray(value)) {
      node = [kinds.list, value.length];
      for (const item of value) {
        node.push(write(item));
      }
    } else {
      const members = Object.entries(value).filter(([, member]) => member !== undefined);
      node = [kinds.object, members.length];
      for (const [name, member] of members) {
        node.push(placeOf(name), write(member));
      }
    }
    const begins = nodes.length;
    for (const item of node) {
      nodes.push(item);
    }
    return begins;
  }

  const root = write(model);
  return { items: [texts.length, ...texts.map((text) => text.length), ...nodes, root], text: texts.join('') };
}
