import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconChevronDown, IconPlus } from '@tabler/icons-react';
import type { Rule } from '../api/generated';
import { newGrid, newRule } from './rule/compose';

/** Begins a rule: as a sentence, or as a grid that says for each choice how other fields are. */
export function NewRule({ onNew, onPaste }: { onNew: (rule: Rule) => void; onPaste: () => void }) {
  return (
    <Button.Group>
      <Button leftSection={<IconPlus size={14} />} onClick={() => onNew(newRule())}>
        New rule
      </Button>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon size={30} variant="filled" aria-label="Other ways to begin a rule">
            <IconChevronDown size={14} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => onNew(newGrid())}>Grid or table: each choice says how other fields are</Menu.Item>
          <Menu.Item
            onClick={() =>
              onNew({ ...newRule(), cases: [{ while: null, effects: [{ kind: 'require', targets: [], level: 'toMoveOn' }] }] })
            }
          >
            Always, without a condition
          </Menu.Item>
          <Menu.Item onClick={onPaste}>From elsewhere: paste sentences or a pack</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </Button.Group>
  );
}
