import { useMemo, useRef, useState, type RefObject } from 'react';

/** What the line is open for. Its text is its own; what was said for a new rule outlasts the page. */
export interface LineUse {
  input: RefObject<HTMLTextAreaElement | null>;
  /** Key of the rule that is written anew; undefined where a new one is said. */
  editing: string | undefined;
  /** With what it begins. */
  start: () => string;
  /** Keeps what has been said so far for a new rule. */
  keep: (text: string) => void;
  /** Opens a rule's sentence in the line, which takes the focus with it. */
  edit: (rule: string, sentence: string) => void;
  focus: () => void;
  /** Leaves the line; what was said for a new rule stays in it. */
  leave: () => void;
}

export function useLine(recordType: string): LineUse {
  const input = useRef<HTMLTextAreaElement>(null);
  const [written, setWritten] = useState<{ rule: string; sentence: string }>();
  return useMemo(() => {
    const shelf = `dibujo line ${recordType}`;
    const focus = () => input.current?.focus();
    return {
      input,
      editing: written?.rule,
      start: () => written?.sentence ?? localStorage.getItem(shelf) ?? '',
      keep: (text: string) => {
        if (!written) {
          localStorage.setItem(shelf, text);
        }
      },
      edit: (rule: string, sentence: string) => setWritten({ rule, sentence }),
      focus,
      leave: () => {
        setWritten(undefined);
        input.current?.blur();
      },
    };
  }, [recordType, written]);
}
