import { Center, Loader, Text } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router-dom';
import { answered, type Problem } from '../../api/client';
import { readRecordType, type RecordType } from '../../api/generated';
import type { DraftProblems } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import { DraftStrip } from './DraftStrip';
import { useOpenedDraft, type OpenedDraft } from './OpenDraft';
import { useProblems } from './useProblems';
import { useProgram } from './useProgram';

/** A draft as it is drawn on a sheet of its own. */
export interface Drawing {
  draft: OpenedDraft['draft'];
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

/** A sheet on which the record type is drawn, with what is so of the draft in the strip above. */
export function Drawn({ sheet, children }: Props) {
  const opened = useOpenedDraft();
  const { draft } = opened;
  const { key } = draft.definition.recordType;
  const { edition } = draft;
  const published = useQuery({
    queryKey: ['record-type', key, edition],
    queryFn: () => answered(readRecordType({ path: { key }, query: { edition: edition ?? undefined } })),
    enabled: edition !== null,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  const [program] = useProgram(draft.definition);
  const problems = useProblems(opened, program, undefined);
  const navigate = useNavigate();
  const isKnown = edition === null || published.data !== undefined;
  const problem = published.error as Problem | null;
  return (
    <>
      <DraftStrip
        sheet={sheet}
        shared={draft.shared}
        state={draft}
        problems={problems}
        onOpen={() => void navigate(`/types/${key}/rules`)}
      />
      {isKnown ? (
        children({ draft, published: published.data?.recordType, problems, program })
      ) : (
        <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>
      )}
    </>
  );
}
