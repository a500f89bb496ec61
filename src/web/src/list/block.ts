import Papa from 'papaparse';
import type { Field, ListRow } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import type { Change } from './changing';

/** A rectangle of cells, both ends included. */
export interface Block {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/** A column of the list; without a field where it is none of the record's own. */
export interface BlockColumn {
  key: string;
  label: string;
  field?: Field;
}

/** Cells into which text was pasted that take none. */
export interface Untaken {
  row: ListRow;
  column: BlockColumn;
  text: string;
}

/** The rectangle between two cells. */
export const between = (one: { row: number; column: number }, other: { row: number; column: number }): Block => ({
  top: Math.min(one.row, other.row),
  bottom: Math.max(one.row, other.row),
  left: Math.min(one.column, other.column),
  right: Math.max(one.column, other.column),
});

/** What stands in the cells of a block. */
export const cellsOf = (
  rows: ListRow[],
  columns: BlockColumn[],
  { top, bottom, left, right }: Block,
  written: (row: ListRow, column: BlockColumn) => string,
): string[][] => rows.slice(top, bottom + 1).map((row) => columns.slice(left, right + 1).map((column) => written(row, column)));

/** Cells as text that spreadsheets take, and that is taken back here: rows in lines, tabs between cells, quoted as RFC 4180 has it where a cell has such marks itself. */
export const textOf = (cells: string[][]): string =>
  // One blank cell is nothing, and not two quotation marks.
  cells.length === 1 && cells[0]?.length === 1 && cells[0][0] === ''
    ? ''
    : Papa.unparse(cells, { delimiter: '\t', newline: '\r\n' });

/** Cells as a table of texts: a spreadsheet neither runs what begins like a formula nor takes the zeros from a number that they lead. */
export function tableOf(cells: string[][]): string {
  const cell = (text: string) =>
    `<td style="mso-number-format:'\\@'">${escaped(text).replaceAll('\n', '<br style="mso-data-placement:same-cell">')}</td>`;
  return `<table>${cells.map((row) => `<tr>${row.map(cell).join('')}</tr>`).join('')}</table>`;
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('\r', '');

/** What pasted text has in its cells. */
export const pasted = (text: string): string[][] => Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;

/** What pasted cells make of the rows that they cover, to be read by the server: a single line goes into all rows of the block. */
export function changesOf(
  cells: string[][],
  rows: ListRow[],
  columns: BlockColumn[],
  { top, bottom, left }: Block,
  written: (row: ListRow, column: BlockColumn) => string,
): { changes: Change[]; untaken: Untaken[]; beyond: number } {
  const [only = []] = cells;
  const lines = cells.length === 1 ? Array.from({ length: bottom - top + 1 }, () => only) : cells;
  const changes: Change[] = [];
  const untaken: Untaken[] = [];
  let beyond = 0;
  lines.forEach((line, i) => {
    const row = rows[top + i];
    const values: Values = {};
    line.forEach((text, j) => {
      const column = columns[left + j];
      if (!row || !column) {
        beyond += text === '' ? 0 : 1;
      } else if (text !== written(row, column)) {
        if (column.field) {
          values[column.field.key] = valueOf(text);
        } else {
          untaken.push({ row, column, text });
        }
      }
    });
    if (row && Object.keys(values).length > 0) {
      changes.push({ row, changes: values });
    }
  });
  return { changes, untaken, beyond };
}

/** A cell's text as it goes to the server, which reads it as the person writes. */
const valueOf = (text: string): Value => (text.trim() === '' ? null : text.replaceAll('\r\n', '\n'));
