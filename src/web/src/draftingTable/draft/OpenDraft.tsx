import { Center, Loader, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Outlet, useOutletContext, useParams } from 'react-router-dom';
import { answered, type Problem } from '../../api/client';
import { readDraft, type DraftView } from '../../api/generated';
import { closed, useDraft } from './useDraft';
import { foundByServer, type Found } from './useProblems';

/** A draft under the administrator's hands. */
export interface OpenedDraft {
  draft: ReturnType<typeof useDraft>;
  /** What is wrong with it, as it was last found. */
  found: Found;
  onFound: (found: Found) => void;
}

/** The draft that the sheet is drawn on. */
export const useOpenedDraft = () => useOutletContext<OpenedDraft>();

/**
 * Opens the draft of the record type in the address, once for all of its sheets: whoever goes from one to the next finds there
 * what was written a moment ago, stored or not.
 */
export function OpenDraft() {
  const key = useParams().type ?? '';
  const stored = useQuery({
    queryKey: ['draft', key],
    queryFn: async () => {
      // What was written before it was left is on its way to the server.
      await closed(key);
      return answered(readDraft({ path: { key } }));
    },
    gcTime: 0,
    staleTime: Infinity,
  });
  if (!stored.data) {
    const problem = stored.error as Problem | null;
    return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
  }
  return <Opened key={key} stored={stored.data} />;
}

function Opened({ stored }: { stored: DraftView }) {
  const draft = useDraft(stored.definition.recordType.key, stored);
  const [found, setFound] = useState(() => foundByServer(stored));
  return <Outlet context={{ draft, found, onFound: setFound } satisfies OpenedDraft} />;
}
