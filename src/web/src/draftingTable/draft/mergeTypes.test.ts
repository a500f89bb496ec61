import { describe, expect, it } from 'vitest';
import type { RecordType } from '../../api/generated';
import { random } from '../../pending/random';
import { mergeTypes } from './mergeTypes';

const field = (key: string, label = key) => ({ key, label, type: { kind: 'text' } });
const type = {
  key: 'loan',
  label: 'Loan',
  titleField: 'a',
  fields: ['a', 'b', 'c', 'd'].map((key) => field(key)),
  forms: [
    {
      key: 'file',
      label: 'File',
      tabs: [
        {
          key: 't',
          label: 'Tab',
          sections: [
            { key: 's', label: 'S', fields: ['a', 'b'] },
            { key: 'u', label: 'U', fields: ['c', 'd'] },
          ],
        },
      ],
    },
  ],
  workflows: [
    {
      key: 'w',
      label: 'W',
      stages: [
        { key: 'x', label: 'X' },
        { key: 'y', label: 'Y' },
      ],
      moves: [{ key: 'm', label: 'Go', from: 'x', to: 'y' }],
    },
  ],
} as unknown as RecordType;

/** What somebody may do to one of four parts, none of which is another's. */
const deeds: ((of: RecordType, by: string) => RecordType)[] = [
  (of, by) => ({ ...of, fields: of.fields.map((one) => (one.key === 'b' ? { ...one, label: `B by ${by}` } : one)) }),
  (of, by) => ({ ...of, fields: [...of.fields, field(`new-${by}`) as RecordType['fields'][number]] }),
  (of, by) => ({
    ...of,
    workflows: of.workflows.map((one) => ({
      ...one,
      stages: [...one.stages.slice(0, 1), { key: `stage-${by}`, label: by }, ...one.stages.slice(1)],
    })),
  }),
  (of, by) => ({ ...of, forms: of.forms.map((form) => ({ ...form, label: `File by ${by}` })) }),
  (of, by) => ({ ...of, label: `Loan by ${by}` }),
];

describe('one record type that two change', () => {
  it('keeps what both did to different parts, and asks nobody', () => {
    for (let seed = 1; seed <= 200; seed++) {
      const chance = random(seed);
      const whose = deeds.map(() => chance() < 0.5);
      const done = (mine: boolean, by: string) => deeds.reduce((of, deed, i) => (whose[i] === mine ? deed(of, by) : of), type);
      const all = deeds.reduce((of, deed, i) => deed(of, whose[i] ? 'ada' : 'bo'), type);

      const { merged, collides } = mergeTypes(type, done(true, 'ada'), done(false, 'bo'));

      expect(collides, `${seed}`).toBe(false);
      expect(merged, `${seed}`).toEqual(all);
      expect(mergeTypes(type, done(false, 'bo'), done(true, 'ada')).merged).toEqual(merged);
    }
  });

  it('has both of two that are added at one place, and both orders that do not touch', () => {
    const one = deeds[1]!(type, 'ada');
    const other = deeds[1]!({ ...type, fields: [type.fields[1]!, type.fields[0]!, ...type.fields.slice(2)] }, 'bo');
    const { merged, collides } = mergeTypes(type, one, other);
    expect(collides).toBe(false);
    expect(merged.fields.map(({ key }) => key)).toEqual(['b', 'a', 'c', 'd', 'new-ada', 'new-bo']);
  });

  it.each([
    ['called differently by both', deeds[0]!(type, 'ada'), deeds[0]!(type, 'bo')],
    [
      'taken away by one and changed by the other',
      { ...type, fields: type.fields.filter(({ key }) => key !== 'b') },
      deeds[0]!(type, 'bo'),
    ],
  ])('collides in a part that is %s, and keeps the rest', (_, mine, theirs) => {
    const { merged, collides } = mergeTypes(type, deeds[3]!(mine, 'ada'), deeds[2]!(theirs, 'bo'));
    expect(collides).toBe(true);
    expect(merged.forms[0]!.label).toBe('File by ada');
    expect(merged.workflows[0]!.stages.map(({ key }) => key)).toContain('stage-bo');
    expect(merged.fields.find(({ key }) => key === 'b')).toBeDefined();
  });
});
