import { expect, it } from 'vitest';
import { isSame } from './steps';

it('takes rules to be the same that say the same in another order, or say nothing in another way', () => {
  expect(isSame({ key: 'a', group: 'g', cases: [{ while: null }] }, { cases: [{}], key: 'a', reason: null, group: 'g' })).toBe(
    true,
  );
  expect(isSame({ key: 'a', cases: [] }, { key: 'a' })).toBe(true);
  expect(isSame({ field: 'a' }, { field: 'a', saved: false })).toBe(true);
  expect(isSame({ key: 'a', on: true }, { key: 'a' })).toBe(true);
  expect(isSame({ key: 'a', on: false }, { key: 'a' })).toBe(false);
  expect(isSame({ value: false }, { value: null })).toBe(false);
  expect(isSame({ key: 'a', cases: [1, 2] }, { key: 'a', cases: [2, 1] })).toBe(false);
});
