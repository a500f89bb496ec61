import { useRef, useState } from 'react';
import type { FieldType } from '../api/generated';
import type { PossibleValue, Reading, Value } from '../engine/answers';
import { useReading } from '../engine/useReading';
import { DateInput } from './DateInput';
import { Meanings } from './Meanings';
import { NumberInput } from './NumberInput';

interface Props {
  type: Extract<FieldType, { kind: 'date' | 'dateTime' | 'number' | 'money' }>;
  value: Value;
  onChange: (value: Value) => void;
  'aria-label'?: string;
  label?: string;
  placeholder?: string;
  size?: 'xs';
  variant?: 'unstyled';
}

/** A day, a moment, a number or an amount outside of any record: what is typed stands as it is until it has been read, and is asked for where it may mean several things. */
export function ReadInput({ type, value, onChange, ...shared }: Props) {
  const read = useReading(type);
  const [open, setOpen] = useState<{ text: string; reading: Reading }>();
  const asked = useRef(0);

  async function take(next: Value) {
    const mine = ++asked.current;
    if (typeof next !== 'string') {
      setOpen(undefined);
      onChange(next);
      return;
    }
    const reading = await read(next);
    if (mine !== asked.current) {
      return;
    }
    if ('value' in reading) {
      setOpen(undefined);
      onChange(reading.value);
    } else {
      setOpen({ text: next, reading });
    }
  }

  function choose({ value }: PossibleValue) {
    setOpen(undefined);
    onChange(value);
  }

  const common = {
    ...shared,
    value: open?.text ?? value,
    onDone: (next: Value) => void take(next),
    error: open && 'reason' in open.reading ? open.reading.reason : open ? `“${open.text}” may mean several things.` : undefined,
  };
  return (
    <div>
      {type.kind === 'date' || type.kind === 'dateTime' ? (
        <DateInput {...common} hasTime={type.kind === 'dateTime'} />
      ) : (
        <NumberInput {...common} type={type} />
      )}
      {open && 'choices' in open.reading && (
        <Meanings of={shared['aria-label'] ?? shared.label ?? open.text} choices={open.reading.choices} onChoose={choose} />
      )}
    </div>
  );
}
