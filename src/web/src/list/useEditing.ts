import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { answered, type Problem } from '../api/client';
import { changeRows, type ListRow, type RecordType, type Refusal } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import type { Values } from '../engine/answers';
import type { OpenRecord } from '../engine/openRecord';
import { collisionsOf, readMeanwhile } from '../records/meanwhile';
import { shelfOf, type Kept } from '../records/shelf';
import { openRow } from './openRow';
import { useMeetingWords } from './useMeetingWords';
import { useOpenRows, type OpenRow } from './useOpenRows';

/** How long a row that is left waits for the engine, in milliseconds. */
const mostWait = 5000;

/** How often a row that others keep saving is saved again. */
const mostTries = 5;

/** The rows of a list under a person's hands: each is opened when it is typed into, and saved when it is left. */
export function useEditing(type: RecordType, columns: string[], replace: (rows: ListRow[]) => void) {
  const queries = useQueryClient();
  const person = useSignedIn().data?.person?.userName ?? '';
  const { rows, latest, put, inTurn } = useOpenRows();
  const [problem, setProblem] = useState<string>();
  const [merged, setMerged] = useState<string>();
  const { collided, kept } = useMeetingWords(type);

  /** Has what is typed into a row outlast the window. */
  const shelve = useCallback(
    (record: OpenRecord, id: number, version: number, offered: Kept | null) =>
      record.subscribe('any', () => shelfOf(person, id).lay(record.unsaved(), version, offered)),
    [person],
  );

  /**
   * Opens a row anew with what was typed into it, as the record and its rules are now; answers with it.
   * @param version The version up to which what others saved is known here.
   */
  const reopen = useCallback(
    async (id: number, row: OpenRow, version: number): Promise<OpenRow> => {
      const opened = await openRow(queries, id, row.form, row.record.unsaved());
      // What was typed while it was read.
      Object.entries(row.record.unsaved()).forEach(([field, value]) => opened.record.change(field, value));
      row.record.close();
      const next = { ...row, ...opened, version };
      shelve(next.record, id, version, next.offered);
      put(id, next);
      return next;
    },
    [queries, put, shelve],
  );

  /**
   * What others saved of a row, up to that version, while it was typed into: where it collides with nothing typed the row goes on
   * upon it, to be told once that is saved; else the cells say so, and nothing comes back.
   */
  const meet = useCallback(
    async (id: number, row: OpenRow, version: number) => {
      const meanwhile = await readMeanwhile(id, row.version);
      const collisions = collisionsOf(meanwhile, row.record.unsaved());
      if (collisions.length > 0) {
        put(id, { ...row, isSaving: false, refusals: collided(collisions) });
        return undefined;
      }
      return { row: await reopen(id, row, version), told: kept(id, meanwhile) };
    },
    [collided, kept, put, reopen],
  );

  const save = useCallback(
    async (id: number, given: OpenRow): Promise<ListRow | undefined> => {
      const shelf = shelfOf(person, id);
      let row = given;
      try {
        const send = async (changes: Values) =>
          (
            await answered(
              changeRows({
                path: { key: type.key },
                body: { columns, rows: [{ id, version: row.version, changes, form: row.form, move: null }] },
              }),
            )
          )[0];
        // Only the engine knows what is set aside; where it takes long the server judges all that was typed.
        await whenLive(row);
        let { changes } = await row.record.changes();
        if (Object.keys(changes).length === 0) {
          // All of it is set aside: it stays on the shelf.
          put(id, undefined);
          return undefined;
        }
        let outcome = await send(changes);
        let told: string | undefined;
        for (let tries = 0; outcome?.version && tries < mostTries; tries++) {
          const met = await meet(id, row, outcome.version);
          if (!met) {
            return undefined;
          }
          ({ row, told } = met);
          await whenLive(row);
          ({ changes } = await row.record.changes());
          outcome = await send(changes);
        }
        if (outcome?.row) {
          // What was set aside is not saved: it is offered on the record's page.
          const isLeft = ([field]: [string, unknown]) => !(field in changes);
          const aside = Object.fromEntries(Object.entries(row.record.unsaved()).filter(isLeft));
          shelf.lay(aside, outcome.row.version, row.offered);
          replace([outcome.row]);
          put(id, undefined);
          setMerged(told);
          return outcome.row;
        }
        put(id, { ...row, isSaving: false, refusals: byField(outcome?.problem ?? '', outcome?.refusals ?? []) });
      } catch (mistake) {
        const problem = mistake as Problem;
        put(id, { ...row, isSaving: false, refusals: { '': `${problem.title} ${problem.detail}` } });
      }
      return undefined;
    },
    [columns, meet, person, put, replace, type.key],
  );

  const leaveNow = useCallback(
    async (id: number): Promise<ListRow | undefined> => {
      const row = latest.current.get(id);
      if (!row) {
        return undefined;
      }
      const unsaved = row.record.unsaved();
      if (Object.keys(unsaved).length === 0) {
        put(id, undefined);
        return undefined;
      }
      shelfOf(person, id).lay(unsaved, row.version, row.offered);
      const leaving = { ...row, isSaving: true };
      put(id, leaving);
      return save(id, leaving);
    },
    [latest, person, put, save],
  );

  /** Saves a row that is left, and answers with it; where that is refused it stays open with all reasons. */
  const leave = useCallback((id: number) => inTurn(id, () => leaveNow(id)), [inTurn, leaveNow]);

  /**
   * Opens a row through one of the record's forms, with fields that are changed at once. Where it is open through another form
   * that is saved first; false where it could not be.
   */
  const open = useCallback(
    (id: number, form: string | null, typed: Values = {}) =>
      inTurn(id, async () => {
        setProblem(undefined);
        if (latest.current.get(id) && latest.current.get(id)?.form !== form) {
          await leaveNow(id);
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
        const offered = shelfOf(person, id).read();
        shelve(opened.record, id, opened.version, offered);
        put(id, { ...opened, form, offered, refusals: {}, isSaving: false });
        return true;
      }),
    [inTurn, latest, leaveNow, person, put, queries, shelve],
  );

  /** Takes rows that are open over to the edition that is in force, with all that was typed into them. */
  const renew = useCallback(
    (edition: number) =>
      [...latest.current.keys()].forEach(
        (id) =>
          void inTurn(id, async () => {
            const row = latest.current.get(id);
            if (row && row.edition !== edition) {
              // Where it cannot be read it stays under the one before, and is judged by the server all the same.
              await reopen(id, row, row.version).catch(() => undefined);
            }
          }),
      ),
    [inTurn, latest, reopen],
  );

  /** Takes back what was typed into a row. */
  const takeBack = useCallback(
    (id: number) =>
      inTurn(id, () => {
        const row = latest.current.get(id);
        shelfOf(person, id).lay({}, row?.version ?? 0, row?.offered ?? null);
        put(id, undefined);
      }),
    [inTurn, latest, person, put],
  );

  return { rows, problem, merged, open, leave, renew, takeBack };
}

const whenLive = ({ live }: OpenRow) => Promise.race([live, new Promise((resolve) => window.setTimeout(resolve, mostWait))]);

const byField = (problem: string, refusals: Refusal[]) =>
  refusals.length > 0 ? Object.fromEntries(refusals.map(({ field, message }) => [field ?? '', message])) : { '': problem };
