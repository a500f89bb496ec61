import type { Answer, Cell, DecisionTable, Output, Row } from '../../api/generated';
import { comparandLabel } from '../rule/comparands';
import { fieldLabelOf, labelOf, offerOf } from '../rule/offers';
import type { Writing } from '../rule/writing';
import { stateWords } from './stateWords';

type Words = Pick<Writing, 'vocabulary' | 'type'>;

/** What stands in a cell, by column; drivers come first. As it can be typed as well. */
export function cellText(writing: Words, table: DecisionTable, row: Row, column: number): string {
  const { drivers, outputs } = table;
  return column < drivers.length
    ? testText(writing, table, row.if[column], column)
    : answerText(writing, outputs[column - drivers.length]!, row.then[column - drivers.length]);
}

function testText(writing: Words, { drivers }: DecisionTable, cell: Cell | undefined, column: number): string {
  const offer = offerOf(writing, drivers[column]!);
  if (!cell?.test || !offer) {
    return '—';
  }
  const [words, after] = (offer.tests.find(({ test }) => test === cell.test)?.words ?? 'is').split(' … ');
  const values = (cell.comparands ?? []).map((comparand) => comparandLabel(writing, offer, comparand));
  const isRange = cell.test === 'between' || cell.test === 'notBetween';
  const list =
    values.length < 2 ? values.join('') : `${values.slice(0, -1).join(', ')} ${isRange ? 'and' : 'or'} ${values.at(-1)!}`;
  return [words, list, after].filter(Boolean).join(' ');
}

function answerText(writing: Words, output: Output, answer: Answer | undefined): string {
  switch (answer?.kind) {
    case 'states':
      return answer.states.map((state) => stateWords[state]).join(', ');
    case 'value': {
      const offer = output.kind === 'value' ? offerOf(writing, { kind: 'field', field: output.field }) : undefined;
      return offer ? comparandLabel(writing, offer, answer.value) : '';
    }
    case 'choices': {
      const field = output.kind === 'choices' ? writing.type.fields.find(({ key }) => key === output.field) : undefined;
      const options = field && 'options' in field.type ? field.type.options : [];
      return answer.options.map((key) => options.find((option) => option.key === key)?.label ?? key).join(', ') || 'nothing';
    }
    case 'text':
      return `“${answer.text}”`;
    default:
      return '—';
  }
}

const severities = { note: 'note', warning: 'warning', stopsMoving: 'what stops moving', stopsSaving: 'what stops saving' };

/** What stands at the head of a column. */
export function headText(writing: Words, { drivers, outputs }: DecisionTable, column: number): string {
  if (column < drivers.length) {
    return offerOf(writing, drivers[column]!)?.label ?? '…';
  }
  const output = outputs[column - drivers.length]!;
  switch (output.kind) {
    case 'state':
      return output.targets.map((target) => labelOf(writing, target)).join(', ') || '…';
    case 'value':
      return `${output.held ? 'held value' : 'value'} of ${fieldLabelOf(writing, output.field)}`;
    case 'choices':
      return `choices of ${fieldLabelOf(writing, output.field)}`;
    case 'message':
      return severities[output.severity] + (output.at ? ` at ${labelOf(writing, output.at)}` : '');
  }
}

export const columnsOf = ({ drivers, outputs }: DecisionTable) => drivers.length + outputs.length;

/** The table with other cells, by row and column. */
export function withCells(table: DecisionTable, cells: { row: number; column: number; cell: Cell | Answer }[]): DecisionTable {
  const { drivers, outputs } = table;
  const rows = table.rows.map((row) => ({ if: [...row.if], then: [...row.then] }));
  for (const { row, column, cell } of cells) {
    while (rows.length <= row) {
      rows.push(emptyRow(table));
    }
    if (column < drivers.length) {
      rows[row]!.if[column] = cell as Cell;
    } else if (column - drivers.length < outputs.length) {
      rows[row]!.then[column - drivers.length] = cell as Answer;
    }
  }
  return { ...table, rows };
}

export const emptyRow = ({ drivers, outputs }: DecisionTable): Row => ({
  if: drivers.map(() => ({ test: null, comparands: [] })),
  then: outputs.map(() => ({ kind: 'none' })),
});
