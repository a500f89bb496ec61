import type { KeyboardEvent } from 'react';

/** Whether a key writes a letter, a digit or a mark; space presses what has the focus. */
export const isLetter = ({
  key,
  ctrlKey,
  metaKey,
  altKey,
}: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>): boolean =>
  key.length === 1 && key !== ' ' && !ctrlKey && !metaKey && !altKey;
