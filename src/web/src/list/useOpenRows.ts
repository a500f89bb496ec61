import { useCallback, useRef, useState } from 'react';
import type { OpenRecord } from '../engine/openRecord';
import type { Kept } from '../records/shelf';

/** A row that is being typed into, or whose save was refused. */
export interface OpenRow {
  record: OpenRecord;
  /** Key of the form through which it is typed into. */
  form: string | null;
  version: number;
  /** Comes once the engine has it, or cannot have it. */
  live: Promise<void>;
  /** Number of the edition under which it is typed into. */
  edition: number;
  /** What was typed into it at another time and never saved; it is offered on the record's page. */
  offered: Kept | null;
  /** Why it was not saved, by field; under the empty key what is about no field. */
  refusals: Record<string, string>;
  /** Whether it is being saved: nobody types into it meanwhile. */
  isSaving: boolean;
}

/** The rows that are open, by the record's number. */
export function useOpenRows() {
  const [rows, setRows] = useState<ReadonlyMap<number, OpenRow>>(new Map());
  /** As they are now, also where that has not been drawn yet. */
  const latest = useRef(rows);

  /** Puts a row in place of what was known of it; undefined closes it. */
  const put = useCallback((id: number, row: OpenRow | undefined) => {
    const next = new Map(latest.current);
    if (row) {
      next.set(id, row);
    } else {
      next.get(id)?.record.close();
      next.delete(id);
    }
    latest.current = next;
    setRows(next);
  }, []);

  /** Does one thing after the other to a row, in the order in which they were asked for. */
  const turns = useRef(new Map<number, Promise<unknown>>());
  const inTurn = useCallback(<T>(id: number, act: () => T | Promise<T>): Promise<T> => {
    const turn = (turns.current.get(id) ?? Promise.resolve()).then(act, act);
    turns.current.set(id, turn);
    return turn;
  }, []);

  return { rows, latest, put, inTurn };
}
