import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';
import type { Value } from '../engine/answers';

export interface TypedProps extends Pick<
  TextInputProps,
  'id' | 'variant' | 'size' | 'placeholder' | 'readOnly' | 'aria-describedby' | 'aria-label'
> {
  value: Value;
  onChange: (value: Value) => void;
}

interface Props
  extends TypedProps, Pick<TextInputProps, 'inputMode' | 'leftSection' | 'leftSectionWidth' | 'rightSection' | 'onKeyDown'> {
  /** What was typed as a value; null for what is none. */
  read: (text: string) => Value;
  /** A value as it is written while nobody types. */
  write: (value: Value) => string;
  /** Whether what has been typed so far may count at once, though more may come. */
  isWhole?: (text: string) => boolean;
}

/**
 * A value that is written in one way and may be typed in several. What cannot be read stays as it was typed: the field says then
 * that it cannot hold it.
 */
export function TypedInput({ value, onChange, read, write, isWhole = () => true, onKeyDown, ...shared }: Props) {
  const [typed, setTyped] = useState<string>();
  function take(text: string) {
    onChange(text.trim() === '' ? null : (read(text) ?? text));
  }
  return (
    <TextInput
      {...shared}
      autoComplete="off"
      value={typed ?? write(value)}
      onChange={(event) => {
        const text = event.currentTarget.value;
        setTyped(text);
        if (text.trim() === '' || (isWhole(text) && read(text) !== null)) {
          take(text);
        }
      }}
      onBlur={() => {
        if (typed !== undefined) {
          take(typed);
          setTyped(undefined);
        }
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && typed !== undefined) {
          take(typed);
        }
        onKeyDown?.(event);
      }}
    />
  );
}
