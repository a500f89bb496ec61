import { expect, test } from 'vitest';
import type { Field, ListRow } from '../api/generated';
import type { Value } from '../engine/answers';
import { between, changesOf, textOf } from './block';

const field = (key: string, type: Field['type']) => ({ key, label: key, type }) as Field;
const columns = [
  { key: '@number' },
  { key: 'title', field: field('title', { kind: 'text' } as Field['type']) },
  { key: 'needed', field: field('needed', { kind: 'yesNo' } as Field['type']) },
];
const rows = [1, 2, 3].map((id) => ({ id, values: { title: `Loan ${id}`, needed: id === 2 } }) as unknown as ListRow);
const written = (_: Field['type'], value: Value) => (value === true ? 'yes' : value === false ? 'no' : String(value));

test('a block that is copied and pasted elsewhere says the same', () => {
  const block = between({ row: 1, column: 2 }, { row: 0, column: 1 });

  const text = textOf(rows, columns, block, written);

  expect(text).toBe('Loan 1\tno\nLoan 2\tyes');
  expect(changesOf(text, rows, columns, { ...block, top: 1, bottom: 1 }, [])).toEqual([
    { row: rows[1], changes: { title: 'Loan 1', needed: false } },
    { row: rows[2], changes: { title: 'Loan 2', needed: true } },
  ]);
});

test('one line goes into every row of the block, and what is no field or no row takes nothing', () => {
  expect(changesOf('8\tX\n', rows, columns, { top: 0, bottom: 2, left: 0, right: 0 }, []).map(({ changes }) => changes)).toEqual(
    rows.map(() => ({ title: 'X' })),
  );
  expect(changesOf('a\nb', rows, columns, { top: 2, bottom: 2, left: 1, right: 1 }, [])).toHaveLength(1);
});

test('a cell with lines in it stays one cell', () => {
  const long = [{ id: 1, values: { title: 'one\ntwo\tthree' } } as unknown as ListRow];

  expect(textOf(long, columns, { top: 0, bottom: 0, left: 1, right: 1 }, written)).toBe('one two three');
});
