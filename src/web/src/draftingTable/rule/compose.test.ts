import { describe, expect, it } from 'vitest';
import type { Rule } from '../../api/generated';
import {
  beside,
  clauseOf,
  conditionOf,
  duplicate,
  emptyClause,
  fitComparands,
  isOnlyWhile,
  moved,
  newRule,
  onlyWhile,
  withCase,
} from './compose';

const literal = (value: number) => ({ kind: 'literal', value }) as const;

describe('a new rule', () => {
  it('has a key that no other rule has', () => {
    expect(new Set([newRule(), newRule(), newRule()].map((rule) => rule.key)).size).toBe(3);
  });

  it('may be a copy, under its own key and name', () => {
    const rule: Rule = { ...newRule(), name: 'Crate measures' };
    const copy = duplicate(rule);
    expect(copy.key).not.toBe(rule.key);
    expect(copy.name).toBe('Crate measures (copy)');
    expect(copy.cases).toEqual(rule.cases);
  });
});

describe('a condition by demonstration', () => {
  it('is blank where nothing was set', () => {
    expect(conditionOf([])).toEqual(emptyClause());
  });

  it('takes all values that were set together', () => {
    const clauses = [clauseOf('mode', 'choice', 'air'), clauseOf('valuer', 'text', null)];
    expect(conditionOf(clauses)).toEqual({ kind: 'group', quantifier: 'allOf', members: clauses });
  });

  it('asks with the test that fits the type', () => {
    expect(clauseOf('mode', 'choice', 'air').test).toBe('is');
    expect(clauseOf('valuer', 'text', null).test).toBe('blank');
    expect(clauseOf('fee', 'money', 20).test).toBe('atLeast');
    expect(clauseOf('contact', 'fullName', { given: 'Ina' }).test).toBe('complete');
    expect(clauseOf('hazards', 'choices', ['mould', 'loose'])).toMatchObject({
      test: 'includesAll',
      comparands: [{ value: 'mould' }, { value: 'loose' }],
    });
  });
});

describe('only while', () => {
  const shown = newRule({ kind: 'show', targets: [{ kind: 'field', key: 'fee' }] }, clauseOf('mode', 'choice', 'air'));

  it('says the opposite otherwise', () => {
    expect(onlyWhile(shown, true).cases![1]).toEqual({
      effects: [{ kind: 'hide', targets: [{ kind: 'field', key: 'fee' }], value: 'keep' }],
    });
    expect(isOnlyWhile(onlyWhile(shown, true))).toBe(true);
    expect(onlyWhile(onlyWhile(shown, true), false)).toEqual(shown);
  });

  it('goes along when the rule acts on something else', () => {
    const first = shown.cases![0]!;
    const changed = withCase(onlyWhile(shown, true), 0, {
      ...first,
      effects: [{ kind: 'show', targets: [{ kind: 'tab', key: 'closing' }] }],
    });
    expect(changed.cases![1]!.effects).toMatchObject([{ kind: 'hide', targets: [{ kind: 'tab', key: 'closing' }] }]);
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
