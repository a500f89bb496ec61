import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Base } from './edit';
import { MemoryStorage } from './memoryStorage';
import { Pending } from './pending';
import { isSame } from './same';
import { Shelf, shelved } from './shelf';
import { Turns } from './turns';

const stored = (version: number, values: Record<string, string> = {}): Base<string> => ({
  version,
  value: (key) => values[key] ?? null,
});

describe('what is pending', () => {
  it('is settled where others have done the same, goes along where they have not touched it, and collides else', () => {
    const pending = new Pending(stored(1, { a: 'A', b: 'B', c: 'C' }));
    ['a', 'b', 'c'].forEach((key) => pending.type(key, 'mine'));

    pending.rebase(stored(2, { a: 'mine', b: 'B', c: 'theirs' }));

    expect([...pending.all.keys()]).toEqual(['b', 'c']);
    expect(pending.collisions()).toEqual([{ key: 'c', mine: 'mine', theirs: 'theirs' }]);
    expect(pending.all.get('b')?.since).toBe(2);
    expect(pending.all.get('c')?.since).toBe(1);
  });

  it('goes on with what is chosen', () => {
    const pending = new Pending(stored(1));
    pending.type('a', 'mine');
    pending.type('b', 'mine');
    pending.rebase(stored(2, { a: 'theirs', b: 'theirs' }));

    pending.choose('a', 'mine');
    pending.choose('b', 'theirs');

    expect(pending.collisions()).toEqual([]);
    expect(pending.unsaved()).toEqual({ a: 'mine' });
  });

  it('takes what it sent itself for nobody else’s, though the answer was lost and more was typed since', () => {
    const pending = new Pending(stored(1));
    pending.type('a', 'first');
    pending.sending(['a']);
    pending.type('a', 'second');

    pending.rebase(stored(2, { a: 'first' }));

    expect(pending.collisions()).toEqual([]);
    expect(pending.unsaved()).toEqual({ a: 'second' });
  });

  it('keeps what was typed while it was being sent', () => {
    const pending = new Pending(stored(1));
    pending.type('a', 'sent');
    pending.type('b', 'sent');
    const sent = pending.sending(['a', 'b']);
    pending.type('b', 'typed since');

    // The server made something of it, as it may.
    pending.arrived(sent, stored(2, { a: 'SENT', b: 'SENT' }));

    expect(pending.unsaved()).toEqual({ b: 'typed since' });
    expect(pending.collisions()).toEqual([]);
  });

  it('does not go back to what is older', () => {
    const pending = new Pending(stored(3, { a: 'new' }));
    pending.type('a', 'mine');
    pending.rebase(stored(2, { a: 'old' }));
    expect(pending.collisions()).toEqual([]);
  });

  it('tells who listens of each edit, until they listen no more', () => {
    const pending = new Pending(stored(1));
    const heard: string[] = [];
    const stop = pending.onEdit((key) => heard.push(key));
    pending.type('a', 'x');
    pending.takeBack();
    stop();
    pending.type('b', 'x');
    expect(heard).toEqual(['a', 'a']);
  });
});

describe('the shelf', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('keeps what is typed beyond the window, for that person and thing alone, and forgets what is stored', () => {
    const storage = new MemoryStorage();
    const shelf = new Shelf<string>('ada', 'record 5', storage);
    const pending = new Pending(stored(1), shelf.slot());
    pending.type('a', 'x');
    vi.advanceTimersByTime(1000);

    expect(new Shelf<string>('ada', 'record 5', storage).others()[0]?.kept.edits).toEqual([
      ['a', { value: 'x', base: null, since: 1 }],
    ]);
    expect(new Shelf<string>('ina', 'record 5', storage).others()).toEqual([]);
    expect(new Shelf<string>('ada', 'record 6', storage).others()).toEqual([]);
    expect([...shelved('ada', storage)]).toEqual(['record 5']);
    expect(shelved('ina', storage).size).toBe(0);

    pending.takeBack();
    vi.advanceTimersByTime(1000);
    expect(storage.length).toBe(0);
  });

  it('has one slot for each window, the latest first, and passes over what nobody can read', () => {
    const storage = new MemoryStorage();
    const shelf = new Shelf<string>('ada', 'new loan', storage);
    ['one', 'two'].forEach((value) => {
      new Pending(stored(0), shelf.slot()).type('title', value);
      vi.advanceTimersByTime(1000);
    });
    storage.setItem('dibujo pending ["ada","new loan","broken"]', '{');
    storage.setItem('dibujo pending nonsense', '{}');
    storage.setItem('another program’s', 'x');

    expect(shelf.others().map(({ kept }) => kept.edits[0]?.[1].value)).toEqual(['two', 'one']);
  });

  it('loses nothing that matters where it is full', () => {
    const storage = new MemoryStorage();
    storage.setItem = () => {
      throw new Error('QuotaExceededError');
    };
    const pending = new Pending(stored(1), new Shelf<string>('ada', 'record 5', storage).slot());
    pending.type('a', 'x');
    expect(() => vi.advanceTimersByTime(1000)).not.toThrow();
    expect(pending.unsaved()).toEqual({ a: 'x' });
  });
});

it('does one thing after the other, whatever becomes of each', async () => {
  const turns = new Turns();
  const done: string[] = [];
  const act = (name: string, pause: number, fails = false) =>
    turns.take(async () => {
      await new Promise((resolve) => setTimeout(resolve, pause));
      done.push(name);
      if (fails) {
        throw new Error(name);
      }
      return name;
    });

  const all = await Promise.allSettled([act('slow', 20), act('fails', 10, true), act('quick', 0)]);

  expect(done).toEqual(['slow', 'fails', 'quick']);
  expect(all.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
});

it.each([
  [null, undefined, true],
  [{ a: 1, b: [2] }, { b: [2], a: 1 }, true],
  [{ a: 1 }, { a: 1, b: undefined }, false],
  [[1, 2], [2, 1], false],
  [[], {}, false],
  ['1', 1, false],
])('%j and %j are the same: %s', (one, other, same) => {
  expect(isSame(one, other)).toBe(same);
});
