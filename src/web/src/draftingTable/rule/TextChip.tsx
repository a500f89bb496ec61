import { Button, Group, Popover, Textarea } from '@mantine/core';
import { useRef, useState } from 'react';
import { Chip, ChipButton } from './Chip';
import classes from './Chip.module.css';
import { useWriting } from './writing';

interface Props {
  blank: string;
  text: string;
  placeholder: string;
  isWrong?: boolean;
  isNext?: boolean;
  onChange: (text: string) => void;
}

/** A message in one's own words. A field's key in braces stands for its value; people read and write its label there. */
export function TextChip({ blank, text, placeholder, isWrong, isNext = false, onChange }: Props) {
  const { type } = useWriting();
  const [isOpen, setOpen] = useState(isNext);
  const withLabels = text.replaceAll(/\{([\w-]+)\}/g, (whole, key: string) => {
    const label = type.fields.find((field) => field.key === key)?.label;
    return label ? `{${label}}` : whole;
  });
  const [typed, setTyped] = useState(withLabels);
  const input = useRef<HTMLTextAreaElement>(null);

  function open() {
    setTyped(withLabels);
    setOpen(true);
  }

  function close() {
    setOpen(false);
    const withKeys = typed.trim().replaceAll(/\{([^{}]+)\}/g, (whole, label: string) => {
      const key = type.fields.find((field) => field.label === label)?.key;
      return key ? `{${key}}` : whole;
    });
    if (withKeys !== text) {
      onChange(withKeys);
    }
  }

  function place(key: string) {
    const at = input.current?.selectionStart ?? typed.length;
    setTyped(`${typed.slice(0, at)}{${type.fields.find((field) => field.key === key)!.label}}${typed.slice(at)}`);
    window.setTimeout(() => input.current?.focus());
  }

  return (
    <Popover opened={isOpen} onChange={(next) => !next && close()} position="bottom-start" trapFocus returnFocus withinPortal>
      <Popover.Target>
        <ChipButton
          blank={blank}
          label={text ? `“${withLabels}”` : placeholder}
          isMissing={!text}
          isWrong={isWrong}
          onClick={() => (isOpen ? close() : open())}
        />
      </Popover.Target>
      <Popover.Dropdown className={classes.dropdown}>
        <div className={classes.text}>
          <Textarea
            ref={input}
            aria-label={blank}
            data-autofocus
            autosize
            minRows={2}
            maxRows={6}
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && !event.shiftKey) {
                event.preventDefault();
                close();
              }
            }}
          />
          <Group justify="space-between">
            <Chip
              blank="value of a field to be placed"
              label="+ value of a field"
              options={() => type.fields.map(({ key, label }) => ({ value: key, label }))}
              onPick={place}
            />
            <Button onClick={close}>Done</Button>
          </Group>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
