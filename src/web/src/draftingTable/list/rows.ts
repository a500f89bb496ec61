import type { Rule } from '../../api/generated';

/** What the list draws: a heading of a group, or a rule at its place in the order of all. */
export type ListRow =
  { kind: 'heading'; group: string; count: number; isFolded: boolean } | { kind: 'rule'; rule: Rule; place: number };

/** The names of the groups, in the order of their highest rules. */
export const groupsOf = (rules: Rule[]): string[] => [...new Set(rules.flatMap(({ group }) => (group ? [group] : [])))];

/**
 * The rules that are to be seen. Groups stand together, each where its highest rule is; the numbers of rules go on telling the
 * order. What is in no group comes last, without a heading where there are no groups at all.
 */
export function rowsOf(rules: Rule[], isSeen: (rule: Rule, place: number) => boolean, folded: Set<string>): ListRow[] {
  const seen = rules.flatMap((rule, place) => (isSeen(rule, place) ? [{ kind: 'rule' as const, rule, place }] : []));
  if (!rules.some(({ group }) => group)) {
    return seen;
  }
  return [...groupsOf(rules), ''].flatMap((group): ListRow[] => {
    const members = seen.filter(({ rule }) => (rule.group ?? '') === group);
    const isFolded = folded.has(group);
    return members.length === 0
      ? []
      : [{ kind: 'heading', group, count: members.length, isFolded }, ...(isFolded ? [] : members)];
  });
}

/** The rules in the order after some were put before or after another one. */
export function placed(rules: Rule[], keys: string[], anchor: string, side: 'before' | 'after'): Rule[] {
  if (keys.includes(anchor)) {
    return rules;
  }
  const moving = rules.filter(({ key }) => keys.includes(key));
  const rest = rules.filter(({ key }) => !keys.includes(key));
  const at = rest.findIndex(({ key }) => key === anchor) + (side === 'after' ? 1 : 0);
  return [...rest.slice(0, at), ...moving, ...rest.slice(at)];
}
