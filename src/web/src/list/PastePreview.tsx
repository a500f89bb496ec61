import { Button, Group, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { Problem } from '../api/client';
import type { RecordType } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import { isSame } from '../pending/same';
import { useNamed } from '../records/useNamed';
import { fieldLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import { writtenNumber } from '../writing/numbers';
import type { changesOf } from './block';
import { tryChanges, type Step } from './changing';
import classes from './ListPage.module.css';

/** How many cells are told one by one; the rest is counted. */
const mostTold = 60;

interface Props {
  type: RecordType;
  columns: string[];
  pasted: ReturnType<typeof changesOf>;
  onSave: () => void;
  onCancel: () => void;
}

/** What pasting would change and what would be refused, cell by cell, before more than one record is saved. */
export function PastePreview({ type, columns, pasted, onSave, onCancel }: Props) {
  const { changes, untaken, beyond } = pasted;
  const written = useNamed();
  const section = useRef<HTMLElement>(null);
  const trial = useQuery({
    queryKey: ['paste', type.key, changes],
    queryFn: () => tryChanges(type, columns, changes),
    gcTime: 0,
    staleTime: Infinity,
  });
  useEffect(() => section.current?.focus(), []);
  const steps = trial.data ?? [];
  const refused = new Set(steps.filter(({ outcome }) => !outcome.row).map(({ row }) => row.id));
  const told = [
    ...untaken.map(({ row, column, text }) => ({
      id: row.id,
      words: `${column.label} takes nothing that is pasted: “${text}” is left out.`,
      isWrong: true,
    })),
    ...steps.flatMap((step) => wordsOf(step, type, written)),
  ];
  const saved = new Set(changes.map(({ row }) => row.id).filter((id) => !refused.has(id))).size;
  const problem = trial.error as Problem | null;
  return (
    <section
      ref={section}
      className={classes.notice}
      role="region"
      tabIndex={-1}
      aria-label="What pasting would change"
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
    >
      <Text size="sm" role="status">
        {trial.isPending
          ? 'Looking at what pasting would change…'
          : `Pasted, and not saved yet: ${writtenNumber(saved)} ${saved === 1 ? 'row' : 'rows'} can be saved` +
            (refused.size > 0 ? `, ${writtenNumber(refused.size)} would be refused.` : '.')}
        {beyond > 0 && ` ${writtenNumber(beyond)} cells are beyond the list, and are left out.`}
      </Text>
      {problem && (
        <Text size="sm" role="alert">
          {problem.title} {problem.detail}
        </Text>
      )}
      <Group gap="xs" my="xs">
        <Button disabled={trial.isPending || saved === 0} onClick={onSave}>
          Save {writtenNumber(saved)} {saved === 1 ? 'row' : 'rows'}
        </Button>
        <Button variant="default" onClick={onCancel}>
          Leave everything as it was
        </Button>
      </Group>
      <ul className={classes.outcomes}>
        {told.slice(0, mostTold).map(({ id, words, isWrong }, i) => (
          <li key={i} data-wrong={isWrong || undefined}>
            No. {id}: {words}
          </li>
        ))}
        {told.length > mostTold && <li>and {writtenNumber(told.length - mostTold)} more.</li>}
      </ul>
    </section>
  );
}

function wordsOf({ row, changes, outcome }: Step, type: RecordType, written: ReturnType<typeof useNamed>) {
  if (!outcome.row) {
    return outcome.refusals.length > 0
      ? outcome.refusals.map(({ field, message }) => ({
          id: row.id,
          words: `${field ? `${fieldLabel({ recordType: type }, field)}: ` : ''}${inLocale(message)}`,
          isWrong: true,
        }))
      : [{ id: row.id, words: outcome.problem ?? '', isWrong: true }];
  }
  const [before, after] = [row.values as Values, outcome.row.values as Values];
  const text = (key: string, value: Value) => written(type.fields.find((field) => field.key === key)?.type, value) || 'blank';
  return Object.keys({ ...after, ...changes })
    .filter((key) => !key.startsWith('@') && !isSame(before[key] ?? null, after[key] ?? null))
    .map((key) => ({
      id: row.id,
      words: `${fieldLabel({ recordType: type }, key)}: ${text(key, before[key] ?? null)} → ${text(key, after[key] ?? null)}`,
      isWrong: false,
    }));
}
