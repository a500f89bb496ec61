import { expect, it } from 'vitest';
import type { HistoryView } from '../api/generated';
import { collisionsOf, meanwhileOf } from './meanwhile';

const save = (version: number, by: string, before: object, after: object, fromStage = 's', toStage = 's'): HistoryView =>
  ({ version, by, at: '', edition: 1, before, after, fromStage, toStage }) as HistoryView;

it('tells of each field what it was at first, what it is now, and who changed it last', () => {
  const { changes } = meanwhileOf([
    save(4, 'rosa', { fee: 2 }, { fee: 3 }),
    save(3, 'conrad', { fee: 1, title: 'Owl' }, { fee: 2 }),
  ]);

  expect(changes).toEqual([
    { field: 'fee', before: 1, now: 3, by: 'rosa' },
    { field: 'title', before: 'Owl', now: null, by: 'conrad' },
  ]);
});

it('leaves out what was changed and changed back', () => {
  expect(meanwhileOf([save(4, 'rosa', { fee: 2 }, { fee: 1 }), save(3, 'conrad', { fee: 1 }, { fee: 2 })]).changes).toEqual([]);
});

it('remembers that nothing stood there at first', () => {
  const filled = [save(4, 'rosa', { fee: 1 }, { fee: 2 }), save(3, 'conrad', {}, { fee: 1 })];

  expect(meanwhileOf(filled).changes).toEqual([{ field: 'fee', before: null, now: 2, by: 'rosa' }]);
  expect(meanwhileOf([save(5, 'rosa', { fee: 2 }, {}), ...filled]).changes).toEqual([]);
});

it('tells where the record was moved to', () => {
  const there = meanwhileOf([save(4, 'rosa', {}, {}, 'b', 'c'), save(3, 'conrad', {}, {}, 'a', 'b')]);
  const back = meanwhileOf([save(4, 'rosa', {}, {}, 'b', 'a'), save(3, 'conrad', {}, {}, 'a', 'b')]);

  expect(there.moved).toEqual({ stage: 'c', by: 'rosa' });
  expect(back.moved).toBeUndefined();
});

it('finds a collision where both changed a field to something else, and nowhere else', () => {
  const meanwhile = meanwhileOf([save(3, 'rosa', { a: 1, b: 1, c: 1 }, { a: 2, b: 2, c: 2 })]);

  expect(collisionsOf(meanwhile, { a: 3, b: 2, d: 4 }).map(({ field, now, mine }) => [field, now, mine])).toEqual([['a', 2, 3]]);
});
