import { Center, Loader, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { listRecords, readDraft } from '../api/generated';
import { afterPaint } from '../engine/afterPaint';
import { engine } from '../engine/pageEngine';
import { DraftSheet } from './DraftSheet';

/** The drafting table: loads the draft and a record to begin with. */
export function DraftingTable() {
  const key = useParams().type!;
  // Its runtime loads while the draft is fetched, since without it there is no sheet here.
  useEffect(() => afterPaint(() => engine.start()), []);
  const draft = useQuery({
    queryKey: ['draft', key],
    queryFn: () => answered(readDraft({ path: { key } })),
    gcTime: 0,
    staleTime: Infinity,
  });
  const records = useQuery({
    queryKey: ['samples', key, ''],
    queryFn: () => answered(listRecords({ path: { key }, query: { search: '' } })),
  });
  const problem = (draft.error ?? records.error) as Problem | null;
  if (problem) {
    return (
      <Center h="100%">
        <Text role="alert">{problem.detail}</Text>
      </Center>
    );
  }
  if (!draft.data || !records.data) {
    return (
      <Center h="100%">
        <Loader />
      </Center>
    );
  }
  return <DraftSheet key={key} stored={draft.data} first={records.data.rows[0]?.id ?? 0} />;
}
