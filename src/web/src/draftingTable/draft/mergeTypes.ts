import type { RecordType } from '../../api/generated';
import { isSame } from './steps';

type Part = Record<string, unknown>;

/**
 * What two people made of one record type at the same time, as one: part by part, by the keys of fields, forms, tabs, sections,
 * stages and the like. As RecordTypeMerge in Dibujo.Core. Where both changed the same, mine counts, and it collides.
 */
export function mergeTypes(was: RecordType, mine: RecordType, theirs: RecordType): { merged: RecordType; collides: boolean } {
  const found = { collides: false };
  return { merged: merge(was, mine, theirs, found) as RecordType, ...found };
}

function merge(was: unknown, mine: unknown, theirs: unknown, found: { collides: boolean }): unknown {
  if (isSame(mine, was) || isSame(mine, theirs)) {
    return theirs;
  }
  if (isSame(theirs, was)) {
    return mine;
  }
  if (Array.isArray(mine) && Array.isArray(theirs)) {
    return mergeLists(Array.isArray(was) ? was : [], mine, theirs, found);
  }
  if (isPart(mine) && isPart(theirs)) {
    const before = isPart(was) ? was : {};
    return Object.fromEntries(
      [...new Set([...Object.keys(theirs), ...Object.keys(mine)])].map((name) => [
        name,
        merge(before[name], mine[name], theirs[name], found),
      ]),
    );
  }
  found.collides = true;
  return mine;
}

/** Lists by the keys of what is in them, or by that itself: what either added or took away is added or taken away, in the order of whoever changed the order. */
function mergeLists(was: unknown[], mine: unknown[], theirs: unknown[], found: { collides: boolean }): unknown[] {
  const [before, one, other] = [byKey(was), byKey(mine), byKey(theirs)];
  const common = (list: Map<string, unknown>, of: Map<string, unknown>) => [...list.keys()].filter((key) => of.has(key));
  const isReordered = !isSame(common(other, before), common(before, other));
  const order = isReordered ? woven([...other.keys()], [...one.keys()]) : woven([...one.keys()], [...other.keys()]);
  return order.flatMap((key) => {
    const left = one.has(key) ? one.get(key) : other.get(key);
    if (one.has(key) && other.has(key)) {
      return [merge(before.get(key), left, other.get(key), found)];
    }
    if (!before.has(key)) {
      return [left];
    }
    if (isSame(left, before.get(key))) {
      return [];
    }
    // One took away what the other changed: it stays until somebody has chosen.
    found.collides = true;
    return [left];
  });
}

const isPart = (value: unknown): value is Part => typeof value === 'object' && value !== null && !Array.isArray(value);

const byKey = (list: unknown[]) =>
  new Map(list.map((item) => [isPart(item) && typeof item.key === 'string' ? item.key : JSON.stringify(item), item]));

/** All keys in the order of the first list; those of the second alone stand behind what they stand behind there. */
function woven(first: string[], second: string[]): string[] {
  const all = [...first];
  let behind = 0;
  second.forEach((key) => {
    let at = all.indexOf(key);
    if (at < 0) {
      all.splice(behind, 0, key);
      at = behind;
    }
    behind = at + 1;
  });
  return all;
}
