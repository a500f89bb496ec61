import type { Definition, DraftStep, Rule, RuleEdit } from '../../api/generated';

/** Whether two rules, or two of anything, say the same. */
export const isSame = (one: unknown, other: unknown): boolean => one === other || JSON.stringify(one) === JSON.stringify(other);

/** The step from one draft to another. As DraftStep.Between in Dibujo.Core, but for the versions that the editor knew. */
export function between(before: Definition, after: Definition, base: (key: string) => number = () => 0, typeBase = 0): DraftStep {
  const old = new Map(before.rules.map((rule) => [rule.key, rule]));
  const kept = new Set(after.rules.map(({ key }) => key));
  const order = before.rules.map(({ key }) => key).filter((key) => kept.has(key));
  const edits: RuleEdit[] = before.rules
    .filter(({ key }) => !kept.has(key))
    .map(({ key }) => ({ key, base: base(key), isRemoved: true }));
  let previous: string | null = null;
  after.rules.forEach((rule, i) => {
    const isPlaced = order[i] !== rule.key;
    if (isPlaced) {
      const from = order.indexOf(rule.key);
      if (from >= 0) {
        order.splice(from, 1);
      }
      order.splice(i, 0, rule.key);
    }
    const isChanged = !isSame(old.get(rule.key), rule);
    if (isPlaced || isChanged) {
      edits.push({
        key: rule.key,
        base: base(rule.key),
        ...(isChanged ? { rule } : {}),
        ...(isPlaced ? { isPlaced, after: previous } : {}),
      });
    }
    previous = rule.key;
  });
  return isSame(before.recordType, after.recordType)
    ? { edits }
    : { edits, recordType: after.recordType, recordTypeBase: typeBase };
}

export const isEmpty = ({ edits, recordType }: DraftStep): boolean => edits.length === 0 && !recordType;

/** The draft after a step. What a rule is to stand after may be gone: then it stays where it is. */
export function after(draft: Definition, { edits, recordType }: DraftStep): Definition {
  const rules = [...draft.rules];
  for (const edit of edits) {
    const at = rules.findIndex(({ key }) => key === edit.key);
    if (edit.isRemoved) {
      if (at >= 0) {
        rules.splice(at, 1);
      }
      continue;
    }
    if (edit.rule) {
      if (at < 0) {
        rules.push(edit.rule);
      } else if (!isSame(rules[at], edit.rule)) {
        rules[at] = edit.rule;
      }
    }
    if (edit.isPlaced || at < 0) {
      place(rules, edit.key, edit.after ?? null);
    }
  }
  return { ...draft, rules, recordType: recordType ?? draft.recordType };
}

function place(rules: Rule[], key: string, behind: string | null) {
  const from = rules.findIndex((rule) => rule.key === key);
  const other = behind === null ? -1 : rules.findIndex((rule) => rule.key === behind);
  if (from < 0 || (behind !== null && other < 0)) {
    return;
  }
  const [rule] = rules.splice(from, 1);
  rules.splice(other < from ? other + 1 : other, 0, rule!);
}

/** The same draft, with the objects of another wherever they say the same: what is known by identity stays known. */
export function withKnown(draft: Definition, known: Definition): Definition {
  const byKey = new Map(known.rules.map((rule) => [rule.key, rule]));
  return {
    ...draft,
    recordType: isSame(draft.recordType, known.recordType) ? known.recordType : draft.recordType,
    rules: draft.rules.map((rule) => {
      const other = byKey.get(rule.key);
      return other && isSame(rule, other) ? other : rule;
    }),
  };
}
