import { describe, expect, it } from 'vitest';
import type { RecordType } from '../api/generated';
import { differing, linkedAs, withLinked } from './linked';

const text = { kind: 'text' } as const;
const object = {
  key: 'object',
  label: 'Object',
  fields: [
    { key: 'title', label: 'Title', type: text, rest: { access: 'locked' } },
    { key: 'maker', label: 'Maker', type: text },
    { key: 'old', label: 'Old mark', type: text, retired: true },
  ],
} as unknown as RecordType;
const loan = { key: 'loan', label: 'Loan', fields: [] } as unknown as RecordType;

describe('what rules may look at over a link', () => {
  it('is what the fields are, in the order of the other record type, and not how they behave there', () => {
    expect(linkedAs(object, ['maker', 'title'])).toEqual({
      key: 'object',
      label: 'Object',
      fields: [
        { key: 'title', label: 'Title', type: text },
        { key: 'maker', label: 'Maker', type: text },
      ],
    });
  });

  it('takes the place of what was known, and goes where nothing is to be known', () => {
    const once = withLinked(loan, linkedAs(object, ['maker']));
    expect(withLinked(once, linkedAs(object, ['title'])).linked).toHaveLength(1);
    expect(withLinked(once, linkedAs(object, [])).linked).toEqual([]);
  });

  it('tells what has become of it, and keeps what is no more until somebody takes it out', () => {
    const known = linkedAs(object, ['title', 'maker']);
    const renamed = {
      ...object,
      fields: [
        { ...object.fields[0]!, label: 'Name' },
        { ...object.fields[2]!, key: 'x' },
      ],
    };
    expect(differing(known, object)).toEqual([]);
    expect(differing(known, renamed)).toEqual(['Title is called Name', 'Maker is no longer one of its fields']);
    expect(linkedAs(renamed, ['title', 'maker'], known).fields.map(({ label }) => label)).toEqual(['Name', 'Maker']);
    expect(differing({ ...known, fields: [{ ...known.fields[1]!, type: { kind: 'longText' } }] }, object)).toEqual([
      'Maker is of another type, or has other choices',
    ]);
  });
});
