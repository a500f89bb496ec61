import { Button, Group, SegmentedControl, Text, UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answered } from '../../api/client';
import {
  compareEditions,
  listEditions,
  readEditionAsDraft,
  readNumberedEdition,
  type Definition,
  type Difference,
} from '../../api/generated';
import { usePeople } from '../../api/people';
import { when } from '../../writing/when';
import { Dialog } from '../../frame/Dialog';
import { useComparison } from '../draft/useComparison';
import { Differences } from './Differences';
import { discarded } from './discarded';
import classes from './Editions.module.css';

interface Props {
  recordType: string;
  draft: Definition;
  version: number;
  isOpen: boolean;
  onClose: () => void;
  /** Makes another draft of what is here; it can be undone as every step can. */
  onChange: (definition: Definition) => void;
}

type Look = 'draft' | 'itself';

/** The editions, what each changed, and the draft beside any of them; changes are discarded here, one or all. */
export function Editions({ recordType, draft, version, isOpen, onClose, onChange }: Props) {
  return (
    <Dialog isOpen={isOpen} onClose={onClose} size={900} title="Editions">
      <Content recordType={recordType} draft={draft} version={version} onChange={onChange} />
    </Dialog>
  );
}

function Content({ recordType, draft, version, onChange }: Omit<Props, 'isOpen' | 'onClose'>) {
  const nameOf = usePeople();
  const [picked, setPicked] = useState<number>();
  const [look, setLook] = useState<Look>('draft');
  const editions = useQuery({
    queryKey: ['record-type', recordType, 'editions'],
    queryFn: () => answered(listEditions({ path: { key: recordType } })),
  }).data;
  const number = picked ?? editions?.[0]?.number;
  const edition = useQuery({
    queryKey: ['edition', recordType, number],
    queryFn: () => answered(readNumberedEdition({ path: { key: recordType, number: number! } })),
    enabled: number !== undefined,
    staleTime: Infinity,
  }).data;
  const fromDraft = useComparison(recordType, number ?? null, version, look === 'draft' && number !== undefined);
  const ofItself = useQuery({
    queryKey: ['comparison', recordType, number],
    queryFn: () =>
      answered(compareEditions({ path: { key: recordType }, query: { from: String(number! - 1), to: String(number) } })),
    enabled: look === 'itself' && number !== undefined,
    staleTime: Infinity,
  }).data?.differences;
  if (!editions) {
    return null;
  }
  if (editions.length === 0) {
    return <Text size="sm">Nothing has been published yet: all that is in the draft is new.</Text>;
  }
  async function goBack(to: number) {
    onChange(await answered(readEditionAsDraft({ path: { key: recordType, number: to } })));
  }

  const differences: Difference[] | undefined = look === 'draft' ? fromDraft : ofItself;
  return (
    <div className={classes.columns}>
      <ol className={classes.list} aria-label="Editions, latest first">
        {editions.map((one, i) => (
          <li key={one.number}>
            <UnstyledButton
              className={classes.edition}
              aria-pressed={one.number === number}
              onClick={() => setPicked(one.number)}
            >
              <strong>
                Edition {one.number}
                {i === 0 && ', in force'}
              </strong>
              <span>{one.note || 'without a note'}</span>
              <span className={classes.who}>
                {nameOf(one.by)}, {when(one.at)}
              </span>
            </UnstyledButton>
          </li>
        ))}
      </ol>
      <section className={classes.comparison} aria-label={`Edition ${number} compared`}>
        <Group justify="space-between" wrap="nowrap" mb={6}>
          <SegmentedControl
            size="xs"
            aria-label="What is compared"
            data={[
              { value: 'draft', label: `The draft beside edition ${number}` },
              { value: 'itself', label: `What edition ${number} changed` },
            ]}
            value={look}
            onChange={(next) => setLook(next as Look)}
          />
          {look === 'draft' && edition && (differences?.length ?? 0) > 0 && (
            <Button variant="default" onClick={() => void goBack(number!)}>
              {number === editions[0]!.number ? 'Discard all' : `Go back to edition ${number}`}
            </Button>
          )}
        </Group>
        {look === 'draft' && number !== editions[0]!.number && (
          <Text size="xs" c="dimmed">
            Going back makes a draft of that edition; members notice nothing until it is published, and it can be undone.
          </Text>
        )}
        {differences && (
          <Differences
            differences={differences}
            onDiscard={look === 'draft' && edition ? (one) => onChange(discarded(draft, edition.definition, one)) : undefined}
          />
        )}
      </section>
    </div>
  );
}
