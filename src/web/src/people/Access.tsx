import { Button, Table, Text } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { endSignInOf, readAccess, revokeTokenOf, type AccountEntry } from '../api/generated';
import { Dialog } from '../frame/Dialog';
import lines from '../sheet/lines.module.css';
import { when } from '../writing/when';

/** By what a person gets in: where they are signed in, and which programs act for them. Each is ended from here, at once. */
export function Access({ account, onClose }: { account: AccountEntry; onClose: () => void }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem>();
  const { userName } = account;
  const found = useQuery({ queryKey: ['access', userName], queryFn: () => answered(readAccess({ path: { userName } })) });
  const { signIns = [], tokens = [] } = found.data ?? {};

  async function end(ending: Promise<unknown>) {
    setProblem(undefined);
    try {
      await ending;
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
    await queries.invalidateQueries({ queryKey: ['access', userName] });
  }

  const rows = [
    ...signIns.map(({ id, begunAt, usedAt }) => ({
      id: `signed in ${id}`,
      what: 'Signed in',
      since: begunAt,
      until: `last used ${when(usedAt)}`,
      label: 'Sign out there',
      end: () => answered(endSignInOf({ path: { userName, id } })),
    })),
    ...tokens.map(({ id, name, madeAt, expiresAt }) => ({
      id: `token ${id}`,
      what: `Program “${name}”`,
      since: madeAt,
      until: `good until ${when(expiresAt)}`,
      label: 'Take back',
      end: () => answered(revokeTokenOf({ path: { userName, id } })),
    })),
  ];
  return (
    <Dialog title={`Where ${account.displayName} gets in`} isOpen onClose={onClose} size="lg">
      {found.isSuccess && rows.length === 0 && <Text size="sm">Signed in nowhere, and no program acts for them.</Text>}
      {rows.length > 0 && (
        <Table verticalSpacing={6}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>What</Table.Th>
              <Table.Th>Since</Table.Th>
              <Table.Th>Use</Table.Th>
              <Table.Th aria-label="What can be done" />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map((row) => (
              <Table.Tr key={row.id}>
                <Table.Td>{row.what}</Table.Td>
                <Table.Td>{when(row.since)}</Table.Td>
                <Table.Td>{row.until}</Table.Td>
                <Table.Td ta="right">
                  <Button size="compact-sm" variant="default" onClick={() => void end(row.end())}>
                    {row.label}
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {problem && (
        <Text className={lines.wrong} role="alert" size="sm" mt="xs">
          {problem.title} {problem.detail}
        </Text>
      )}
    </Dialog>
  );
}
