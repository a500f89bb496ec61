import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { answered, type Problem } from '../api/client';
import { changeRows, type ListRow, type RecordType, type Refusal } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import type { Values } from '../engine/answers';
import type { OpenRecord } from '../engine/openRecord';
import { shelfOf, type Kept } from '../records/shelf';
import { openRow } from './openRow';

/** A row that is being typed into, or whose save was refused. */
export interface OpenRow {
  record: OpenRecord;
  /** Key of the form through which it is typed into. */
  form: string | null;
  version: number;
  /** Number of the edition under which it is typed into. */
  edition: number;
  /** What was typed into it at another time and never saved; it is offered on the record's page. */
  offered: Kept | null;
  /** Why it was not saved, by field; under the empty key what is about no field. */
  refusals: Record<string, string>;
  /** Being saved: comes to the row as it is then, or to nothing where that is refused. Nobody types into it meanwhile. */
  saving?: Promise<ListRow | undefined>;
}

/** The rows of a list under a person's hands: each is opened when it is typed into, and saved when it is left. */
export function useEditing(type: RecordType, columns: string[], replace: (rows: ListRow[]) => void) {
  const queries = useQueryClient();
  const person = useSignedIn().data?.person?.userName ?? '';
  const [rows, setRows] = useState<ReadonlyMap<number, OpenRow>>(new Map());
  const latest = useRef(rows);
  const [problem, setProblem] = useState<string>();
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

  /** Has what is typed into a row outlast the window. */
  const shelve = useCallback(
    (record: OpenRecord, id: number, version: number, offered: Kept | null) =>
      record.subscribe('any', () => shelfOf(person, id).lay(record.unsaved(), version, offered)),
    [person],
  );

  const save = useCallback(
    async (id: number, row: OpenRow): Promise<ListRow | undefined> => {
      const shelf = shelfOf(person, id);
      try {
        const { changes } = await row.record.changes();
        const [outcome] = await answered(
          changeRows({
            path: { key: type.key },
            body: { columns, rows: [{ id, version: row.version, changes, form: row.form, move: null }] },
          }),
        );
        if (outcome?.row) {
          // What was set aside is not saved: it is offered on the record's page.
          const isLeft = ([field]: [string, unknown]) => !(field in changes);
          const aside = Object.fromEntries(Object.entries(row.record.unsaved()).filter(isLeft));
          shelf.lay(aside, outcome.row.version, row.offered);
          replace([outcome.row]);
          put(id, undefined);
          return outcome.row;
        }
        put(id, { ...row, refusals: byField(outcome?.problem ?? '', outcome?.refusals ?? []) });
      } catch (mistake) {
        const problem = mistake as Problem;
        put(id, { ...row, refusals: { '': `${problem.title} ${problem.detail}` } });
      }
      return undefined;
    },
    [columns, person, put, replace, type.key],
  );

  /** Saves a row that is left, and answers with it; where that is refused it stays open with all reasons. */
  const leave = useCallback(
    (id: number): Promise<ListRow | undefined> => {
      const row = latest.current.get(id);
      if (!row || row.saving) {
        return row?.saving ?? Promise.resolve(undefined);
      }
      const unsaved = row.record.unsaved();
      if (Object.keys(unsaved).length === 0) {
        put(id, undefined);
        return Promise.resolve(undefined);
      }
      shelfOf(person, id).lay(unsaved, row.version, row.offered);
      const saving = save(id, row);
      put(id, { ...row, saving });
      return saving;
    },
    [person, put, save],
  );

  /**
   * Opens a row through one of the record's forms, with fields that are changed at once. Where it is open through another form
   * that is saved first, and where it is being saved it is opened after; false where it could not be.
   */
  const open = useCallback(
    async (id: number, form: string | null, typed: Values = {}) => {
      setProblem(undefined);
      const before = latest.current.get(id);
      if (before && (before.saving || before.form !== form)) {
        await leave(id);
      }
      const known = latest.current.get(id);
      if (known) {
        Object.entries(typed).forEach(([field, value]) => known.record.change(field, value));
        return known.form === form;
      }
      const opened = await openRow(queries, id, form, typed).catch((mistake: Problem) =>
        setProblem(`No. ${id} cannot be opened: ${mistake.title} ${mistake.detail}`),
      );
      if (!opened) {
        return false;
      }
      const { record, version, edition } = opened;
      if (latest.current.has(id)) {
        record.close();
      } else {
        const offered = shelfOf(person, id).read();
        shelve(record, id, version, offered);
        put(id, { record, form, version, edition, offered, refusals: {} });
      }
      return true;
    },
    [person, queries, leave, put, shelve],
  );

  /** Takes rows that are open over to the edition that is in force, with all that was typed into them. */
  const renew = useCallback(
    async (edition: number) => {
      for (const [id, row] of latest.current) {
        const opened =
          row.saving || row.edition === edition
            ? undefined
            : await openRow(queries, id, row.form, row.record.unsaved()).catch(() => undefined);
        const now = latest.current.get(id);
        if (opened && now?.record === row.record && !now.saving) {
          // What was typed while it was read.
          Object.entries(row.record.unsaved()).forEach(([field, value]) => opened.record.change(field, value));
          row.record.close();
          shelve(opened.record, id, now.version, now.offered);
          put(id, { ...now, record: opened.record, edition: opened.edition });
        } else {
          opened?.record.close();
        }
      }
    },
    [queries, put, shelve],
  );

  /** Takes back what was typed into a row. */
  const takeBack = useCallback(
    (id: number) => {
      const row = latest.current.get(id);
      shelfOf(person, id).lay({}, row?.version ?? 0, row?.offered ?? null);
      put(id, undefined);
    },
    [person, put],
  );

  return { rows, problem, open, leave, renew, takeBack };
}

const byField = (problem: string, refusals: Refusal[]) =>
  refusals.length > 0 ? Object.fromEntries(refusals.map(({ field, message }) => [field ?? '', message])) : { '': problem };
