import { describe, expect, it } from 'vitest';
import type { Hearing } from '../../engine/answers';
import { stretches } from './aligned';

const heard = (more: Partial<Hearing>): Hearing => ({ guesses: [], offers: [], aligned: [], ...more });

describe('what words stand for', () => {
  const text = 'please lock the fee for museums';

  it('leaves no word out, in the order in which they were said', () => {
    const all = stretches(
      text,
      heard({
        aligned: [
          { start: 7, end: 11, part: 'lock' },
          { start: 16, end: 19, part: 'Fee' },
          { start: 24, end: 31, part: 'Borrower type is Museum' },
        ],
      }),
    );

    expect(all.map((one) => one.text)).toEqual(['please', 'lock', 'the', 'fee', 'for', 'museums']);
    expect(all.map((one) => one.part)).toEqual([undefined, 'lock', undefined, 'Fee', undefined, 'Borrower type is Museum']);
  });

  it('marks what was not understood, whether it is asked or told', () => {
    const asked = stretches(text, heard({ question: { start: 0, end: text.length, said: 'for … museums', options: [] } }));
    const told = stretches(text, heard({ misunderstanding: { place: 0, message: '“museums” is not understood.', nearest: [] } }));

    expect(asked.filter((one) => one.isUnheard).map((one) => one.text)).toEqual(['for', 'museums']);
    expect(told.filter((one) => one.isUnheard).map((one) => one.text)).toEqual(['museums']);
  });

  it('marks nothing where whole sentences are asked about', () => {
    expect(
      stretches(text, heard({ question: { start: 0, end: text.length, said: text, options: [] } })).some((one) => one.isUnheard),
    ).toBe(false);
  });

  it('takes no word twice', () => {
    const all = stretches(
      'a fee',
      heard({
        aligned: [
          { start: 2, end: 5, part: 'Fee' },
          { start: 2, end: 5, part: 'Fee' },
        ],
      }),
    );

    expect(all.map((one) => one.text)).toEqual(['a', 'fee']);
  });
});
