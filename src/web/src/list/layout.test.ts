import { expect, test } from 'vitest';
import type { ColumnView, RecordType } from '../api/generated';
import { layoutOf, leftOut, usualLayout, writtenLayout } from './layout';

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

test('a view that no longer fits is shown as far as it does, and it is told how much of it is left out', () => {
  const columns = [
    { key: 'fee', type: { kind: 'number' }, tests: [{ test: 'is' }, { test: 'oneOf' }] },
    { key: 'mode', type: { kind: 'choice', options: [{ key: 'air', label: 'Air' }] }, tests: [{ test: 'oneOf' }] },
    { key: 'title', type: { kind: 'text' }, tests: [{ test: 'contains' }] },
  ] as unknown as ColumnView[];
  const view = {
    columns: [{ key: 'fee', width: 90 }, { key: 'gone' }],
    clauses: [
      { of: 'fee', test: 'is', values: [7] },
      { of: 'fee', test: 'is', values: ['seven'] },
      { of: 'fee', test: 'contains', values: ['7'] },
      { of: 'mode', test: 'oneOf', values: ['air', 'sea'] },
      { of: 'mode', test: 'oneOf', values: ['sea'] },
      { of: 'title', test: 'contains', values: [''] },
      { of: 'gone', test: 'is', values: [1] },
    ],
    sortBy: 'gone',
  };

  const layout = layoutOf(view, type, columns);

  expect(layout.columns.map(({ key }) => key)).toEqual(['fee']);
  expect(layout.clauses).toEqual([
    { of: 'fee', test: 'is', values: [7] },
    { of: 'mode', test: 'oneOf', values: ['air'] },
    { of: 'title', test: 'contains', values: [''] },
  ]);
  expect(leftOut(view, layout)).toBe(6);
});

test('of more values than the server takes the first are compared with', () => {
  const columns = [{ key: 'fee', type: { kind: 'number' }, tests: [{ test: 'oneOf' }] }] as unknown as ColumnView[];
  const values = Array.from({ length: 90_000 }, (_, i) => i);

  expect(layoutOf({ clauses: [{ of: 'fee', test: 'oneOf', values }] }, type, columns).clauses[0]?.values).toHaveLength(1000);
});
