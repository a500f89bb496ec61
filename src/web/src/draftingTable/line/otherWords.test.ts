import { expect, it } from 'vitest';
import type { OtherWord, RecordType } from '../../api/generated';
import { isKnown, meantBy, nameables, withoutLostWords, withoutWord, withWord } from './otherWords';

const type = {
  key: 'loan',
  fields: [
    { key: 'fee', label: 'Fee', type: { kind: 'money' } },
    {
      key: 'by',
      label: 'Insured by',
      type: {
        kind: 'choice',
        options: [
          { key: 'us', label: 'Us' },
          { key: 'old', label: 'Old', retired: true },
        ],
      },
    },
    { key: 'gone', label: 'Gone', retired: true, type: { kind: 'text' } },
  ],
  workflows: [
    { key: 'a', stages: [{ key: 'held', label: 'On hold' }] },
    { key: 'b', stages: [{ key: 'held', label: 'On hold' }] },
  ],
  roles: [{ key: 'registrar', label: 'Registrar' }],
} as unknown as RecordType;

const ours: OtherWord = { said: 'ours', field: 'by', choice: 'us' };
const words: OtherWord[] = [
  ours,
  { said: 'charge', field: 'fee' },
  { said: 'parked', stage: 'held' },
  { said: 'desk', role: 'registrar' },
];

it('offers everything once that is in use', () => {
  expect(nameables(type).map(({ label }) => label)).toEqual(['Fee', 'Insured by', 'Insured by: Us', 'On hold', 'Registrar']);
});

it('tells what each word stands for', () => {
  expect(words.map((word) => meantBy(type, word))).toEqual(['Insured by: Us', 'Fee', 'On hold', 'Registrar']);
  expect(meantBy(type, { said: 'x', field: 'by', choice: 'them' })).toBeUndefined();
});

it('takes a word once, however it is written, and takes it away again', () => {
  const then = words.reduce(withWord, type);
  expect(then.otherWords).toEqual(words);
  expect(withWord(then, { ...ours, said: 'Ours' })).toBe(then);
  expect(isKnown(withoutWord(then, ours), ours)).toBe(false);
  expect(withoutWord(then, ours).otherWords).toHaveLength(3);
});

it('drops words for what is no more, and keeps the type where nothing is lost', () => {
  const then = words.reduce(withWord, type);
  expect(withoutLostWords(then)).toBe(then);
  expect(withoutLostWords({ ...then, workflows: [], roles: [] }).otherWords?.map(({ said }) => said)).toEqual(['ours', 'charge']);
  expect(withoutLostWords({ ...then, fields: then.fields.slice(2) }).otherWords?.map(({ said }) => said)).toEqual([
    'parked',
    'desk',
  ]);
  const bare = then.fields.map((field) => (field.key === 'by' ? { ...field, type: { kind: 'text' as const } } : field));
  expect(withoutLostWords({ ...then, fields: bare } as RecordType).otherWords?.map(({ said }) => said)).not.toContain('ours');
});
