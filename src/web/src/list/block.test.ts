import { expect, test } from 'vitest';
import type { Field, ListRow } from '../api/generated';
import type { Values } from '../engine/answers';
import { random } from '../pending/random';
import { between, cellsOf, changesOf, pasted, tableOf, textOf, type BlockColumn } from './block';

const field = (key: string, type: Field['type']) => ({ key, label: key, type }) as Field;
const columns: BlockColumn[] = [
  { key: '@number', label: 'No.' },
  { key: 'title', label: 'Title', field: field('title', { kind: 'text' } as Field['type']) },
  { key: 'needed', label: 'Needed', field: field('needed', { kind: 'yesNo' } as Field['type']) },
];
const rows = [1, 2, 3].map((id) => ({ id, values: { title: `Loan ${id}`, needed: id === 2 } }) as unknown as ListRow);
const written = (row: ListRow, { key }: BlockColumn) => {
  const value = (row.values as Values)[key];
  return key === '@number' ? String(row.id) : value === true ? 'yes' : value === false ? 'no' : String(value);
};

test('a block that is copied and pasted elsewhere says the same', () => {
  const block = between({ row: 1, column: 2 }, { row: 0, column: 1 });

  const text = textOf(cellsOf(rows, columns, block, written));

  expect(text).toBe('Loan 1\tno\r\nLoan 2\tyes');
  expect(changesOf(pasted(text), rows, columns, { ...block, top: 1, bottom: 1 }, written).changes).toEqual([
    { row: rows[1], changes: { title: 'Loan 1', needed: 'no' } },
    { row: rows[2], changes: { title: 'Loan 2', needed: 'yes' } },
  ]);
});

test('a cell with quotes, tabs or lines in it stays that cell, and shifts no other', () => {
  const cells = [
    ['one\ntwo', 'a\tb'],
    ['say “"hi"”', '"quoted"'],
    ['', '=1+1'],
    ['007', ' spaced '],
  ];
  expect(pasted(textOf(cells))).toEqual(cells);
  // As spreadsheets put it on the clipboard, with a line break at the end.
  expect(pasted('"one\r\ntwo"\tplain\r\n12" wide\tnext\r\n')).toEqual([
    ['one\r\ntwo', 'plain'],
    ['12" wide', 'next'],
  ]);
});

test('whatever stands in cells comes back from the clipboard', () => {
  const letters = ['a', '"', '\t', '\n', ',', ';', ' ', '=', '0', '’'];
  for (let seed = 1; seed <= 500; seed++) {
    const chance = random(seed);
    const cells = Array.from({ length: 1 + Math.floor(chance() * 4) }, () =>
      Array.from({ length: 2 }, () =>
        Array.from({ length: Math.floor(chance() * 6) }, () => letters[Math.floor(chance() * letters.length)]).join(''),
      ),
    );
    expect(pasted(textOf(cells)), JSON.stringify(cells)).toEqual(cells);
  }
});

test('a spreadsheet is given text, and nothing to run', () => {
  expect(
    tableOf([
      ['=1+1', '<b>&'],
      ['007', 'a\nb'],
    ]),
  ).toBe(
    `<table><tr><td style="mso-number-format:'\\@'">=1+1</td><td style="mso-number-format:'\\@'">&lt;b&gt;&amp;</td></tr>` +
      `<tr><td style="mso-number-format:'\\@'">007</td><td style="mso-number-format:'\\@'">a<br style="mso-data-placement:same-cell">b</td></tr></table>`,
  );
});

test('one line goes into every row of the block; what is no field or no row takes nothing, and is told', () => {
  const all = changesOf(pasted('8\tX\n'), rows, columns, { top: 0, bottom: 2, left: 0, right: 0 }, written);
  expect(all.changes.map(({ changes }) => changes)).toEqual(rows.map(() => ({ title: 'X' })));
  expect(all.untaken.map(({ row, column, text }) => [row.id, column.key, text])).toEqual(
    rows.map(({ id }) => [id, '@number', '8']),
  );
  expect(changesOf(pasted('a\nb'), rows, columns, { top: 2, bottom: 2, left: 1, right: 1 }, written)).toMatchObject({
    changes: [{ changes: { title: 'a' } }],
    beyond: 1,
  });
});

test('what says what stands there already changes nothing', () => {
  const block = { top: 0, bottom: 2, left: 0, right: 2 };
  const all = changesOf(pasted(textOf(cellsOf(rows, columns, block, written))), rows, columns, block, written);
  expect(all).toEqual({ changes: [], untaken: [], beyond: 0 });
});
