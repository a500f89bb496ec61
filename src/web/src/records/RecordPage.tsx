import { Center, Loader, Text } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { createRecord, readRecord, saveRecord, type RecordType, type RecordView } from '../api/generated';
import type { Values } from '../engine/answers';
import { useBeginning, useRecordType, useStoredRecord } from './queries';
import { RecordForm } from './RecordForm';

/** A record that is stored. */
export function StoredRecordPage() {
  const id = Number(useParams().id);
  const form = useFormKey();
  const stored = useStoredRecord(id, form);
  const type = useRecordType(stored.data?.recordType, stored.data?.edition);
  if (!stored.data || !type.data) {
    return <Waiting problem={(stored.error ?? type.error) as Problem | null} />;
  }
  return <OpenRecordPage key={`${id} ${form}`} type={type.data.recordType} stored={stored.data} />;
}

/** A record that is about to be begun. */
export function NewRecordPage() {
  const key = useParams().type!;
  const form = useFormKey();
  const beginning = useBeginning(key, form);
  const type = useRecordType(beginning.data?.recordType, beginning.data?.edition);
  if (!beginning.data || !type.data) {
    return <Waiting problem={(beginning.error ?? type.error) as Problem | null} />;
  }
  return <OpenRecordPage key={form} type={type.data.recordType} stored={beginning.data} />;
}

function OpenRecordPage({ type, stored: first }: { type: RecordType; stored: RecordView }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { search, state } = useLocation() as { search: string; state: unknown };
  const { typed: brought } = (state ?? {}) as { typed?: Values };
  const [{ stored, typed }, setOpened] = useState<{ stored: RecordView; typed: Values }>({ stored: first, typed: brought ?? {} });

  /**
   * Stores the changes, with a move if one is given; throws the problem document if that is refused. What was typed and
   * set aside is not stored, so it stays typed.
   */
  async function save(changes: Values, staying: () => Values, move?: string) {
    const saved =
      stored.id === 0
        ? await answered(
            createRecord({
              path: { key: stored.recordType },
              body: { changes, workflow: stored.setting.workflow, move, form: stored.form },
            }),
          )
        : await answered(
            saveRecord({
              path: { id: stored.id },
              body: { version: stored.version, changes, move, form: stored.form },
            }),
          );
    await queries.invalidateQueries({ queryKey: ['records'] });
    // Under another edition the record type may be another too: the page is opened anew then.
    if (saved.edition !== stored.edition) {
      await queries.invalidateQueries({ queryKey: ['record', saved.id] });
    }
    const typed = staying();
    setOpened({ stored: saved, typed });
    if (stored.id === 0 || saved.form !== stored.form) {
      // What was typed goes along to the address of the record that came of it, or of a form that still applies.
      const there = saved.form === stored.form ? search : `?form=${saved.form}`;
      await navigate({ pathname: `/records/${saved.id}`, search: there }, { replace: true, state: { isSaved: true, typed } });
    }
  }

  /** Takes over what somebody else has saved, and puts the person's own changes on top of it. */
  async function takeOver(changes: Values) {
    setOpened({ stored: await answered(readRecord({ path: { id: stored.id }, query: { form: stored.form } })), typed: changes });
  }

  return <RecordForm type={type} stored={stored} typed={typed} onSave={save} onTakeOver={takeOver} />;
}

/** Key of the form that the address names. */
const useFormKey = () => useSearchParams()[0].get('form') ?? undefined;

function Waiting({ problem }: { problem: Problem | null }) {
  return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
}
