import { Button, Menu } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import type { ListRequest, RecordType } from '../api/generated';

/** Records out to a file and in from one. */
export function Files({ type, request }: { type: RecordType; request: Omit<ListRequest, 'after' | 'take'> }) {
  const [isOpen, setOpen] = useState(false);
  const address = `/api/record-types/${encodeURIComponent(type.key)}/records.csv`;
  const view = `list=${encodeURIComponent(JSON.stringify(request))}`;
  return (
    <Menu opened={isOpen} onChange={setOpen}>
      <Menu.Target>
        <Button variant="default">Files</Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>For a spreadsheet: labels and names, as you write</Menu.Label>
        <Out label="What this view shows" to={`${address}?written=true&${view}`} name={type.key} />
        <Out label="All records" to={`${address}?written=true`} name={type.key} />
        <Menu.Label>For programs: keys and numbers</Menu.Label>
        <Out label="What this view shows, as data" to={`${address}?${view}`} name={type.key} />
        <Out label="All records, as data" to={address} name={type.key} />
        <Menu.Divider />
        <Menu.Item component={Link} to={`/types/${type.key}/intake`}>
          Bring records in…
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** Records that go out as a file of separated values. */
const Out = ({ label, to, name }: { label: string; to: string; name: string }) => (
  <Menu.Item component="a" href={to} download={`${name}.csv`}>
    {label}
  </Menu.Item>
);
