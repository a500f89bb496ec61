import { Button, Group, Table, Text, Title, VisuallyHidden } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { changeAccount, listAccounts, makePasswordLink, type AccountEntry } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import { when } from '../writing/when';
import { Place } from '../frame/Place';
import lines from '../sheet/lines.module.css';
import { Access } from './Access';
import { AccountForm } from './AccountForm';
import { Disabling } from './Disabling';
import { HandedOut, type Link } from './HandedOut';
import classes from './People.module.css';

/** Who has an account, and what they may do. What is changed here is in force at once, also for those who are signed in. */
export function People() {
  const queries = useQueryClient();
  const own = useSignedIn().data?.person?.userName;
  const [edited, setEdited] = useState<AccountEntry | 'new'>();
  const [looked, setLooked] = useState<AccountEntry>();
  const [disabling, setDisabling] = useState<AccountEntry>();
  const [link, setLink] = useState<Link>();
  const [problem, setProblem] = useState<Problem>();
  const found = useQuery({ queryKey: ['accounts'], queryFn: () => answered(listAccounts()) });
  const roles = found.data?.roles ?? [];
  const labelOf = (key: string) => roles.find((role) => role.key === key)?.label ?? key;

  /** Does something, and shows what came of it. */
  async function act(action: () => Promise<unknown>) {
    setProblem(undefined);
    try {
      await action();
      await queries.invalidateQueries({ queryKey: ['accounts'] });
      await queries.invalidateQueries({ queryKey: ['people'] });
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  const handOut = (account: AccountEntry) =>
    act(async () => {
      const made = await answered(makePasswordLink({ path: { userName: account.userName } }));
      setLink({ ...made, person: account.displayName });
    });
  const disable = ({ userName, displayName, roles: keys }: AccountEntry, isDisabled: boolean) =>
    act(() => answered(changeAccount({ path: { userName }, body: { displayName, roles: keys, isDisabled } })));

  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: 'People' }]} />
      <div className={classes.sheet}>
        <Group justify="space-between">
          <Title order={2}>People</Title>
          <Button onClick={() => setEdited('new')}>Invite a person</Button>
        </Group>
        {link && <HandedOut link={link} onClose={() => setLink(undefined)} />}
        {problem && (
          <Text className={lines.wrong} role="alert" size="sm">
            {problem.title} {problem.detail}
          </Text>
        )}
        <Table verticalSpacing={6} mt="sm">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Name</Table.Th>
              <Table.Th>Signs in as</Table.Th>
              <Table.Th>Roles</Table.Th>
              <Table.Th>Last here</Table.Th>
              <Table.Th>
                <VisuallyHidden>What can be done</VisuallyHidden>
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {found.data?.accounts.map((account) => (
              <Table.Tr key={account.userName} data-account={account.userName} data-disabled={account.isDisabled || undefined}>
                <Table.Td>
                  {account.displayName} {account.isDisabled && <span className={lines.word}>disabled</span>}
                </Table.Td>
                <Table.Td>{account.userName}</Table.Td>
                <Table.Td>{account.roles.map(labelOf).join(', ') || 'none'}</Table.Td>
                <Table.Td>
                  {account.seenAt ? when(account.seenAt) : account.hasPassword ? '—' : 'has not used the link yet'}
                </Table.Td>
                <Table.Td>
                  <Group gap={6} justify="end" wrap="nowrap">
                    <Button size="compact-sm" variant="default" onClick={() => setEdited(account)}>
                      Change…
                    </Button>
                    <Button size="compact-sm" variant="default" onClick={() => void handOut(account)}>
                      Password link
                    </Button>
                    <Button size="compact-sm" variant="default" onClick={() => setLooked(account)}>
                      Sessions…
                    </Button>
                    <Button
                      size="compact-sm"
                      variant="default"
                      disabled={account.userName === own}
                      onClick={() => (account.isDisabled ? void disable(account, false) : setDisabling(account))}
                    >
                      {account.isDisabled ? 'Let in again' : 'Disable…'}
                    </Button>
                  </Group>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        <Text size="sm" c="dimmed" mt="sm">
          A disabled person is signed out at once, everywhere. What they did stays in the histories.
        </Text>
      </div>
      {looked && <Access account={looked} onClose={() => setLooked(undefined)} />}
      {disabling && (
        <Disabling
          account={disabling}
          onClose={() => setDisabling(undefined)}
          onDisable={() => {
            setDisabling(undefined);
            void disable(disabling, true);
          }}
        />
      )}
      {edited && (
        <AccountForm
          account={edited === 'new' ? undefined : edited}
          roles={roles}
          isOwn={edited !== 'new' && edited.userName === own}
          onClose={() => setEdited(undefined)}
          onDone={(made) => {
            setEdited(undefined);
            if (made) {
              setLink(made);
            }
            void act(() => Promise.resolve());
          }}
        />
      )}
    </main>
  );
}
