import { describe, expect, it } from 'vitest';
import { inLocale, readDay, readMoment, writtenDate } from './dates';
import { readNumber, writtenAmount } from './numbers';

const today = '2026-11-29';

describe('a day', () => {
  it.each([
    ['2026-03-09', '2026-03-09'],
    ['9 Mar 2026', '2026-03-09'],
    ['9. March 2026', '2026-03-09'],
    ['March 9, 2026', '2026-03-09'],
    ['9.3.2026', '2026-03-09'],
    ['9.3.26', '2026-03-09'],
    ['3/9/2026', '2026-03-09'],
    ['03092026', '2026-03-09'],
    ['9 mar', '2026-03-09'],
    ['today', '2026-11-29'],
    ['Tomorrow', '2026-11-30'],
    ['+3', '2026-12-02'],
  ])('is read from %s', (typed, iso) => {
    expect(readDay(typed, today)).toBe(iso);
  });

  it.each(['31.2.2026', '2026-13-01', 'soon', '12', '1 2 3 4', 'March', ''])('is not read from “%s”', (typed) => {
    expect(readDay(typed, today)).toBeNull();
  });

  it('is read again from how it is written', () => {
    for (let at = Date.UTC(1999, 11, 28); at < Date.UTC(2031, 1, 1); at += 37 * 86_400_000) {
      const iso = new Date(at).toISOString().slice(0, 10);
      expect(readDay(writtenDate(iso), today)).toBe(iso);
    }
  });
});

it('reads a moment again from how it is written', () => {
  for (const iso of ['2026-11-29T00:05', '2026-01-02T12:00', '2031-07-31T23:59']) {
    expect(readMoment(writtenDate(iso), today)).toBe(iso);
  }
  expect(readMoment('29.11.2026 25:00', today)).toBeNull();
});

it('writes the days of a sentence as the locale does, and nothing else', () => {
  expect(inLocale('The loan would end on 5 Jan 2031, in room 5 Jan.')).toBe(
    `The loan would end on ${writtenDate('2031-01-05')}, in room 5 Jan.`,
  );
});

describe('a number', () => {
  it.each([
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1 234', 1234],
    ['1,234,567', 1234567],
    ['250,000', 250000],
    ['12.50', 12.5],
    ['-3', -3],
    ['12 kg', 12],
  ])('is read from %s', (typed, value) => {
    expect(readNumber(typed, 'kg')).toBe(value);
  });

  it.each(['twelve', '1e5', '', '-', '1.2.', '12 lb', '98,000120000'])('is not read from “%s”', (typed) => {
    expect(readNumber(typed, 'kg')).toBeNull();
  });

  it('is read again from how it is written', () => {
    for (const value of [0, 0.5, 12.25, 999, 1000, 1234567.89, -42]) {
      expect(readNumber(writtenAmount(value))).toBe(value);
    }
  });
});
