import { describe, expect, it } from 'vitest';
import type { Rule } from '../../api/generated';
import { everything, matches, type RuleFacts } from './ruleFilter';
import { groupsOf, placed, rowsOf } from './rows';

const rule = (key: string, more: Partial<Rule> = {}): Rule => ({ key, name: `Rule ${key}`, on: true, cases: [], ...more });
const facts: RuleFacts = {
  problems: new Map(),
  sentence: () => '',
  isInForce: () => false,
  isChanged: () => false,
  changedBy: () => undefined,
};
const keys = (rules: Rule[]) => rules.map(({ key }) => key).join('');

describe('The list of rules', () => {
  it('keeps groups together where their highest rule is, and numbers as they are', () => {
    const rules = [rule('a'), rule('b', { group: 'Crates' }), rule('c'), rule('d', { group: 'Crates' })];
    const drawn = rowsOf(rules, () => true, new Set()).map((row) => (row.kind === 'heading' ? row.group : row.place));
    expect(drawn).toEqual(['Crates', 1, 3, '', 0, 2]);
    expect(groupsOf(rules)).toEqual(['Crates']);
  });

  it('draws no heading of a group of which nothing is seen, and nothing but the heading of one that is folded', () => {
    const rules = [rule('a', { group: 'Crates' }), rule('b', { group: 'Fees' })];
    const drawn = rowsOf(rules, (one) => one.group === 'Fees', new Set(['Fees']));
    expect(drawn).toEqual([{ kind: 'heading', group: 'Fees', count: 1, isFolded: true }]);
  });

  it('moves several rules together and keeps their order, wherever they come from', () => {
    const rules = [...'abcdef'].map((key) => rule(key));
    expect(keys(placed(rules, ['e', 'a'], 'c', 'after'))).toBe('bcaedf');
    expect(keys(placed(rules, ['f'], 'a', 'before'))).toBe('fabcde');
    expect(placed(rules, ['a', 'b'], 'b', 'after')).toBe(rules);
  });
});

describe('Looking for rules', () => {
  it('finds all words wherever they stand, without their accents', () => {
    const found = rule('a', { name: 'Café', reason: 'The registrar asked' });
    expect(matches(found, 0, { ...everything, words: 'cafe ASKED' }, facts)).toBe(true);
    expect(matches(found, 0, { ...everything, words: 'cafe crate' }, facts)).toBe(false);
  });

  it('tells a rule that acts on a field from one that looks at it', () => {
    const acts = rule('a', { cases: [{ while: null, effects: [{ kind: 'lock', targets: [{ kind: 'field', key: 'fee' }] }] }] });
    const looks = rule('b', {
      cases: [
        { while: { kind: 'clause', subject: { kind: 'field', field: 'fee' }, test: 'blank', comparands: [] }, effects: [] },
      ],
    });
    const element = { kind: 'field' as const, key: 'fee' };
    const seen = (role: 'either' | 'driven' | 'driving') =>
      [acts, looks].filter((one) => matches(one, 0, { ...everything, element, role }, facts)).map(({ key }) => key);
    expect(seen('driven')).toEqual(['a']);
    expect(seen('driving')).toEqual(['b']);
    expect(seen('either')).toEqual(['a', 'b']);
  });

  it('finds the stage that a clause names, and not a choice of the same key', () => {
    const clause = (kind: 'stage' | 'field') => ({
      kind: 'clause' as const,
      subject: kind === 'stage' ? { kind } : { kind, field: 'fee' },
      test: 'is' as const,
      comparands: [{ kind: 'literal' as const, value: 'terms' }],
    });
    const by = (kind: 'stage' | 'field') => rule(kind, { cases: [{ while: clause(kind), effects: [] }] });
    expect(matches(by('stage'), 0, { ...everything, stage: 'terms' }, facts)).toBe(true);
    expect(matches(by('field'), 0, { ...everything, stage: 'terms' }, facts)).toBe(false);
  });
});
