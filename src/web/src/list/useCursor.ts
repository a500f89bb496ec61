import { useState } from 'react';
import type { ListRow } from '../api/generated';
import { between } from './block';

/** A cell of the list, by how far down and across it is. */
export interface At {
  row: number;
  column: number;
}

/** A cell by its record: rows may come and go above it. */
interface Held extends At {
  id?: number;
}

const first: Held = { row: 0, column: 1 };

/** The cell where one is, and the block of cells from where one began to mark to there. Both stay with their records when rows move. */
export function useCursor(rows: ListRow[], columns: number) {
  const [here, setHere] = useState(first);
  const [begun, setBegun] = useState(first);
  const now = ({ id, row, column }: Held): At => {
    const found = id === undefined ? row : rows.findIndex((one) => one.id === id);
    return { row: found < 0 ? within(row, rows.length) : found, column };
  };

  /** Goes to a cell, or to the nearest that there is; where nothing is being marked, a block begins there. */
  function go(to: At, isMarking: boolean): At {
    const next = { row: within(to.row, rows.length), column: within(to.column, columns) };
    const held = { ...next, id: rows[next.row]?.id };
    setHere(held);
    if (!isMarking) {
      setBegun(held);
    }
    return next;
  }

  const at = now(here);
  return { at, block: between(at, now(begun)), go };
}

const within = (index: number, count: number) => Math.min(Math.max(index, 0), count - 1);
