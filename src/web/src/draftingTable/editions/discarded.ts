import type { Definition, Difference } from '../../api/generated';

/** The draft with one rule as it was in an edition; one that is new is taken out, one that is gone comes back behind the rule that it stood behind. */
export function discarded(draft: Definition, edition: Definition, { key }: Pick<Difference, 'key'>): Definition {
  const old = edition.rules.find((rule) => rule.key === key);
  if (!old) {
    return { ...draft, rules: draft.rules.filter((rule) => rule.key !== key) };
  }
  if (draft.rules.some((rule) => rule.key === key)) {
    return { ...draft, rules: draft.rules.map((rule) => (rule.key === key ? old : rule)) };
  }
  const above = edition.rules.slice(0, edition.rules.indexOf(old)).map((rule) => rule.key);
  const at = draft.rules.findLastIndex((rule) => above.includes(rule.key)) + 1;
  return { ...draft, rules: [...draft.rules.slice(0, at), old, ...draft.rules.slice(at)] };
}
