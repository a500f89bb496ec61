import { expect, test } from 'vitest';
import type { ColumnView, RecordType } from '../api/generated';
import { layoutOf, usualLayout, writtenLayout } from './layout';

const type = { key: 'loan', titleField: 'title', fields: [], forms: [] } as unknown as RecordType;
const known = ['@number', '@stage', '@changedAt', '@changedBy', 'title', 'fee'].map((key) => ({ key }) as ColumnView);

test('an address says which columns, how wide and in which order; what it does not say is as usual', () => {
  const layout = layoutOf(
    writtenLayout('{"columns":[{"key":"fee","width":90},{"key":"title"}],"sortBy":"fee","descending":true}'),
    type,
    known,
  );

  expect(layout).toEqual({
    ...usualLayout(type),
    columns: [
      { key: 'fee', width: 90 },
      { key: 'title', width: 150 },
    ],
    sortBy: 'fee',
    descending: true,
  });
});

test('a column is there once, and one that is gone not at all', () => {
  const layout = layoutOf({ columns: [{ key: 'fee' }, { key: 'title' }, { key: 'fee' }, { key: 'gone' }] }, type, known);

  expect(layout.columns.map(({ key }) => key)).toEqual(['fee', 'title']);
});

test.each([
  'null',
  '7',
  '"text"',
  '[]',
  '{"columns":7,"clauses":"x"}',
  '{"columns":[null,7,"title",[]],"clauses":[null,7,{"of":"fee"},{"of":"fee","test":"is","values":3}],"sortBy":["fee"],"search":8}',
  'no JSON at all',
  null,
])('an address that says nothing sensible gives the usual list: %s', (written) => {
  expect(layoutOf(writtenLayout(written), type, known)).toEqual(usualLayout(type));
});
