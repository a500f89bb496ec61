import type { SentencePart } from '../../api/generated';

/** What stands before a part of a sentence: a space, unless it is glued to what it follows. The engine joins them by the same rule. */
export function before(parts: SentencePart[], i: number): string {
  return i === 0 || parts[i]!.glued || parts[i - 1]!.text.endsWith('(') ? '' : ' ';
}

/** A sentence's parts as one line of text. */
export function plainText(parts: SentencePart[]): string {
  return parts.map(({ text }, i) => before(parts, i) + text).join('');
}
