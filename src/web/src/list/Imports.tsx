import { Anchor, Button, Table, Title } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answered } from '../api/client';
import { endImport, listImports, type ImportEntry } from '../api/generated';
import { writtenNumber } from '../writing/numbers';
import { when } from '../writing/when';
import classes from './IntakePage.module.css';

/** How often it is looked how far those are that go on, in milliseconds. */
const often = 1000;

/** What the person has brought in lately, also what goes on: how far it is, and what was refused. */
export function Imports({ recordType, onOpen }: { recordType: string; onOpen: (id: string) => void }) {
  const queries = useQueryClient();
  const imports = useQuery({
    queryKey: ['imports'],
    queryFn: () => answered(listImports()),
    refetchInterval: ({ state }) => (state.data?.some(({ isThrough }) => !isThrough) ? often : false),
  }).data;
  const own = imports?.filter((one) => one.recordType === recordType) ?? [];
  return own.length === 0 ? null : (
    <section className={classes.sheet} aria-label="Brought in lately">
      <Title order={2}>Brought in lately</Title>
      <Table mt="xs">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Begun</Table.Th>
            <Table.Th>What came of it</Table.Th>
            <Table.Th />
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {own.map((one) => (
            <Table.Tr key={one.id}>
              <Table.Td>{when(one.begunAt)}</Table.Td>
              <Table.Td>{words(one)}</Table.Td>
              <Table.Td ta="right">
                {one.isThrough ? (
                  <Anchor component="button" size="sm" onClick={() => onOpen(one.id)}>
                    Row by row
                  </Anchor>
                ) : (
                  <Button
                    size="compact-sm"
                    variant="default"
                    onClick={() =>
                      void answered(endImport({ path: { id: one.id } })).then(() =>
                        queries.invalidateQueries({ queryKey: ['imports'] }),
                      )
                    }
                  >
                    End it here
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

function words({ isThrough, rows, looked, imported, refused, notReached, failure }: ImportEntry): string {
  if (!isThrough) {
    return `${writtenNumber(looked)} of ${writtenNumber(rows)} rows are looked at`;
  }
  return [
    `${writtenNumber(imported)} of ${writtenNumber(rows)} taken in`,
    ...(refused > 0 ? [`${writtenNumber(refused)} refused`] : []),
    ...(notReached > 0 ? [`${writtenNumber(notReached)} not come to`] : []),
    ...(failure ? [failure] : []),
  ].join(', ');
}
