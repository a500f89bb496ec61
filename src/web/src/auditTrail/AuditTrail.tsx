import { Button, Group, Table, Text } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readAudit, type AuditEvent } from '../api/generated';
import { usePeople } from '../api/people';
import { Place } from '../frame/Place';
import classes from './AuditTrail.module.css';

const words: Record<AuditEvent, string> = {
  signedIn: 'Signed in',
  signInFailed: 'Wrong password',
  signInSlowedDown: 'Too many wrong passwords: slowed down',
  signedOut: 'Signed out',
  sessionEnded: 'Signed out elsewhere',
  tokenMade: 'Made a token',
  tokenRevoked: 'Took a token back',
  recordTypeBegun: 'Began a record type',
  published: 'Published',
  rulesExported: 'Took rules out',
  rulesImported: 'Brought rules in',
  recordsExported: 'Took records out',
  recordsImported: 'Brought records in',
  personInvited: 'Invited a person',
  accountChanged: 'Changed an account',
  accountDisabled: 'Disabled an account',
  passwordLinkMade: 'Made a password link',
  passwordSet: 'Set a password by a link',
};

/** How many entries the server gives at once; a page with fewer is the last. */
const pageSize = 50;

/** Who did what that somebody may have to account for, latest first. */
export function AuditTrail() {
  const nameOf = usePeople();
  const trail = useInfiniteQuery({
    queryKey: ['audit'],
    queryFn: ({ pageParam }) => answered(readAudit({ query: { before: pageParam } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < pageSize ? undefined : page.at(-1)!.id),
  });
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: 'Audit trail' }]} />
      <Text size="sm" c="dimmed" className={classes.controls}>
        Sign-ins, publications, and what went in and out, latest first.
      </Text>
      <div className={classes.sheet}>
        <Table stickyHeader verticalSpacing={5}>
          <Table.Thead className={classes.head}>
            <Table.Tr>
              <Table.Th w={200}>When</Table.Th>
              <Table.Th w={140}>Who</Table.Th>
              <Table.Th>What</Table.Th>
              <Table.Th>About</Table.Th>
              <Table.Th w={160}>From</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {trail.data?.pages.flat().map((entry) => (
              <Table.Tr key={entry.id}>
                <Table.Td>{new Date(entry.at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' })}</Table.Td>
                <Table.Td>{nameOf(entry.who ?? undefined) || '—'}</Table.Td>
                <Table.Td>{words[entry.event]}</Table.Td>
                <Table.Td>{entry.about}</Table.Td>
                <Table.Td>{entry.address}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
      <Group justify="center" p="xs">
        <Button variant="default" size="xs" disabled={!trail.hasNextPage} onClick={() => void trail.fetchNextPage()}>
          Show earlier
        </Button>
      </Group>
    </main>
  );
}
