import { expect, it } from 'vitest';
import { nearest } from './nearest';

const fields = [
  { key: 'crateLength', label: 'Crate length' },
  { key: 'crateWidth', label: 'Crate width' },
  { key: 'fee', label: 'Fee' },
];
const near = (sought: string) => nearest(sought, fields, ({ key, label }) => [key, label]).map(({ label }) => label);

it('offers what a name was perhaps meant to be, the likest first', () => {
  expect(near('crateLenght')).toEqual(['Crate length', 'Crate width']);
  expect(near('fees')).toEqual(['Fee']);
});

it('offers nothing for what is like nothing', () => {
  expect(near('glazing')).toEqual([]);
  expect(near('')).toEqual([]);
});
