import { afterEach, describe, expect, it } from 'vitest';
import type { FieldType, NotationView } from '../api/generated';
import type { Value } from '../engine/answers';
import { inLocale, writtenDate } from './dates';
import { ownNotation, writeBy } from './notation';
import { shown } from './shown';
import { siteTime } from './siteTime';
import { when, whenExactly } from './when';
import written from './written.json';

const usual = ownNotation();
afterEach(() => writeBy(usual));

const ways = written as unknown as { notation: NotationView; values: { type: FieldType; value: Value; text: string }[] }[];

describe.each(ways)('a value in $notation.language', ({ notation, values }) => {
  it.each(values)('$type.kind is written “$text”, as the core does', ({ type, value, text }) => {
    writeBy(notation);
    expect(shown(type, value)).toBe(text);
  });
});

it('writes the days of a sentence as the person does, and nothing else', () => {
  writeBy({ ...usual, day: 'dd.MM.yyyy' });
  expect(inLocale('The loan would end on 5 Jan 2031, in room 5 Jan.')).toBe('The loan would end on 05.01.2031, in room 5 Jan.');
  expect(inLocale('It was 24 Nov 2026 09:30.')).toBe('It was 24.11.2026, 09:30.');
});

it('leaves what is no day as it is', () => {
  for (const text of ['soon', '2026-13-01', '20261101', '']) {
    expect(writtenDate(text)).toBe(text);
  }
});

it('says when something was as it says days', () => {
  const at = '2026-11-24T09:30:05Z';
  expect(when(at)).toBe(writtenDate(siteTime(new Date(at)).slice(0, 16)));
  expect(whenExactly(at)).toContain(':05');
});
