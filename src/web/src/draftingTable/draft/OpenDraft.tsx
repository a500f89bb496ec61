import { Center, Loader, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import { answered, type Problem } from '../../api/client';
import { readDraft, readRecordType, type DraftView, type RecordType } from '../../api/generated';
import type { DraftProblems } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import { DraftStrip } from './DraftStrip';
import { useDraft } from './useDraft';
import { useProblems } from './useProblems';
import { useProgram } from './useProgram';

/** A draft under the administrator's hands. */
export interface Drawing {
  draft: ReturnType<typeof useDraft>;
  /** The record type as the edition in force has it: what records may hold. Undefined before the first edition. */
  published: RecordType | undefined;
  problems: DraftProblems;
  /** The draft in the engine. */
  program: DraftProgram;
}

interface Props {
  /** Which sheet of the record type it is. */
  sheet: string;
  children: (drawing: Drawing) => ReactNode;
}

/** Opens the draft of the record type in the address, with what is so of it in the strip above. */
export function OpenDraft({ sheet, children }: Props) {
  const key = useParams().type!;
  const stored = useQuery({
    queryKey: ['draft', key],
    queryFn: () => answered(readDraft({ path: { key } })),
    gcTime: 0,
    staleTime: Infinity,
  });
  const edition = stored.data?.edition ?? undefined;
  const published = useQuery({
    queryKey: ['record-type', key, edition],
    queryFn: () => answered(readRecordType({ path: { key }, query: { edition } })),
    enabled: edition !== undefined,
    staleTime: Infinity,
  });
  const problem = (stored.error ?? published.error) as Problem | null;
  if (problem || !stored.data || (edition !== undefined && !published.data)) {
    return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
  }
  return (
    <Opened key={key} sheet={sheet} stored={stored.data} published={published.data?.recordType}>
      {children}
    </Opened>
  );
}

function Opened({ sheet, stored, published, children }: Props & { stored: DraftView; published: RecordType | undefined }) {
  const { key } = stored.definition.recordType;
  const draft = useDraft(key, stored);
  const [program] = useProgram(draft.definition);
  const problems = useProblems(stored, draft.shared, program, undefined);
  const navigate = useNavigate();
  return (
    <>
      <DraftStrip
        sheet={sheet}
        shared={draft.shared}
        state={draft}
        problems={problems}
        onOpen={() => void navigate(`/types/${key}/rules`)}
      />
      {children({ draft, published, problems, program })}
    </>
  );
}
