import { Autocomplete, Button, Menu, Popover } from '@mantine/core';
import { useState } from 'react';
import classes from './TickedBar.module.css';

interface Props {
  count: number;
  groups: string[];
  onSwitch: (on: boolean) => void;
  onMove: (to: 'top' | 'bottom') => void;
  onGroup: (group: string | null) => void;
  onDuplicate: () => void;
  onCopy: (as: 'sentences' | 'pack') => void;
  onDelete: () => void;
  onLeave: () => void;
}

/** What can be done to several rules at once. */
export function TickedBar({ count, groups, onSwitch, onMove, onGroup, onDuplicate, onCopy, onDelete, onLeave }: Props) {
  const [group, setGroup] = useState('');
  const [isGrouping, setGrouping] = useState(false);

  function intoGroup(name: string | null) {
    setGrouping(false);
    setGroup('');
    onGroup(name);
  }

  return (
    <div className={classes.bar} role="toolbar" aria-label="Rules that are ticked">
      <strong role="status">{count === 1 ? '1 rule' : `${count} rules`}</strong>
      <Button.Group>
        <Button size="compact-xs" variant="default" onClick={() => onSwitch(true)}>
          On
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => onSwitch(false)}>
          Off
        </Button>
      </Button.Group>
      <Popover opened={isGrouping} onChange={setGrouping} trapFocus returnFocus position="bottom-start" withinPortal>
        <Popover.Target>
          <Button size="compact-xs" variant="default" onClick={() => setGrouping(true)}>
            Group…
          </Button>
        </Popover.Target>
        <Popover.Dropdown className={classes.grouping} aria-label="Group of these rules">
          <Autocomplete
            size="xs"
            label="Name of the group"
            data-autofocus
            data={groups}
            comboboxProps={{ withinPortal: false }}
            value={group}
            onChange={setGroup}
            onKeyDown={(event) => event.key === 'Enter' && group.trim() && intoGroup(group.trim())}
          />
          <Button disabled={!group.trim()} onClick={() => intoGroup(group.trim())}>
            Put into the group
          </Button>
          <Button variant="subtle" onClick={() => intoGroup(null)}>
            Take out of their groups
          </Button>
        </Popover.Dropdown>
      </Popover>
      <Menu position="bottom-start">
        <Menu.Target>
          <Button size="compact-xs" variant="default">
            More…
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => onMove('top')}>Move to the top</Menu.Item>
          <Menu.Item onClick={() => onMove('bottom')}>Move to the bottom</Menu.Item>
          <Menu.Item onClick={onDuplicate}>Duplicate</Menu.Item>
          <Menu.Item onClick={() => onCopy('sentences')}>Copy as sentences</Menu.Item>
          <Menu.Item onClick={() => onCopy('pack')}>Copy as a pack</Menu.Item>
          <Menu.Divider />
          <Menu.Item c="var(--red)" onClick={onDelete}>
            Delete
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Button size="compact-xs" variant="subtle" onClick={onLeave}>
        Untick
      </Button>
    </div>
  );
}
