import { Select, SegmentedControl } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo, useState, type ReactNode } from 'react';
import { answered } from '../api/client';
import { listRecords, type RecordType, type RecordView } from '../api/generated';
import classes from './TitleBlock.module.css';

/** How the sheet is seen. */
export interface View {
  record: number;
  stage: string;
  role: string;
  isNew: boolean;
}

interface Props {
  type: RecordType;
  sample: RecordView;
  view: View;
  edition: number | null;
  onChange: (view: View) => void;
}

/** The title block at the sheet's lower right: which record, which stage, seen as whom, new or saved, under what. */
export const TitleBlock = memo(function TitleBlock({ type, sample, view, edition, onChange }: Props) {
  const { key } = type;
  const [search, setSearch] = useState('');
  const [searched] = useDebouncedValue(search, 200);
  const found = useQuery({
    queryKey: ['samples', key, searched],
    queryFn: () => answered(listRecords({ path: { key }, query: { search: searched } })),
    placeholderData: keepPreviousData,
  }).data?.rows;
  const title = String(sample.values[type.titleField] ?? '');
  const records = [{ value: String(sample.id), label: `${sample.id} ${title}` }];
  found
    ?.filter((row) => row.id !== sample.id)
    .forEach((row) => records.push({ value: String(row.id), label: `${row.id} ${row.title}` }));
  const workflow = type.workflows.find((w) => w.key === sample.setting.workflow) ?? type.workflows[0]!;
  return (
    <div className={classes.block} role="group" aria-label="Title block: how the sheet is seen">
      <Cell label="Record" isWide>
        <Select
          aria-label="Record"
          variant="unstyled"
          searchable
          allowDeselect={false}
          data={records}
          value={String(sample.id)}
          filter={({ options }) => options}
          onSearchChange={(text) => setSearch(text === records[0]!.label ? '' : text)}
          onChange={(id) => id && onChange({ ...view, record: Number(id), stage: '' })}
        />
      </Cell>
      <Cell label="Stage">
        <Select
          aria-label="Stage"
          variant="unstyled"
          allowDeselect={false}
          data={workflow.stages.map((s) => ({ value: s.key, label: s.label }))}
          value={view.stage || sample.setting.stage}
          onChange={(stage) => stage && onChange({ ...view, stage })}
        />
      </Cell>
      <Cell label="Seen as">
        <Select
          aria-label="Seen as"
          variant="unstyled"
          allowDeselect={false}
          data={type.roles?.map((r) => ({ value: r.key, label: r.label })) ?? []}
          value={view.role}
          onChange={(role) => role && onChange({ ...view, role })}
        />
      </Cell>
      <Cell label="The record is">
        <SegmentedControl
          size="xs"
          classNames={{ root: classes.answers, indicator: classes.given }}
          aria-label="New or saved"
          data={[
            { value: 'saved', label: 'saved' },
            { value: 'new', label: 'new' },
          ]}
          value={view.isNew ? 'new' : 'saved'}
          onChange={(next) => onChange({ ...view, isNew: next === 'new' })}
        />
      </Cell>
      <Cell label="Drawn from">
        <span className={classes.text}>Draft after edition {edition ?? 0}</span>
      </Cell>
    </div>
  );
});

function Cell({ label, isWide = false, children }: { label: string; isWide?: boolean; children: ReactNode }) {
  return (
    <div className={classes.cell} data-wide={isWide || undefined}>
      <span className={classes.label}>{label}</span>
      {children}
    </div>
  );
}
