import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';
import type { Value } from '../engine/answers';

export interface TypedProps extends Pick<
  TextInputProps,
  'id' | 'variant' | 'size' | 'label' | 'placeholder' | 'readOnly' | 'aria-describedby' | 'aria-label' | 'error'
> {
  value: Value;
  /** Takes in what has been typed so far; more may come. */
  onType?: (text: string) => void;
  /** Takes in what has been typed, or a value that has been picked. */
  onDone: (value: Value) => void;
}

interface Props
  extends TypedProps, Pick<TextInputProps, 'inputMode' | 'leftSection' | 'leftSectionWidth' | 'rightSection' | 'onKeyDown'> {
  /** A value as it is written while nobody types. */
  write: (value: Value) => string;
}

/**
 * A value that is written in one way and may be typed in several. What is typed stands here as it was typed; others read it: the engine
 * and the server. What they cannot read stays, and is said to be wrong.
 */
export function TypedInput({ value, onType, onDone, write, onKeyDown, ...shared }: Props) {
  const [typed, setTyped] = useState<string>();
  const done = () => typed !== undefined && onDone(typed.trim() === '' ? null : typed);
  return (
    <TextInput
      {...shared}
      autoComplete="off"
      value={typed ?? write(value)}
      onChange={(event) => {
        setTyped(event.currentTarget.value);
        onType?.(event.currentTarget.value);
      }}
      onBlur={() => {
        done();
        setTyped(undefined);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          done();
        }
        onKeyDown?.(event);
      }}
    />
  );
}
