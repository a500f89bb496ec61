import { ActionIcon, Button, Group, Text, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp, IconKeyboard } from '@tabler/icons-react';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, type ReactNode } from 'react';
import { Link } from 'react-router-dom';
import type { DraftProblems } from '../../engine/answers';
import { Place } from '../../frame/Place';
import { SheetIndex } from '../../frame/SheetIndex';
import lines from '../../sheet/lines.module.css';
import { Publish } from '../../publication/Publish';
import { AlsoHere } from './AlsoHere';
import type { DraftState, SharedDraft } from './sharedDraft';
import type { PersonAt } from './useLive';

interface Props {
  /** Which sheet of the record type this is. */
  sheet: string;
  shared: SharedDraft;
  state: DraftState & { others: PersonAt[]; stand: (place: string) => void };
  /** Key of the rule that is open. */
  rule?: string;
  problems: DraftProblems;
  onKeys?: () => void;
  onEditions?: () => void;
  onOpen: (rule: string) => void;
}

/** What is so of the draft as a whole, in the strip above: whether it is saved, a step back or forth, editions, publishing. */
export function DraftStrip({ sheet, shared, state, rule = '', problems, onKeys, onEditions, onOpen }: Props) {
  const queries = useQueryClient();
  const { recordType: type } = state.definition;
  const { stand } = state;
  useEffect(() => stand(rule ? `${sheet}/${rule}` : sheet), [stand, sheet, rule]);
  return (
    <Place
      steps={[
        { label: type.label, to: state.edition === null ? undefined : `/types/${type.key}/records` },
        // Which sheet it is the index beside it shows.
        { label: sheet, isUnseen: true },
      ]}
    >
      <SheetIndex type={type.key} />
      <Group gap="xs" wrap="nowrap">
        <Text
          size="xs"
          c={state.problem ? undefined : 'dimmed'}
          className={state.problem ? lines.wrong : undefined}
          role="status"
        >
          {savedWords(state)}
        </Text>
        <AlsoHere others={state.others} definition={state.definition} />
        {state.collisions.length > 0 && (
          <Link className={lines.wrong} to={`/types/${type.key}/rules`}>
            {state.collisions.length === 1 ? 'One edit waits' : `${state.collisions.length} edits wait`} for a choice
          </Link>
        )}
        {onKeys && <Tool label="Keys" hint="Keys ( ? )" icon={<IconKeyboard size={18} />} onPress={onKeys} />}
        <Tool label="Undo" icon={<IconArrowBackUp size={18} />} isDisabled={!state.canUndo} onPress={shared.undo} />
        <Tool label="Redo" icon={<IconArrowForwardUp size={18} />} isDisabled={!state.canRedo} onPress={shared.redo} />
        {onEditions && (
          <Button variant="default" onClick={onEditions}>
            Editions
          </Button>
        )}
        <Publish
          definition={state.definition}
          edition={state.edition}
          version={state.version}
          problems={problems}
          onOpen={onOpen}
          onSettle={() => shared.settle()}
          onPublished={(number) => {
            void shared.published(number);
            void queries.invalidateQueries({ queryKey: ['record-type', type.key] });
            void queries.invalidateQueries({ queryKey: ['holdings', type.key] });
          }}
        />
      </Group>
    </Place>
  );
}

function savedWords({ problem, kept, isSaved }: DraftState): string {
  return problem
    ? `Not saved yet: ${problem.detail ?? 'the server cannot be reached'}. It is kept here and sent again.`
    : kept > 0
      ? 'Somebody else has changed that since, so it stays.'
      : isSaved
        ? 'Draft saved'
        : 'Saving the draft…';
}

interface ToolProps {
  label: string;
  hint?: string;
  icon: ReactNode;
  isDisabled?: boolean;
  onPress: () => void;
}

const Tool = ({ label, hint = label, icon, isDisabled = false, onPress }: ToolProps) => (
  <Tooltip label={hint}>
    <ActionIcon variant="subtle" aria-label={label} disabled={isDisabled} onClick={onPress}>
      {icon}
    </ActionIcon>
  </Tooltip>
);
