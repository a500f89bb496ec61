import { Button, Menu } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import type { ListRequest, RecordType } from '../api/generated';

/** Records out to a file and in from one. */
export function Files({ type, request }: { type: RecordType; request: Omit<ListRequest, 'after' | 'take'> }) {
  const [isOpen, setOpen] = useState(false);
  const address = `/api/record-types/${encodeURIComponent(type.key)}/records.csv`;
  return (
    <Menu opened={isOpen} onChange={setOpen}>
      <Menu.Target>
        <Button variant="default">Files</Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          component="a"
          href={`${address}?list=${encodeURIComponent(JSON.stringify(request))}`}
          download={`${type.key}.csv`}
        >
          What this view shows, as CSV
        </Menu.Item>
        <Menu.Item component="a" href={address} download={`${type.key}.csv`}>
          All records, as CSV
        </Menu.Item>
        <Menu.Item component={Link} to={`/types/${type.key}/intake`}>
          Bring records in…
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
