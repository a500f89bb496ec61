import type { Hearing } from '../../engine/answers';

/** A stretch of what was said: part of a rule, of no meaning of its own, or not understood. */
export interface Stretch {
  text: string;
  part?: string;
  isUnheard?: boolean;
}

/** All of what was said, in stretches: those that stand for a part of the rule, and what is between them. */
export function stretches(text: string, { aligned, question, misunderstanding }: Hearing): Stretch[] {
  const all: Stretch[] = [];
  const missed = unheard(text, question, misunderstanding);
  const between = (from: number, to: number) => {
    for (const match of text.slice(from, to).matchAll(/[\p{L}\p{N}'’-]+/gu)) {
      all.push(missed.has(match[0]) ? { text: match[0], isUnheard: true } : { text: match[0] });
    }
  };
  let at = 0;
  for (const { start, end, part } of aligned) {
    if (start >= at) {
      between(at, start);
      all.push({ text: text.slice(start, end), part });
      at = end;
    }
  }
  between(at, text.length);
  return all;
}

/** The words that are told not to be understood. */
function unheard(text: string, question: Hearing['question'], misunderstanding: Hearing['misunderstanding']): Set<string> {
  const named =
    question && question.said !== text
      ? question.said
      : /^“(.*)” is (?:not understood|no choice)/.exec(misunderstanding?.message ?? '')?.[1];
  return new Set(named?.split(' … ') ?? []);
}
