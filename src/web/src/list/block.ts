import type { Field, ListRow, PersonEntry } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import type { Change } from './changing';
import { valueOf } from './typedText';

/** A rectangle of cells, both ends included. */
export interface Block {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/** The rectangle between two cells. */
export const between = (one: { row: number; column: number }, other: { row: number; column: number }): Block => ({
  top: Math.min(one.row, other.row),
  bottom: Math.max(one.row, other.row),
  left: Math.min(one.column, other.column),
  right: Math.max(one.column, other.column),
});

/** The block as text: rows in lines, cells with tabs between, as spreadsheets take it. A tab or a new line within a cell is a space there. */
export function textOf(
  rows: ListRow[],
  columns: { key: string; field?: Field }[],
  { top, bottom, left, right }: Block,
  written: (type: Field['type'], value: Value) => string,
): string {
  const cell = (row: ListRow, { key, field }: { key: string; field?: Field }) =>
    field ? written(field.type, (row.values as Values)[key] ?? null) : key === '@number' ? String(row.id) : '';
  return rows
    .slice(top, bottom + 1)
    .map((row) =>
      columns
        .slice(left, right + 1)
        .map((column) => cell(row, column).replace(/[\t\r\n]+/g, ' '))
        .join('\t'),
    )
    .join('\n');
}

/** What text that is pasted at a block makes of the rows that it covers: a single line goes into all rows of the block. */
export function changesOf(
  text: string,
  rows: ListRow[],
  columns: { key: string; field?: Field }[],
  { top, bottom, left }: Block,
  people: PersonEntry[],
): Change[] {
  const lines = text.replace(/\r?\n$/, '').split(/\r?\n/);
  const several = lines.length === 1 ? Array.from({ length: bottom - top + 1 }, () => lines[0] ?? '') : lines;
  return several.flatMap((line, i) => {
    const row = rows[top + i];
    const changes: Values = {};
    line.split('\t').forEach((cell, j) => {
      const field = columns[left + j]?.field;
      if (field) {
        changes[field.key] = valueOf(field, cell, people);
      }
    });
    return row && Object.keys(changes).length > 0 ? [{ row, changes }] : [];
  });
}
