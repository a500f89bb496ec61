import { Button, Group, NumberInput, Table, Text, TextInput, Title } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Writing } from './Writing';
import { answered, type Problem } from '../api/client';
import { endSignIn, listSignIns, listTokens, makeToken, revokeToken } from '../api/generated';
import { when } from '../writing/when';
import { Place } from '../frame/Place';
import classes from './Account.module.css';

/** Where one is signed in, and which programs act for one; each can be ended from here. */
export function Account() {
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: 'Your account' }]} />
      <Writing />
      <SignIns />
      <Tokens />
    </main>
  );
}

function SignIns() {
  const queries = useQueryClient();
  const signIns = useQuery({ queryKey: ['sign-ins'], queryFn: () => answered(listSignIns()) }).data ?? [];

  async function end(id: number) {
    await answered(endSignIn({ path: { id } }));
    await queries.invalidateQueries({ queryKey: ['sign-ins'] });
  }

  return (
    <section className={classes.sheet} aria-label="Where you are signed in">
      <Title order={2}>Where you are signed in</Title>
      <Table mt="xs">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Since</Table.Th>
            <Table.Th>Last used</Table.Th>
            <Table.Th />
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {signIns.map((signIn) => (
            <Table.Tr key={signIn.id}>
              <Table.Td>{when(signIn.begunAt)}</Table.Td>
              <Table.Td>{when(signIn.usedAt)}</Table.Td>
              <Table.Td ta="right">
                {signIn.isThis ? (
                  <Text size="sm">this one</Text>
                ) : (
                  <Button size="compact-sm" variant="default" onClick={() => void end(signIn.id)}>
                    Sign out there
                  </Button>
                )}
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </section>
  );
}

function Tokens() {
  const queries = useQueryClient();
  const tokens = useQuery({ queryKey: ['tokens'], queryFn: () => answered(listTokens()) }).data ?? [];
  const [name, setName] = useState('');
  const [days, setDays] = useState<number | string>(90);
  const [made, setMade] = useState<string>();
  const [problem, setProblem] = useState<Problem>();

  async function make() {
    setProblem(undefined);
    try {
      setMade((await answered(makeToken({ body: { name, days: Number(days) } }))).token);
      setName('');
      await queries.invalidateQueries({ queryKey: ['tokens'] });
    } catch (failure) {
      setProblem(failure as Problem);
    }
  }

  async function revoke(id: number) {
    await answered(revokeToken({ path: { id } }));
    await queries.invalidateQueries({ queryKey: ['tokens'] });
  }

  return (
    <section className={classes.sheet} aria-label="Programs that act for you">
      <Title order={2}>Programs that act for you</Title>
      <Text size="sm">
        A program that sends a token with its requests may do what you may do, under the rules for the channel <em>program</em>.
      </Text>
      {tokens.length > 0 && (
        <Table mt="xs">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Program</Table.Th>
              <Table.Th>Made</Table.Th>
              <Table.Th>Good until</Table.Th>
              <Table.Th />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {tokens.map((token) => (
              <Table.Tr key={token.id}>
                <Table.Td>{token.name}</Table.Td>
                <Table.Td>{when(token.madeAt)}</Table.Td>
                <Table.Td>{when(token.expiresAt)}</Table.Td>
                <Table.Td ta="right">
                  <Button size="compact-sm" variant="default" onClick={() => void revoke(token.id)}>
                    Take back
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      <Group align="end" mt="sm" gap="sm">
        <TextInput label="What the program is called" value={name} onChange={(e) => setName(e.currentTarget.value)} />
        <NumberInput size="xs" label="Days it is good for" w={130} min={1} max={365} value={days} onChange={setDays} />
        <Button variant="default" disabled={name.trim() === ''} onClick={() => void make()}>
          Make a token
        </Button>
      </Group>
      {problem && (
        <Text size="sm" role="alert" className={classes.problem}>
          {problem.title} {problem.detail}
        </Text>
      )}
      {made && (
        <div role="status" className={classes.made}>
          <Text size="sm">Copy the token now: it is shown this once.</Text>
          <code className={classes.token}>{made}</code>
        </div>
      )}
    </section>
  );
}
