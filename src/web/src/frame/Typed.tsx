import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';

interface Props extends Omit<TextInputProps, 'value' | 'onChange' | 'onBlur' | 'onKeyDown'> {
  value: string;
  onDone: (text: string) => void;
  /** Whether it has just been put there under a name of no account: it is selected, so that what is typed takes its place. */
  isBegun?: boolean;
}

const select = (input: HTMLInputElement | null) => {
  input?.focus();
  input?.select();
};

/** A text that is taken over when it has been typed: with Enter, or when one goes on to something else. Escape takes it back. */
export function Typed({ value, onDone, isBegun = false, ...others }: Props) {
  const [typed, setTyped] = useState<string>();
  function done() {
    if (typed !== undefined && typed.trim() !== value) {
      onDone(typed.trim());
    }
    setTyped(undefined);
  }
  return (
    <TextInput
      {...others}
      ref={isBegun ? select : undefined}
      value={typed ?? value}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          done();
        } else if (event.key === 'Escape') {
          setTyped(undefined);
        }
      }}
    />
  );
}
