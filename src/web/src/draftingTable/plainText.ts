import type { SentencePart } from '../api/generated';

/** A sentence's parts as one line of text, as the engine joins them. */
export function plainText(parts: SentencePart[]): string {
  return parts.reduce((text, part) => text + (text === '' || part.glued || text.endsWith('(') ? '' : ' ') + part.text, '');
}
