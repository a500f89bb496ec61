import type { DecisionTable, Output, Subject } from '../../api/generated';
import { moved, replaced, without } from '../rule/compose';

/** Changes of a table's columns; every row goes along. */
export function withDriver(table: DecisionTable, subject: Subject, at = table.drivers.length): DecisionTable {
  const isOther = at < table.drivers.length;
  return {
    ...table,
    drivers: isOther ? replaced(table.drivers, at, subject) : [...table.drivers, subject],
    rows: table.rows.map((row) => ({
      ...row,
      if: isOther ? replaced(row.if, at, { test: null, comparands: [] }) : [...row.if, { test: null, comparands: [] }],
    })),
  };
}

export function withOutput(table: DecisionTable, output: Output, at = table.outputs.length): DecisionTable {
  const isOther = at < table.outputs.length;
  const keeps = isOther && table.outputs[at]!.kind === output.kind && output.kind === 'state';
  return {
    ...table,
    outputs: isOther ? replaced(table.outputs, at, output) : [...table.outputs, output],
    rows: table.rows.map((row) => ({
      ...row,
      then: !isOther ? [...row.then, { kind: 'none' }] : keeps ? row.then : replaced(row.then, at, { kind: 'none' }),
    })),
  };
}

export function withoutColumn(table: DecisionTable, column: number): DecisionTable {
  const at = column - table.drivers.length;
  return at < 0
    ? {
        ...table,
        drivers: without(table.drivers, column),
        rows: table.rows.map((row) => ({ ...row, if: without(row.if, column) })),
      }
    : {
        ...table,
        outputs: without(table.outputs, at),
        rows: table.rows.map((row) => ({ ...row, then: without(row.then, at) })),
      };
}

/** Moves a column among those of its side. */
export function withMovedColumn(table: DecisionTable, column: number, by: number): DecisionTable {
  const at = column - table.drivers.length;
  const [list, from] = at < 0 ? [table.drivers, column] : [table.outputs, at];
  const to = from + by;
  return to < 0 || to >= list.length
    ? table
    : at < 0
      ? {
          ...table,
          drivers: moved(table.drivers, from, to),
          rows: table.rows.map((row) => ({ ...row, if: moved(row.if, from, to) })),
        }
      : {
          ...table,
          outputs: moved(table.outputs, from, to),
          rows: table.rows.map((row) => ({ ...row, then: moved(row.then, from, to) })),
        };
}
