import { expect, it } from 'vitest';
import type { RowReport } from '../api/generated';
import { recordsOf, refusedFile } from './csvRows';

const report = (...reasons: string[][]) =>
  reasons.map((some, i) => ({ line: i + 2, id: null, reasons: some })) as unknown as RowReport[];

it('keeps together what quotation marks hold together, and leaves out empty lines', () => {
  expect(recordsOf('a,b\r\n1,"x\r\ny"\r\n\r\n,,\r\n2,"say ""so"""\n')).toEqual(['a,b', '1,"x\r\ny"', '2,"say ""so"""']);
});

it('hands out refused rows as they were, with why beside each', () => {
  const file = refusedFile('title,fee\r\nOwl,1\r\n"Kite, red",x\r\n', report([], ['Fee cannot hold “x”. Give "an amount".']));

  expect(file).toBe('title,fee,why refused\r\n"Kite, red",x,"Fee cannot hold “x”. Give ""an amount""."\r\n');
});

it('says why anew when a file with reasons is sent again', () => {
  const again = refusedFile('title,why refused\r\nOwl,"an old, long reason"\r\n', report(['A new one.']));

  expect(again).toBe('title,why refused\r\nOwl,"A new one."\r\n');
});
