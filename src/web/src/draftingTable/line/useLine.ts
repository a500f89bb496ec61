import { useLocalStorage } from '@mantine/hooks';
import { useMemo, useRef, useState, type RefObject } from 'react';

/** The text in the line. What was not made into a rule yet outlasts the page. */
export interface LineText {
  input: RefObject<HTMLTextAreaElement | null>;
  text: string;
  /** Key of the rule that is written anew; undefined where a new one is said. */
  editing: string | undefined;
  type: (text: string) => void;
  /** Opens a rule's sentence in the line. */
  edit: (rule: string, sentence: string) => void;
  focus: () => void;
  /** Leaves the line; what was said for a new rule stays in it. */
  leave: () => void;
  clear: () => void;
}

export function useLine(recordType: string): LineText {
  const input = useRef<HTMLTextAreaElement>(null);
  const [kept, keep] = useLocalStorage({ key: `dibujo line ${recordType}`, defaultValue: '', getInitialValueInEffect: false });
  const [written, setWritten] = useState<{ rule: string; text: string }>();
  return useMemo(() => {
    const focus = () => window.setTimeout(() => input.current?.focus());
    return {
      input,
      text: written?.text ?? kept,
      editing: written?.rule,
      type: (text: string) => (written ? setWritten({ ...written, text }) : keep(text)),
      edit: (rule: string, text: string) => {
        setWritten({ rule, text });
        focus();
      },
      focus,
      leave: () => {
        setWritten(undefined);
        input.current?.blur();
      },
      clear: () => {
        if (written) {
          setWritten(undefined);
        } else {
          keep('');
        }
      },
    };
  }, [kept, keep, written]);
}
