import { ActionIcon, Button, Checkbox, Group, Popover, ScrollArea } from '@mantine/core';
import { IconArrowDown, IconArrowUp } from '@tabler/icons-react';
import type { ColumnView } from '../api/generated';
import { widthOf, type Layout } from './layout';

interface Props {
  known: ColumnView[];
  layout: Layout;
  onLayout: (change: Partial<Layout>) => void;
}

/** Which columns the list has, and in which order. */
export function ColumnChoice({ known, layout: { columns }, onLayout }: Props) {
  const others = known.filter(({ key }) => !columns.some((column) => column.key === key));
  function move(i: number, by: number) {
    const next = [...columns];
    const [one] = next.splice(i, 1);
    if (one) {
      next.splice(i + by, 0, one);
    }
    onLayout({ columns: next });
  }
  return (
    <Popover position="bottom-start" trapFocus>
      <Popover.Target>
        <Button variant="default">Columns</Button>
      </Popover.Target>
      <Popover.Dropdown>
        <ScrollArea.Autosize mah={420} w={300}>
          {columns.map(({ key }, i) => {
            const label = known.find((column) => column.key === key)?.label ?? key;
            return (
              <Group key={key} justify="space-between" wrap="nowrap" py={2}>
                <Checkbox
                  size="xs"
                  label={label}
                  checked
                  disabled={columns.length === 1}
                  onChange={() => onLayout({ columns: columns.filter((column) => column.key !== key) })}
                />
                <Group gap={2} wrap="nowrap">
                  <ActionIcon
                    variant="subtle"
                    size="sm"
                    aria-label={`${label}: further to the left`}
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                  >
                    <IconArrowUp size={14} />
                  </ActionIcon>
                  <ActionIcon
                    variant="subtle"
                    size="sm"
                    aria-label={`${label}: further to the right`}
                    disabled={i === columns.length - 1}
                    onClick={() => move(i, 1)}
                  >
                    <IconArrowDown size={14} />
                  </ActionIcon>
                </Group>
              </Group>
            );
          })}
          {others.map(({ key, label }) => (
            <Checkbox
              key={key}
              size="xs"
              py={4}
              label={label}
              checked={false}
              onChange={() => onLayout({ columns: [...columns, { key, width: widthOf(key) }] })}
            />
          ))}
        </ScrollArea.Autosize>
      </Popover.Dropdown>
    </Popover>
  );
}
