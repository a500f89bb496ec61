import { Button, MultiSelect, Select, Switch } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo, useState, type ReactNode } from 'react';
import { answered } from '../../api/client';
import { listRecords, type RecordType, type RecordView } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useFromRecord } from '../../engine/useRecord';
import { ReadInput } from '../../sheet/ReadInput';
import classes from './TitleBlock.module.css';
import type { View } from './view';
import { peopleQuery } from '../../api/people';

interface Props {
  type: RecordType;
  sample: RecordView;
  record: OpenRecord;
  view: View;
  edition: number | null;
  onChange: (change: Partial<View>) => void;
}

const newRecord = { value: '0', label: 'an empty new one' };

/** The title block at the sheet's lower right: which record, in which stage, seen as whom, on which day and form, under what. */
export const TitleBlock = memo(function TitleBlock({ type, sample, record, view, edition, onChange }: Props) {
  const { setting } = sample;
  const workflow = type.workflows.find(({ key }) => key === (view.workflow || setting.workflow)) ?? type.workflows[0]!;
  const stage = view.stage || setting.stage;
  const moves = workflow.moves.filter(({ from }) => from === stage);
  const people = useQuery(peopleQuery).data ?? [];
  return (
    <div className={classes.block} role="group" aria-label="Title block: how the sheet is seen">
      <Cell label="Record">
        <RecordChoice type={type} sample={sample} view={view} onChange={onChange} />
      </Cell>
      <Cell label="Stage">
        <Select
          {...common}
          aria-label="Stage"
          data={workflow.stages.map(({ key, label }) => ({ value: key, label }))}
          value={stage}
          onChange={(next) => next && onChange({ stage: next === setting.stage ? '' : next, move: '' })}
        />
      </Cell>
      <Cell label="Move tried">
        <Select
          {...common}
          aria-label="Move tried"
          data={[{ value: '', label: 'none' }, ...moves.map(({ key, label }) => ({ value: key, label }))]}
          value={view.move}
          onChange={(move) => onChange({ move: move ?? '' })}
        />
      </Cell>
      <Cell label="Seen as">
        <MultiSelect
          {...common}
          aria-label="Seen as"
          hidePickedOptions={false}
          classNames={{ pill: classes.pill }}
          data={type.roles?.map(({ key, label }) => ({ value: key, label })) ?? []}
          value={view.roles}
          onChange={(roles) => onChange({ roles })}
        />
      </Cell>
      <Cell label="Person">
        <Select
          {...common}
          aria-label="Person"
          searchable
          data={[
            { value: '', label: 'yourself' },
            ...people.map(({ userName, displayName }) => ({ value: userName, label: displayName })),
          ]}
          value={view.person}
          onChange={(person) => onChange({ person: person ?? '' })}
        />
      </Cell>
      <Cell label="On">
        <ReadInput
          type={{ kind: 'date' }}
          variant="unstyled"
          aria-label="Seen on"
          placeholder="today"
          value={view.date || null}
          onChange={(day) => onChange({ date: typeof day === 'string' ? day : '' })}
        />
      </Cell>
      <Cell label="Form">
        <Select
          {...common}
          aria-label="Form"
          data={type.forms.map(({ key, label }) => ({ value: key, label }))}
          value={view.form}
          onChange={(form) => form && onChange({ form, tab: '' })}
        />
      </Cell>
      <Cell label={edition === null ? 'First draft' : `Draft after edition ${edition}`}>
        <div className={classes.ways}>
          <Switch
            size="xs"
            label="as a member"
            checked={view.asMember}
            onChange={(event) => onChange({ asMember: event.currentTarget.checked })}
          />
          <Switch
            size="xs"
            label="being read"
            checked={view.isReading}
            onChange={(event) => onChange({ isReading: event.currentTarget.checked })}
          />
          <Untry record={record} />
        </div>
      </Cell>
    </div>
  );
});

const common = { variant: 'unstyled', allowDeselect: false } as const;

/** Puts the record's own values back in place of those that were tried. */
function Untry({ record }: { record: OpenRecord }) {
  const count = useFromRecord(record, () => record.trial.size);
  return count === 0 ? null : (
    <Button
      className={classes.untry}
      size="compact-xs"
      variant="default"
      onClick={() => record.untry()}
      title="Put the record’s own values back"
    >
      ↺ {count} tried
    </Button>
  );
}

function RecordChoice({ type, sample, view, onChange }: Pick<Props, 'type' | 'sample' | 'view' | 'onChange'>) {
  const [search, setSearch] = useState('');
  const [searched] = useDebouncedValue(search, 200);
  const found = useQuery({
    queryKey: ['samples', type.key, searched],
    queryFn: () => answered(listRecords({ path: { key: type.key }, query: { search: searched } })),
    placeholderData: keepPreviousData,
  }).data?.rows;
  const id = sample.id ?? 0;
  const present = id === 0 ? newRecord : { value: String(id), label: `${id} ${String(sample.values[type.titleField] ?? '')}` };
  const options = [
    present,
    newRecord,
    ...(found ?? []).map((row) => ({ value: String(row.id), label: `${row.id} ${row.title}` })),
  ];
  return (
    <Select
      {...common}
      aria-label="Record"
      searchable
      data={options.filter((one, i) => options.findIndex(({ value }) => value === one.value) === i)}
      value={String(view.record === id ? id : view.record)}
      filter={({ options: all }) => all}
      onSearchChange={(text) => setSearch(text === present.label ? '' : text)}
      onChange={(next) => next && onChange({ record: Number(next), workflow: '', stage: '', move: '', tried: {} })}
    />
  );
}

function Cell({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className={classes.cell}>
      <span className={classes.label}>{label}</span>
      {children}
    </div>
  );
}
