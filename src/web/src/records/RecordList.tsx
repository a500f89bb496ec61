import { Anchor, Button, Group, Select, Table, Text, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router-dom';
import { answered } from '../api/client';
import { listRecords } from '../api/generated';
import { when } from '../api/when';
import { Place } from '../frame/Place';
import { stageLabel } from '../sheet/lookUp';
import { afterPaint } from '../engine/afterPaint';
import { editions, engine } from '../engine/pageEngine';
import { useRecordType } from './queries';
import classes from './RecordList.module.css';

/** The records of one type, latest change first. */
export function RecordList() {
  const key = useParams().type!;
  const type = useRecordType(key).data;
  const [search, setSearch] = useState('');
  const [stage, setStage] = useState<string | null>(null);
  // Where each page so far began; the first began at nothing.
  const [pages, setPages] = useState<(string | undefined)[]>([undefined]);
  const after = pages.at(-1);
  const [searched] = useDebouncedValue(search, 200);
  const records = useQuery({
    queryKey: ['records', key, searched, stage, after],
    queryFn: () => answered(listRecords({ path: { key }, query: { search: searched, stage: stage ?? undefined, after } })),
    placeholderData: keepPreviousData,
  }).data;
  const number = type?.number;
  const next = records?.next;
  const isDrawn = type !== undefined && records !== undefined;
  useEffect(() => {
    // While the list is read; the record that is opened next need not wait for the engine.
    const prepare = (edition: number) => editions.program(key, edition).then(() => engine.warm());
    return isDrawn && number !== undefined ? afterPaint(() => void prepare(number).catch(() => undefined)) : undefined;
  }, [isDrawn, key, number]);
  if (!type) {
    return null;
  }
  const { recordType } = type;
  const stages = new Map(recordType.workflows.flatMap((w) => w.stages).map((s) => [s.key, s.label]));
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: recordType.label }]} />
      <Group className={classes.controls}>
        <TextInput
          aria-label="Search titles"
          placeholder="Search titles"
          leftSection={<IconSearch size={15} />}
          value={search}
          onChange={(e) => {
            setSearch(e.currentTarget.value);
            setPages([undefined]);
          }}
        />
        <Select
          aria-label="Stage"
          placeholder="Every stage"
          clearable
          data={[...stages].map(([value, label]) => ({ value, label }))}
          value={stage}
          onChange={(next) => {
            setStage(next);
            setPages([undefined]);
          }}
        />
        <Text size="sm" c="dimmed" style={{ flex: 1 }}>
          {records?.total}
          {records?.isMore && '+'} records
        </Text>
        <Button component={Link} to={`/types/${key}/records/new`} leftSection={<IconPlus size={15} />}>
          New {recordType.label.toLowerCase()}
        </Button>
      </Group>
      <div className={classes.sheet}>
        <Table stickyHeader highlightOnHover verticalSpacing={5}>
          <Table.Thead className={classes.head}>
            <Table.Tr>
              <Table.Th w={70}>No.</Table.Th>
              <Table.Th>Title</Table.Th>
              <Table.Th w={160}>Stage</Table.Th>
              <Table.Th w={200}>Last saved</Table.Th>
              <Table.Th w={120}>By</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {records?.rows.map((row) => (
              <Table.Tr key={row.id}>
                <Table.Td>{row.id}</Table.Td>
                <Table.Td>
                  <Anchor component={Link} to={`/records/${row.id}`} size="sm">
                    {row.title || '(no title)'}
                  </Anchor>
                </Table.Td>
                <Table.Td>{stageLabel(type, row.stage)}</Table.Td>
                <Table.Td>{when(row.changedAt)}</Table.Td>
                <Table.Td>{row.changedBy}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {records?.total === 0 && <Text p="md">No record is like that. Take the search or the stage away.</Text>}
      </div>
      <Group justify="center" p="xs">
        <Button variant="default" size="xs" disabled={pages.length === 1} onClick={() => setPages(pages.slice(0, -1))}>
          Later saved
        </Button>
        <Text size="sm" c="dimmed">
          Page {pages.length}
        </Text>
        <Button variant="default" size="xs" disabled={!next} onClick={() => next && setPages([...pages, next])}>
          Earlier saved
        </Button>
      </Group>
    </main>
  );
}
