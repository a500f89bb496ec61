import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { answered } from '../api/client';
import { changeRows, type RecordType, type RowChange, type RowOutcome } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import { readMeanwhile } from '../records/meanwhile';
import { recordShelf } from '../records/useFilling';
import { EditedRows } from './editedRows';
import { openedRow, readRow } from './openRow';

/** The rows of a list under a person's hands; see `EditedRows`. */
export function useEditing({ key }: RecordType, columns: string[], onSaved: (request: RowChange, outcome: RowOutcome) => void) {
  const queries = useQueryClient();
  const person = useSignedIn().data?.person?.userName ?? '';
  const latest = useRef({ columns, onSaved });
  useEffect(() => {
    latest.current = { columns, onSaved };
  });
  const [rows] = useState(
    // eslint-disable-next-line react-hooks/refs -- looked at when a row is saved, and never while anything is drawn
    () =>
      new EditedRows({
        server: {
          read: (id, form) => readRow(queries, id, form),
          change: async (row) =>
            (await answered(changeRows({ path: { key }, body: { columns: latest.current.columns, rows: [row] } })))[0],
          since: readMeanwhile,
        },
        shelf: (id) => recordShelf(person, { id, recordType: key }),
        open: openedRow,
        onSaved: (request, outcome) => latest.current.onSaved(request, outcome),
      }),
  );
  useEffect(() => rows.close, [rows]);
  const state = useSyncExternalStore(rows.subscribe, rows.present);
  return { ...state, open: rows.open, leave: rows.leave, renew: rows.renew, takeBack: rows.takeBack };
}
