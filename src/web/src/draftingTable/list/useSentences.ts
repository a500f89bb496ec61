import { useEffect, useReducer, useRef } from 'react';
import type { Rule, SentencePart } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';

/** The sentences of rules, written when they are first looked at, once they are awaited. While a rule is being edited, its sentence so far stands in. */
export function useSentences(
  program: DraftProgram,
  rules: Rule[],
  isAwaited: boolean,
): (rule: Rule) => SentencePart[] | undefined {
  // What the program has written by now is asked at every drawing.
  'use no memo';
  const [, redraw] = useReducer((count: number) => count + 1, 0);
  const before = useRef(new Map<string, SentencePart[]>());
  const unwritten = rules.some((rule) => !program.sentence(rule));
  useEffect(() => {
    if (unwritten && isAwaited) {
      program.write(rules).then(redraw, () => undefined);
    }
  }, [program, rules, unwritten, isAwaited]);
  return (rule) => {
    const written = program.sentence(rule);
    if (written) {
      before.current.set(rule.key, written);
    }
    return written ?? before.current.get(rule.key);
  };
}
