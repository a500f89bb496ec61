import { Button, Menu } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import type { ListRequest, RecordType } from '../api/generated';

/** Records out to a file and in from one. */
export function Files({ type, request }: { type: RecordType; request: Omit<ListRequest, 'after' | 'take'> }) {
  const [isOpen, setOpen] = useState(false);
  const records = `/api/record-types/${encodeURIComponent(type.key)}/records`;
  const view = `list=${encodeURIComponent(JSON.stringify(request))}`;
  return (
    <Menu opened={isOpen} onChange={setOpen}>
      <Menu.Target>
        <Button variant="default">Files</Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>For a spreadsheet: labels and names, as you write</Menu.Label>
        <Out label="What this view shows, as a workbook" to={`${records}.xlsx?${view}`} name={`${type.key}.xlsx`} />
        <Out label="All records, as a workbook" to={`${records}.xlsx`} name={`${type.key}.xlsx`} />
        <Out label="What this view shows, as CSV" to={`${records}.csv?written=true&${view}`} name={`${type.key}.csv`} />
        <Out label="All records, as CSV" to={`${records}.csv?written=true`} name={`${type.key}.csv`} />
        <Menu.Label>For programs: keys and numbers</Menu.Label>
        <Out label="What this view shows, as data" to={`${records}.csv?${view}`} name={`${type.key}.csv`} />
        <Out label="All records, as data" to={`${records}.csv`} name={`${type.key}.csv`} />
        <Menu.Divider />
        <Menu.Item component={Link} to={`/types/${type.key}/intake`}>
          Bring records in…
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** Records that go out as a file. */
const Out = ({ label, to, name }: { label: string; to: string; name: string }) => (
  <Menu.Item component="a" href={to} download={name}>
    {label}
  </Menu.Item>
);
