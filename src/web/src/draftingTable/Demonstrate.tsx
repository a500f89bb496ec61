import { ActionIcon, Menu } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useState } from 'react';
import type { Effect, Element } from '../api/generated';
import classes from './DraftSheet.module.css';

/** Proposes a rule by demonstration: this element, with the values just set on the sheet as the condition. */
export function Demonstrate({ element, onPropose }: { element: Element; onPropose: (effect: Effect) => void }) {
  const [isOpen, setOpen] = useState<boolean>();
  const targets = [element];
  const proposals: { label: string; effect: Effect }[] = [
    { label: 'Require it to move on', effect: { kind: 'require', targets, level: 'toMoveOn' } },
    { label: 'Require it to save', effect: { kind: 'require', targets, level: 'toSave' } },
    { label: 'Hide it', effect: { kind: 'hide', targets, value: 'keep' } },
    { label: 'Show it', effect: { kind: 'show', targets } },
    { label: 'Lock it', effect: { kind: 'lock', targets } },
  ];
  const button = (
    <ActionIcon
      className={classes.demonstrate}
      variant="subtle"
      size="sm"
      aria-label="Propose a rule for this"
      aria-haspopup="menu"
      onClick={() => setOpen(true)}
    >
      <IconPlus size={14} />
    </ActionIcon>
  );
  // Most are never pressed, and a menu for each would be most of what a sheet costs.
  return isOpen === undefined ? (
    button
  ) : (
    <Menu opened={isOpen} onClose={() => setOpen(false)} position="bottom-end" shadow="md">
      <Menu.Target>{button}</Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>While it is as on the sheet now</Menu.Label>
        {proposals.map(({ label, effect }) => (
          <Menu.Item key={label} onClick={() => onPropose(effect)}>
            {label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
