import type { Definition, DraftStep, Rule, RuleEdit } from '../../api/generated';
import { staying } from './order';

/** Whether two rules, or two of anything, say the same: whatever the order of their members, and whether what is not said is left out, null or empty. */
export function isSame(one: unknown, other: unknown): boolean {
  if (one === other || (isNothing(one) && isNothing(other))) {
    return true;
  }
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) {
    return false;
  }
  if (Array.isArray(one) || Array.isArray(other)) {
    return (
      Array.isArray(one) && Array.isArray(other) && one.length === other.length && one.every((item, i) => isSame(item, other[i]))
    );
  }
  const [a, b] = [one as Record<string, unknown>, other as Record<string, unknown>];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((name) => isSame(said(a, name), said(b, name)));
}

/** What is said by a member. The server writes out what is false; a rule is on unless it is not, and a value may be no. */
function said(model: Record<string, unknown>, name: string): unknown {
  const value = model[name];
  return name === 'on' ? value !== false || 'off' : name !== 'value' && value === false ? undefined : value;
}

const isNothing = (value: unknown) => value === null || value === undefined || (Array.isArray(value) && value.length === 0);

/** The step from one draft to another. As DraftStep.Between in Dibujo.Core, but for the versions that the editor knew. */
export function between(before: Definition, after: Definition, base: (key: string) => number = () => 0, typeBase = 0): DraftStep {
  const old = new Map(before.rules.map((rule) => [rule.key, rule]));
  const kept = new Set(after.rules.map(({ key }) => key));
  const stay = staying(
    before.rules.map(({ key }) => key),
    after.rules.map(({ key }) => key),
  );
  const edits: RuleEdit[] = before.rules
    .filter(({ key }) => !kept.has(key))
    .map(({ key }) => ({ key, base: base(key), isRemoved: true }));
  let previous: string | null = null;
  after.rules.forEach((rule) => {
    const isPlaced = !stay.has(rule.key);
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
  return {
    edits,
    ...(isSame(before.recordType, after.recordType) ? {} : { recordType: after.recordType, recordTypeBase: typeBase }),
    ...(isSame(before.examples, after.examples) ? {} : { examples: after.examples ?? [], recordTypeBase: typeBase }),
  };
}

export const isEmpty = ({ edits, recordType, examples }: DraftStep): boolean => edits.length === 0 && !recordType && !examples;

/** The draft after a step. What a rule is to stand after may be gone: then it stays where it is. */
export function after(draft: Definition, { edits, recordType, examples }: DraftStep): Definition {
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
  return { ...draft, rules, recordType: recordType ?? draft.recordType, examples: examples ?? draft.examples };
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
    examples: isSame(draft.examples, known.examples) ? known.examples : draft.examples,
    rules: draft.rules.map((rule) => {
      const other = byKey.get(rule.key);
      return other && isSame(rule, other) ? other : rule;
    }),
  };
}
