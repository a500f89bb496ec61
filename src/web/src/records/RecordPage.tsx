import { Center, Loader, Text } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useParams, useSearchParams } from 'react-router-dom';
import type { Problem } from '../api/client';
import type { RecordType, RecordView } from '../api/generated';
import { useBeginning, useRecordType, useStoredRecord } from './queries';
import { RecordForm } from './RecordForm';
import { useFilling } from './useFilling';

/** A record that is stored. */
export function StoredRecordPage() {
  const id = Number(useParams().id);
  return <Stored key={id} id={id} />;
}

/** A record that is about to be begun. */
export function NewRecordPage() {
  const key = useParams().type ?? '';
  return <Beginning key={key} recordType={key} />;
}

function Stored({ id }: { id: number }) {
  // The form with which it is opened; which one it is on later is the page's own.
  const [form] = useState(useAddress().form);
  const stored = useStoredRecord(id, form);
  const type = useRecordType(stored.data?.recordType, stored.data?.edition);
  return stored.data && type.data ? (
    <Filled type={type.data.recordType} stored={stored.data} />
  ) : (
    <Waiting problem={(stored.error ?? type.error) as Problem | null} />
  );
}

function Beginning({ recordType }: { recordType: string }) {
  const [{ form, workflow }] = useState(useAddress());
  const beginning = useBeginning(recordType, form, workflow);
  const type = useRecordType(beginning.data?.recordType, beginning.data?.edition);
  return beginning.data && type.data ? (
    <Filled type={type.data.recordType} stored={beginning.data} />
  ) : (
    <Waiting problem={(beginning.error ?? type.error) as Problem | null} />
  );
}

function Filled({ type, stored }: { type: RecordType; stored: RecordView }) {
  const filling = useFilling({ type, view: stored });
  const { form, workflow } = useAddress();
  const { look } = filling;
  useEffect(() => {
    // Where nothing is named it is the first form that applies, which only the server knows.
    const isThere =
      (form ?? filling.type.forms[0]?.key) === filling.stored.form || (!form && filling.stored.form === stored.form);
    const isUnder = filling.stored.id !== 0 || (workflow ?? filling.type.workflows[0]?.key) === filling.stored.setting.workflow;
    if (!isThere || !isUnder) {
      void look(form ?? filling.type.forms[0]?.key, workflow).catch(() => undefined);
    }
    // Only where the address names another.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [form, workflow]);
  return <RecordForm filling={filling} />;
}

/** Keys of the form and, for a new record, of the workflow that the address names. */
function useAddress() {
  const [search] = useSearchParams();
  return { form: search.get('form') ?? undefined, workflow: search.get('workflow') ?? undefined };
}

function Waiting({ problem }: { problem: Problem | null }) {
  return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
}
