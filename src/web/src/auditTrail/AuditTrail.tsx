import { Button, Group, Select, Table, Text, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconSearch } from '@tabler/icons-react';
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { answered, type Problem } from '../api/client';
import { readAudit, type AuditEvent } from '../api/generated';
import { Place } from '../frame/Place';
import lines from '../sheet/lines.module.css';
import { whenExactly } from '../writing/when';
import classes from './AuditTrail.module.css';
import { eventWords } from './eventWords';
import { peopleQuery } from '../api/people';

/** How many entries the server gives at once; a page with fewer is the last. */
const pageSize = 50;

interface Sought {
  search: string;
  event: AuditEvent | null;
  who: string | null;
  from: string;
  to: string;
}

const everything: Sought = { search: '', event: null, who: null, from: '', to: '' };

/** Who did what that somebody may have to account for, latest first. */
export function AuditTrail() {
  const people = useQuery(peopleQuery).data ?? [];
  const [sought, setSought] = useState(everything);
  const [settled] = useDebouncedValue(sought, 250);
  const query = useMemo(() => asked(settled), [settled]);
  const trail = useInfiniteQuery({
    queryKey: ['audit', query],
    queryFn: ({ pageParam }) => answered(readAudit({ query: { ...query, before: pageParam } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < pageSize ? undefined : page.at(-1)!.id),
    placeholderData: keepPreviousData,
  });
  const entries = trail.data?.pages.flat() ?? [];
  const problem = trail.error as Problem | null;
  const seek = (change: Partial<Sought>) => setSought((before) => ({ ...before, ...change }));
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: 'Audit trail' }]} />
      <Group className={classes.controls} gap={8}>
        <TextInput
          aria-label="Search the trail"
          placeholder="Search the trail"
          leftSection={<IconSearch size={15} />}
          value={sought.search}
          onChange={(event) => seek({ search: event.currentTarget.value })}
        />
        <Select
          aria-label="What happened"
          placeholder="Anything"
          w={210}
          clearable
          searchable
          data={Object.entries(eventWords).map(([value, label]) => ({ value, label }))}
          value={sought.event}
          onChange={(event) => seek({ event: event as AuditEvent | null })}
        />
        <Select
          aria-label="Who did it"
          placeholder="Anybody"
          w={170}
          clearable
          searchable
          data={people.map(({ userName, displayName }) => ({ value: userName, label: displayName }))}
          value={sought.who}
          onChange={(who) => seek({ who })}
        />
        <Text size="sm" aria-hidden>
          from
        </Text>
        <TextInput
          type="date"
          aria-label="From this day on"
          value={sought.from}
          onChange={(event) => seek({ from: event.currentTarget.value })}
        />
        <Text size="sm" aria-hidden>
          to
        </Text>
        <TextInput
          type="date"
          aria-label="Up to this day"
          value={sought.to}
          onChange={(event) => seek({ to: event.currentTarget.value })}
        />
        <Button component="a" variant="default" href={`/api/audit.csv?${new URLSearchParams(query).toString()}`} download>
          As a file
        </Button>
      </Group>
      <div className={classes.sheet}>
        <Table stickyHeader verticalSpacing={5}>
          <Table.Thead className={classes.head}>
            <Table.Tr>
              <Table.Th w={200}>When</Table.Th>
              <Table.Th w={140}>Who</Table.Th>
              <Table.Th w={220}>What</Table.Th>
              <Table.Th>About</Table.Th>
              <Table.Th w={130}>From</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {entries.map((entry) => (
              <Table.Tr key={entry.id}>
                <Table.Td>{whenExactly(entry.at)}</Table.Td>
                <Table.Td>{entry.name ?? entry.who ?? '—'}</Table.Td>
                <Table.Td>{eventWords[entry.event]}</Table.Td>
                <Table.Td>{entry.about}</Table.Td>
                <Table.Td>{entry.address}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {(problem ?? (trail.isSuccess && entries.length === 0)) && (
          <Text size="sm" p="sm" role={problem ? 'alert' : 'status'} className={problem ? lines.wrong : undefined}>
            {problem ? `${problem.title} ${problem.detail}` : 'Nothing of that kind happened.'}
          </Text>
        )}
      </div>
      <Group justify="center" p="xs">
        <Button variant="default" size="xs" disabled={!trail.hasNextPage} onClick={() => void trail.fetchNextPage()}>
          Show earlier
        </Button>
      </Group>
    </main>
  );
}

/** What the server is asked for; a filter that is left open says nothing. */
function asked({ search, event, who, from, to }: Sought): Record<string, string> & { event?: AuditEvent } {
  const given = Object.entries({ search: search.trim(), event: event ?? '', who: who ?? '', from, to });
  return Object.fromEntries(given.filter(([, value]) => value !== ''));
}
