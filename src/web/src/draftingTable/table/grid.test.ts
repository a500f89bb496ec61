import { describe, expect, it } from 'vitest';
import type { Element, State, SubjectOffer } from '../../api/generated';
import { random } from '../../pending/random';
import {
  choicesOf,
  filled,
  gridOf,
  nextState,
  otherwise,
  painted,
  tableOf,
  withElement,
  withoutElement,
  type Grid,
} from './grid';

const material = {
  input: 'list',
  values: ['oil', 'paper', 'textile'].map((key) => ({ key, label: key })),
} as unknown as SubjectOffer;
const crate = { input: 'yesNo', values: [] } as unknown as SubjectOffer;
const field = (key: string): Element => ({ kind: 'field', key });
const all: State[] = ['shown', 'hidden', 'requiredToMoveOn', 'requiredToSave', 'optional', 'locked', 'open'];

const blank = (offer: SubjectOffer, ...fields: string[]): Grid => {
  const choices = [...choicesOf(offer), { value: null, label: otherwise }];
  return {
    driver: { kind: 'field', field: 'material' },
    choices,
    elements: fields.map(field),
    states: fields.map(() => choices.map((): State[] => [])),
  };
};

describe('a table with one driver, seen as a grid', () => {
  it.each([
    ['choices', material],
    ['yes or no', crate],
  ])('says the same as the table that is made of it: %s', (_, offer) => {
    for (let seed = 1; seed <= 200; seed++) {
      const chance = random(seed);
      let grid = blank(offer, 'frame', 'glazing', 'humidity');
      for (let step = 0; step < 25; step++) {
        const at = (count: number) => Math.floor(chance() * count);
        grid = painted(grid, at(3), at(grid.choices.length), chance() < 0.1 ? null : all[at(all.length)]!);
      }

      const again = gridOf(tableOf(grid), offer)!;

      expect(again.elements).toEqual(grid.elements);
      // What stands under "otherwise" counts for a choice of which nothing else is said.
      const rest = grid.choices.length - 1;
      const columns = (one: Grid) => one.choices.map((_choice, c) => JSON.stringify(one.states.map((row) => row[c])));
      columns(grid).forEach((column, c) => expect([column, columns(grid)[rest]], `${seed}`).toContain(columns(again)[c]));
      expect(columns(again)[rest]).toBe(columns(grid)[rest]);
    }
  });

  it('has one state of each kind in a crossing, and shows what it requires', () => {
    let grid = blank(material, 'frame');
    grid = painted(grid, 0, 0, 'hidden');
    grid = painted(grid, 0, 0, 'requiredToSave');
    expect(grid.states[0]![0]).toEqual(['shown', 'requiredToSave']);
    grid = painted(grid, 0, 0, 'optional');
    grid = painted(grid, 0, 0, 'locked');
    expect(grid.states[0]![0]).toEqual(['shown', 'optional', 'locked']);
    expect(painted(grid, 0, 0, null).states[0]![0]).toEqual([]);
    expect(grid.states[0]![1]).toEqual([]);
  });

  it('says nothing of an element at first, and takes one away with its states', () => {
    const grid = withElement(painted(blank(material, 'frame'), 0, 0, 'locked'), field('glazing'));
    expect(grid.states[1]).toEqual([[], [], [], []]);
    expect(filled(grid, 'hidden').states).toEqual([
      [['locked'], ['hidden'], ['hidden'], ['hidden']],
      [['hidden'], ['hidden'], ['hidden'], ['hidden']],
    ]);
    expect(withoutElement(grid, 0)).toMatchObject({ elements: [field('glazing')], states: [grid.states[1]] });
  });

  it('takes turns where what is painted stands there already', () => {
    expect(nextState(['shown'], 'shown')).toBe('hidden');
    expect(nextState(['hidden'], 'hidden')).toBe('shown');
    expect(nextState(['locked'], 'locked')).toBeNull();
    expect(nextState([], 'locked')).toBe('locked');
  });

  it('is none where the table says more', () => {
    const table = tableOf(painted(blank(material, 'frame'), 0, 0, 'locked'));
    expect(gridOf({ ...table, hit: 'any' }, material)).toBeUndefined();
    expect(gridOf({ ...table, drivers: [...table.drivers, ...table.drivers] }, material)).toBeUndefined();
    expect(gridOf({ ...table, rows: [{ if: [{ test: 'atLeast', comparands: [] }], then: [] }] }, material)).toBeUndefined();
    expect(gridOf(table, undefined)).toBeUndefined();
  });
});
