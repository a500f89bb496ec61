import { expect, it } from 'vitest';
import type { HistoryView } from '../api/generated';
import { authors, byOthers, collisionsOf, isNothing, meanwhileOf } from './meanwhile';

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

it('tells who is on the other side of what collides', () => {
  const meanwhile = meanwhileOf([save(3, 'rosa', { a: 1, b: 1 }, { a: 2, b: 2 })]);

  expect(
    collisionsOf(meanwhile, [
      { key: 'a', mine: 3, theirs: 2 },
      { key: 'c', mine: 1, theirs: 4 },
    ]),
  ).toEqual([
    { field: 'a', mine: 3, now: 2, by: 'rosa' },
    { field: 'c', mine: 1, now: 4, by: undefined },
  ]);
});

it('knows what somebody did themselves', () => {
  const meanwhile = meanwhileOf([save(4, 'rosa', { a: 1 }, { a: 2 }, 'a', 'b'), save(3, 'conrad', { b: 1 }, { b: 2 }, 'a', 'a')]);

  expect(authors(meanwhile).sort()).toEqual(['conrad', 'rosa']);
  expect(byOthers(meanwhile, 'rosa')).toEqual({ changes: [{ field: 'b', before: 1, now: 2, by: 'conrad' }], moved: undefined });
  expect(isNothing(byOthers(byOthers(meanwhile, 'rosa'), 'conrad'))).toBe(true);
});
