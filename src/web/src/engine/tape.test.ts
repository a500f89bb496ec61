import { expect, it } from 'vitest';
import { tapeOf } from './tape';

it('lays a model out as Tape in Dibujo.Core reads it', () => {
  const { items, text } = tapeOf({ key: 'loan', on: true, size: 3 });

  expect(text).toBe('keyloanonsize');
  expect(items).toEqual([4, 3, 4, 2, 4, 4, 1, 2, 3, 3, 6, 3, 0, 0, 2, 2, 3, 3, 5]);
});

it('writes a text once, and composes it', () => {
  const decomposed = 'e\u0301';

  expect(tapeOf([decomposed, decomposed]).text).toBe('\u00e9');
});

it('leaves out what is undefined, and keeps what is null', () => {
  expect(tapeOf({ a: undefined, b: null }).text).toBe('b');
});
