import { Center, Loader, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { answered, type Problem } from '../api/client';
import { listRecords } from '../api/generated';
import { afterPaint } from '../engine/afterPaint';
import { engine } from '../engine/pageEngine';
import { useOpenedDraft } from './draft/OpenDraft';
import { DraftSheet } from './DraftSheet';

/** The drafting table: the rules of the opened draft, and a record to begin with. */
export function DraftingTable() {
  const opened = useOpenedDraft();
  const { key } = opened.draft.definition.recordType;
  // Its runtime loads while the record is looked for, since without it there is no sheet here.
  useEffect(() => afterPaint(() => engine.start()), []);
  const records = useQuery({
    queryKey: ['samples', key, ''],
    queryFn: () => answered(listRecords({ path: { key }, query: { search: '' } })),
  });
  if (!records.data) {
    const problem = records.error as Problem | null;
    return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
  }
  return <DraftSheet key={key} source={opened} first={records.data.rows[0]?.id ?? 0} />;
}
