import { Button, Group, Popover, Textarea } from '@mantine/core';
import { useMergedRef } from '@mantine/hooks';
import { useRef, useState } from 'react';
import { Chip, ChipButton } from './Chip';
import classes from './Chip.module.css';
import { takeFocus, useFocusBack } from './focus';
import { useWalk } from './walk';
import { useWriting } from './writing';

interface Props {
  blank: string;
  text: string;
  placeholder: string;
  isWrong?: boolean;
  /** Whether it may be left unsaid. */
  isFurther?: boolean;
  onChange: (text: string) => void;
}

/** A message in one's own words. A field's key in braces stands for its value; people read and write its label there. */
export function TextChip(props: Props) {
  const { type } = useWriting();
  const [opening, setOpening] = useState({ count: 0, typed: '' });
  const withLabels = props.text.replaceAll(/\{([\w-]+)\}/g, (whole, key: string) => {
    const label = type.fields.find((field) => field.key === key)?.label;
    return label ? `{${label}}` : whole;
  });
  const open = (typed = '') => setOpening(({ count }) => ({ count: count + 1, typed }));
  return opening.count > 0 ? (
    <OpenTextChip key={opening.count} {...props} withLabels={withLabels} begun={opening.typed} onReopen={open} />
  ) : (
    <ChipButton {...buttonOf(props, withLabels)} onClick={() => open()} onLetter={open} />
  );
}

const buttonOf = ({ blank, text, placeholder, isWrong, isFurther }: Props, withLabels: string) => ({
  isFurther,
  blank,
  label: text ? `“${withLabels}”` : placeholder,
  isMissing: !text,
  isWrong,
});

/** A message that has been pressed: it is written in a box, which opens with it, and the next time in another. */
function OpenTextChip({
  withLabels,
  begun,
  onReopen,
  ...props
}: Props & { withLabels: string; begun: string; onReopen: (typed?: string) => void }) {
  const { blank, text, onChange } = props;
  const { type } = useWriting();
  const [isOpen, setOpen] = useState(true);
  const walk = useWalk();
  const [typed, setTyped] = useState(withLabels + begun);
  const input = useRef<HTMLTextAreaElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const draw = useMergedRef(input, takeFocus);
  useFocusBack(isOpen, input, button);

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

  function finish(byKey: boolean) {
    close();
    walk.goOn(button.current, byKey);
  }

  function place(key: string) {
    const at = input.current?.selectionStart ?? typed.length;
    setTyped(`${typed.slice(0, at)}{${type.fields.find((field) => field.key === key)!.label}}${typed.slice(at)}`);
    window.setTimeout(() => input.current?.focus());
  }

  return (
    <Popover opened={isOpen} onChange={(next) => !next && close()} position="bottom-start" trapFocus withinPortal>
      <Popover.Target>
        <ChipButton
          {...buttonOf(props, withLabels)}
          ref={button}
          onClick={isOpen ? close : () => onReopen()}
          onLetter={onReopen}
        />
      </Popover.Target>
      <Popover.Dropdown className={classes.dropdown}>
        <div className={classes.text}>
          <Textarea
            ref={draw}
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
                finish(true);
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
            <Button onClick={() => finish(false)}>Done</Button>
          </Group>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
