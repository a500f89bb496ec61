import { Center, Loader, Text } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { createRecord, readRecord, saveRecord, type EditionView, type RecordView } from '../api/generated';
import type { Values } from '../engine/formRecord';
import { useBeginning, useEdition, useStoredRecord } from './queries';
import { RecordForm } from './RecordForm';

/** A record that is stored. */
export function StoredRecordPage() {
  const id = Number(useParams().id);
  const form = useFormKey();
  const stored = useStoredRecord(id, form);
  const edition = useEdition(stored.data?.recordType);
  if (!stored.data || !edition.data) {
    return <Waiting problem={(stored.error ?? edition.error) as Problem | null} />;
  }
  return <OpenRecordPage key={`${id} ${form}`} edition={edition.data} stored={stored.data} />;
}

/** A record that is about to be begun. */
export function NewRecordPage() {
  const type = useParams().type!;
  const form = useFormKey();
  const beginning = useBeginning(type, form);
  const edition = useEdition(type);
  if (!beginning.data || !edition.data) {
    return <Waiting problem={(beginning.error ?? edition.error) as Problem | null} />;
  }
  return <OpenRecordPage key={form} edition={edition.data} stored={beginning.data} />;
}

function OpenRecordPage({ edition, stored: first }: { edition: EditionView; stored: RecordView }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { search, state } = useLocation() as { search: string; state: unknown };
  const { typed: brought } = (state ?? {}) as { typed?: Values };
  const [{ stored, typed }, setOpened] = useState<{ stored: RecordView; typed: Values }>({ stored: first, typed: brought ?? {} });

  /**
   * Stores the changes, with a move if one is given; throws the problem document if that is refused. What was typed and
   * set aside is not stored, so it stays typed.
   */
  async function save(changes: Values, setAside: Values, move?: string) {
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
    setOpened({ stored: saved, typed: setAside });
    if (stored.id === 0 || saved.form !== stored.form) {
      // What was typed goes along to the address of the record that came of it, or of a form that still applies.
      const there = saved.form === stored.form ? search : `?form=${saved.form}`;
      await navigate(
        { pathname: `/records/${saved.id}`, search: there },
        { replace: true, state: { isSaved: true, typed: setAside } },
      );
    }
  }

  /** Takes over what somebody else has saved, and puts the person's own changes on top of it. */
  async function takeOver(changes: Values) {
    setOpened({ stored: await answered(readRecord({ path: { id: stored.id }, query: { form: stored.form } })), typed: changes });
  }

  return <RecordForm edition={edition} stored={stored} typed={typed} onSave={save} onTakeOver={takeOver} />;
}

/** Key of the form that the address names. */
const useFormKey = () => useSearchParams()[0].get('form') ?? undefined;

function Waiting({ problem }: { problem: Problem | null }) {
  return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
}
