import { Button, TextInput } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import classes from './Begin.module.css';

/** A name, and a button that begins something called so. */
export function Begin({ what, onBegin, children }: { what: string; onBegin: (label: string) => void; children: ReactNode }) {
  const [label, setLabel] = useState('');
  return (
    <form
      className={classes.begin}
      onSubmit={(event) => {
        event.preventDefault();
        if (label.trim()) {
          onBegin(label.trim());
          setLabel('');
        }
      }}
    >
      <TextInput
        aria-label={`Name of the new ${what}`}
        placeholder={`A new ${what}`}
        value={label}
        onChange={(event) => setLabel(event.currentTarget.value)}
      />
      <Button type="submit" variant="default" disabled={!label.trim()}>
        {children}
      </Button>
    </form>
  );
}
