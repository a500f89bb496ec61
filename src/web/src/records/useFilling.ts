import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { beginRecord, createRecord, readRecord, saveRecord, type RecordView } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import type { Value, Values } from '../engine/answers';
import { OpenRecord } from '../engine/openRecord';
import { engine } from '../engine/pageEngine';
import { Shelf } from '../pending/shelf';
import { Filling, type Stored } from './filling';
import { readMeanwhile } from './meanwhile';
import { recordTypeQuery } from './queries';
import { noteOpened } from './recent';
import { useLiveRecord } from './useLiveRecord';
import { useOpenRecord } from './useOpenRecord';

/** Where what is typed into a record is kept, or into a new one of a type. */
export const recordShelf = (person: string, { id, recordType }: Pick<RecordView, 'id' | 'recordType'>) =>
  new Shelf<Value>(person, id ? `record ${id}` : `new ${recordType}`);

/**
 * The record that was begun here a moment ago, with the slot of what was typed into it and not saved with the rest. Known to no
 * reload: then it is offered.
 */
let begun: { id: number; slot: string } | undefined;

/** The record on the page, being filled in; see `Filling`. */
export function useFilling(first: Stored) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const person = useSignedIn().data?.person?.userName ?? '';
  const [filling] = useState(
    () =>
      new Filling(first, {
        person,
        server: serverOf(first.view, queries),
        shelf: recordShelf(person, first.view),
        open: ({ type, view }, pending) => new OpenRecord(engine, type, view, pending),
        handed: begun?.id === first.view.id ? begun?.slot : undefined,
      }),
  );
  const state = useSyncExternalStore(filling.subscribe, filling.present);
  const { type, view, record } = state;
  const id = view.id ?? 0;
  useOpenRecord(record, view);
  const look = () => void filling.look().catch(() => undefined);
  const here = useLiveRecord(view.recordType, id || undefined, { onSaved: look, onPublished: look });

  useEffect(() => {
    begun = undefined;
    return filling.close;
  }, [filling]);

  const title = String((view.values as Values)[type.titleField] ?? '');
  useEffect(() => {
    if (id !== 0) {
      noteOpened({ id, recordType: view.recordType, title });
    }
  }, [id, view.recordType, title]);

  /** Saves; false where that was refused. A record that was begun by it is gone to. */
  async function save(move?: string): Promise<boolean> {
    const stored = await filling.save(move);
    if (!stored) {
      return false;
    }
    void queries.invalidateQueries({ queryKey: ['records'] });
    if (id === 0) {
      const slot = recordShelf(person, stored.view).slot();
      slot.lay(filling.left, new Date().toISOString());
      slot.flush();
      begun = { id: stored.view.id ?? 0, slot: slot.name };
      filling.forget();
      const search = stored.view.form === type.forms[0]?.key ? '' : `?form=${stored.view.form}`;
      await navigate({ pathname: `/records/${begun.id}`, search }, { replace: true, state: { isSaved: true } });
    }
    return true;
  }

  return {
    ...state,
    stored: view,
    person,
    save,
    look: filling.look,
    here: here.filter((one) => one !== person),
    choose: filling.choose,
    takeUp: filling.takeUp,
    throwAway: filling.throwAway,
    forget: filling.forget,
  };
}

export type FilledIn = ReturnType<typeof useFilling>;

/** The server, asked for one record, or for new ones of a type. */
function serverOf({ id, recordType }: RecordView, queries: QueryClient) {
  const withType = async (view: RecordView): Promise<Stored> => ({
    type: (await queries.fetchQuery(recordTypeQuery(view.recordType, view.edition))).recordType,
    view,
  });
  return {
    async read(form: string | undefined, workflow: string) {
      const there = (on: string | undefined) =>
        id
          ? answered(readRecord({ path: { id }, query: { form: on } }))
          : answered(beginRecord({ path: { key: recordType }, query: { form: on, workflow } }));
      return withType(
        await there(form).catch((problem: Problem) =>
          problem.status === 404 && form ? there(undefined) : Promise.reject(problem),
        ),
      );
    },
    async save(changes: Values, { form, version, setting }: RecordView, move: string | undefined, ticket: string | undefined) {
      const body = { changes, move, form, ticket };
      return withType(
        id
          ? await answered(saveRecord({ path: { id }, body: { ...body, version } }))
          : await answered(createRecord({ path: { key: recordType }, body: { ...body, workflow: setting.workflow } })),
      );
    },
    since: (version: number) => readMeanwhile(id ?? 0, version),
  };
}
