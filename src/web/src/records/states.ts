import type { RecordType } from '../api/generated';
import { asks } from '../engine/elementState';
import type { OpenRecord } from '../engine/openRecord';

/** What of its fields a person sees of a record, in words. */
export type Seen = Map<string, { label: string; isShown: boolean; isLocked: boolean; isAsked: boolean }>;

export const seen = (type: RecordType, record: OpenRecord): Seen =>
  new Map(
    type.fields.map(({ key, label }) => {
      const state = record.state('field', key);
      return [key, { label, isShown: state.isVisible, isLocked: state.isVisible && state.isLocked, isAsked: asks(state) }];
    }),
  );

/** What is different for this record under other rules, as a sentence; empty for nothing. */
export function differences(before: Seen, now: Seen): string {
  const has = (what: 'isShown' | 'isLocked' | 'isAsked', then: boolean) =>
    [...now]
      .filter(([key, one]) => one[what] === then && (before.get(key)?.[what] ?? false) !== then)
      .map(([, { label }]) => label);
  return [
    { words: 'now shown', fields: has('isShown', true) },
    { words: 'now hidden', fields: has('isShown', false) },
    { words: 'now locked', fields: has('isLocked', true) },
    { words: 'no longer locked', fields: has('isLocked', false).filter((label) => isShown(label, now)) },
    { words: 'now required', fields: has('isAsked', true) },
    { words: 'no longer required', fields: has('isAsked', false).filter((label) => isShown(label, now)) },
  ]
    .filter(({ fields }) => fields.length > 0)
    .map(({ words, fields }) => `${words}: ${fields.join(', ')}`)
    .join('; ');
}

const isShown = (label: string, now: Seen) => [...now.values()].some((one) => one.label === label && one.isShown);
