import { Anchor, Button, Group, Table, Title } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import { answered } from '../api/client';
import { listRecordTypes } from '../api/generated';
import { usePeople } from '../api/people';
import { useSignedIn } from '../api/signedIn';
import { Place } from '../frame/Place';
import { when } from '../writing/when';
import { NewRecordType } from './NewRecordType';
import classes from './RecordTypes.module.css';

/** Where everyone begins: the kinds of record, each with its ways in. */
export function RecordTypes() {
  const isAdministrator = useSignedIn().data?.person?.isAdministrator ?? false;
  const nameOf = usePeople();
  const [isBeginning, setBeginning] = useState(false);
  const types = useQuery({ queryKey: ['record-types'], queryFn: () => answered(listRecordTypes()) });
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types' }]} />
      <div className={classes.sheet}>
        <Group justify="space-between">
          <Title order={2}>Record types</Title>
          {isAdministrator && <Button onClick={() => setBeginning(true)}>New record type</Button>}
        </Group>
        <Table verticalSpacing="sm" mt="sm">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Record type</Table.Th>
              <Table.Th>Records</Table.Th>
              {isAdministrator && <Table.Th>In the draft</Table.Th>}
              <Table.Th>Edition in force</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {types.data?.map((type) => (
              <Table.Tr key={type.key}>
                <Table.Td>{type.label}</Table.Td>
                <Table.Td>
                  {type.edition == null ? (
                    'not published yet'
                  ) : (
                    <Anchor component={Link} to={`/types/${type.key}/records`}>
                      {type.records} records
                    </Anchor>
                  )}
                </Table.Td>
                {isAdministrator && (
                  <Table.Td>
                    <Anchor component={Link} to={`/types/${type.key}/rules`}>
                      {type.rules} rules
                    </Anchor>
                    {' · '}
                    <Anchor component={Link} to={`/types/${type.key}/fields`}>
                      fields
                    </Anchor>
                    {type.unpublished && (
                      <div className={classes.unpublished}>
                        not published: changed by {nameOf(type.unpublished.by)}, {when(type.unpublished.at)}
                      </div>
                    )}
                  </Table.Td>
                )}
                <Table.Td>{type.edition ?? 'none yet'}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
      {isBeginning && <NewRecordType taken={types.data?.map(({ key }) => key) ?? []} onClose={() => setBeginning(false)} />}
    </main>
  );
}
