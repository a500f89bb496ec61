import { describe, expect, it } from 'vitest';
import type { ConditionClause, Rule } from '../api/generated';
import { beside, conditionOf, duplicate, emptyClause, fitComparands, moved, newRule } from './compose';

const literal = (value: number) => ({ kind: 'literal', value }) as const;

describe('a new rule', () => {
  it('has a key that no other rule has, also after others were deleted', () => {
    const first = newRule([]);
    const second = newRule([first]);
    const third = newRule([second]);
    expect(new Set([first, second, third].map((rule) => rule.key)).size).toBe(3);
  });

  it('may be a copy, under its own key and name', () => {
    const rule: Rule = { ...newRule([]), name: 'Crate measures' };
    const copy = duplicate(rule, [rule]);
    expect(copy.key).not.toBe(rule.key);
    expect(copy.name).toBe('Crate measures (copy)');
    expect(copy.cases).toEqual(rule.cases);
  });
});

describe('a condition by demonstration', () => {
  it('is blank where nothing was set', () => {
    expect(conditionOf(new Map())).toEqual(emptyClause());
  });

  it('is one clause for one value', () => {
    expect(conditionOf(new Map([['crateNeeded', false]]))).toMatchObject({
      kind: 'clause',
      test: 'is',
      comparands: [{ kind: 'literal', value: false }],
    });
  });

  it('takes all values that were set together, and a cleared one as blank', () => {
    const condition = conditionOf(
      new Map<string, string | null>([
        ['mode', 'air'],
        ['valuer', null],
      ]),
    );
    expect(condition).toMatchObject({ kind: 'group', quantifier: 'allOf' });
    expect((condition as { members: ConditionClause[] }).members.map((member) => member.test)).toEqual(['is', 'blank']);
  });
});

describe('editing', () => {
  it('puts a clause beside another into one group', () => {
    const one = emptyClause();
    const two = beside(one, emptyClause());
    expect(two).toMatchObject({ kind: 'group', members: [one, one] });
    expect(beside(two, one)).toMatchObject({ members: [one, one, one] });
  });

  it('keeps as many values as the next test takes', () => {
    const values = [literal(1), literal(2), literal(3)];
    expect(fitComparands(values, 'alone')).toEqual([]);
    expect(fitComparands(values, 'one')).toEqual([literal(1)]);
    expect(fitComparands(values, 'range')).toEqual([literal(1), literal(2)]);
    expect(fitComparands(values, 'many')).toEqual(values);
  });

  it('moves an item within its list', () => {
    expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a']);
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'c', 'b']);
  });
});
