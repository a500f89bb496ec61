import { Button, Group, Table, Text, Title, UnstyledButton } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment, useRef, useState } from 'react';
import { answered, type Problem } from '../api/client';
import { endImport, listImports, takeImportBack, type ImportEntry } from '../api/generated';
import lines from '../sheet/lines.module.css';
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
  const heading = useRef<HTMLHeadingElement>(null);
  const [asked, setAsked] = useState<string>();
  const [problem, setProblem] = useState<Problem>();
  const again = () => queries.invalidateQueries({ queryKey: ['imports'] });

  async function takeBack(id: string) {
    // What was pressed goes away.
    heading.current?.focus();
    setAsked(undefined);
    setProblem(undefined);
    try {
      onOpen((await answered(takeImportBack({ path: { id } }))).id);
      await again();
    } catch (failure) {
      setProblem(failure as Problem);
    }
  }

  const own = imports?.filter((one) => one.recordType === recordType) ?? [];
  return own.length === 0 ? null : (
    <section className={classes.sheet} aria-label="Brought in lately">
      <Title order={2} ref={heading} tabIndex={-1}>
        Brought in lately
      </Title>
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
            <Fragment key={one.id}>
              <Table.Tr>
                <Table.Td>{when(one.begunAt)}</Table.Td>
                <Table.Td>{words(one)}</Table.Td>
                <Table.Td ta="right">
                  <Group gap="xs" justify="flex-end">
                    {one.isThrough ? (
                      <>
                        {mayBeTakenBack(one) && asked !== one.id && (
                          <Button size="compact-sm" variant="default" onClick={() => setAsked(one.id)}>
                            Take it back…
                          </Button>
                        )}
                        <UnstyledButton className={classes.link} onClick={() => onOpen(one.id)}>
                          Row by row
                        </UnstyledButton>
                      </>
                    ) : (
                      <Button
                        size="compact-sm"
                        variant="default"
                        onClick={() => void answered(endImport({ path: { id: one.id } })).then(again)}
                      >
                        End it here
                      </Button>
                    )}
                  </Group>
                </Table.Td>
              </Table.Tr>
              {asked === one.id && (
                <Table.Tr>
                  <Table.Td colSpan={3}>
                    <Group gap="xs" role="group" aria-label="Take it back">
                      <Text size="sm" className={classes.grow}>
                        Records that it began are removed, others get back what they held. What somebody saved since stays.
                      </Text>
                      <Button size="compact-sm" ref={(button) => button?.focus()} onClick={() => void takeBack(one.id)}>
                        Take {writtenNumber(one.imported)} {one.imported === 1 ? 'row' : 'rows'} back
                      </Button>
                      <Button size="compact-sm" variant="default" onClick={() => setAsked(undefined)}>
                        Close
                      </Button>
                    </Group>
                  </Table.Td>
                </Table.Tr>
              )}
            </Fragment>
          ))}
        </Table.Tbody>
      </Table>
      {problem && (
        <Text size="sm" role="alert" className={lines.wrong}>
          {problem.title} {problem.detail}
        </Text>
      )}
    </section>
  );
}

const mayBeTakenBack = ({ isTakingBack, isTakenBack, imported }: ImportEntry) => !isTakingBack && !isTakenBack && imported > 0;

function words({
  isThrough,
  rows,
  looked,
  imported,
  refused,
  notReached,
  failure,
  isTakingBack,
  isTakenBack,
}: ImportEntry): string {
  const what = isTakingBack ? 'records' : 'rows';
  if (!isThrough) {
    return `${writtenNumber(looked)} of ${writtenNumber(rows)} ${what} are looked at${isTakingBack ? ', to take back what had come in' : ''}`;
  }
  return [
    `${writtenNumber(imported)} of ${writtenNumber(rows)} ${isTakingBack ? 'taken back' : 'taken in'}`,
    ...(isTakenBack ? ['taken back since'] : []),
    ...(refused > 0 ? [`${writtenNumber(refused)} ${isTakingBack ? 'stay as they are' : 'refused'}`] : []),
    ...(notReached > 0 ? [`${writtenNumber(notReached)} not come to`] : []),
    ...(failure ? [failure] : []),
  ].join(', ');
}
