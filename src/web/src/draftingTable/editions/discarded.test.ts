import { expect, it } from 'vitest';
import type { Definition, Rule } from '../../api/generated';
import { discarded } from './discarded';

const rule = (key: string, name = key): Rule => ({ key, name, on: true, cases: [] });
const of = (...rules: Rule[]) => ({ rules }) as Definition;
const edition = of(rule('a'), rule('b'), rule('c'));
const names = (definition: Definition) => definition.rules.map(({ name }) => name);

it('puts a changed rule back to how it was and leaves the others', () =>
  expect(names(discarded(of(rule('a', 'A'), rule('b', 'B')), edition, { key: 'b' }))).toEqual(['A', 'b']));

it('takes a new rule out', () => expect(names(discarded(of(rule('a'), rule('x')), edition, { key: 'x' }))).toEqual(['a']));

it('brings a rule back behind the one that it stood behind', () => {
  expect(names(discarded(of(rule('x'), rule('a'), rule('c')), edition, { key: 'b' }))).toEqual(['x', 'a', 'b', 'c']);
  expect(names(discarded(of(rule('x')), edition, { key: 'a' }))).toEqual(['a', 'x']);
});
