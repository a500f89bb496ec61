import { useRef, useState } from 'react';
import type { Field, ListRow, RecordType } from '../api/generated';
import { formOf } from './changing';
import type { useEditing } from './useEditing';

interface Ahead {
  row: ListRow;
  field: Field;
  /** What was typed before there was an input for it; undefined where the cell was only opened. */
  text?: string;
}

/**
 * Typing into the cells of a list. A row is opened when the first key comes, and that takes a moment: what is typed until the
 * cell has an input is kept for it, also where the person has gone on to another cell by then.
 */
export function useTyping(type: RecordType, editing: ReturnType<typeof useEditing>) {
  'use no memo';
  const [isTyping, setTyping] = useState(false);
  const ahead = useRef<Ahead>(undefined);

  /** Begins in a cell, with the first letter of what takes the place of its value, or with the value as it is. */
  function begin(row: ListRow, field: Field, text?: string) {
    const begun = { row, field, text };
    ahead.current = begun;
    setTyping(true);
    void editing.open(row.id, formOf(type, field.key)).then((isOpen) => {
      if (!isOpen && ahead.current === begun) {
        stop();
      }
    });
  }

  /** Blanks a cell. */
  function clear(row: ListRow, field: Field) {
    void editing.open(row.id, formOf(type, field.key), { [field.key]: null });
  }

  /** Takes a key that was pressed before there was an input; false where there is one. */
  function type_(key: string): boolean {
    if (!ahead.current) {
      return false;
    }
    ahead.current.text = key === 'Backspace' ? ahead.current.text?.slice(0, -1) : (ahead.current.text ?? '') + key;
    return true;
  }

  /** What was typed so far, for the input that is there now. */
  function take(): string | undefined {
    const text = ahead.current?.text;
    ahead.current = undefined;
    return text;
  }

  /** Ends typing; what no input has taken is put into the row all the same. */
  function finish() {
    const last = ahead.current;
    stop();
    if (last?.text !== undefined) {
      const { row, field, text } = last;
      void editing.open(row.id, formOf(type, field.key), { [field.key]: text.trim() === '' ? null : text });
    }
  }

  function stop() {
    ahead.current = undefined;
    setTyping(false);
  }

  return { isTyping, begin, clear, type: type_, take, finish, stop };
}
