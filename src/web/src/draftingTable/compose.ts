import type { Comparand, Condition, ConditionClause, Effect, Element, Rule, Subject, SubjectOffer } from '../api/generated';
import type { Value } from '../engine/answers';

type TestShape = SubjectOffer['tests'][number]['shape'];

/** A clause whose blanks are still to be filled in. */
export function emptyClause(): ConditionClause {
  return { kind: 'clause', subject: { kind: 'field', field: '' }, test: 'is', comparands: [] };
}

/** A rule that asks for something as soon as its blanks are filled in. */
export function newRule(
  taken: Rule[],
  effect: Effect = { kind: 'require', targets: [], level: 'toMoveOn' },
  condition: Condition = emptyClause(),
): Rule {
  return { key: freeKey(taken), name: `Rule ${taken.length + 1}`, on: true, cases: [{ while: condition, effects: [effect] }] };
}

export function duplicate(rule: Rule, taken: Rule[]): Rule {
  return { ...rule, key: freeKey(taken), name: `${rule.name} (copy)` };
}

/** The values that were set on the sheet, as the condition of a rule that is to hold then. */
export function conditionOf(values: ReadonlyMap<string, Value>): Condition {
  const clauses = [...values].map(([field, value]): ConditionClause => ({
    kind: 'clause',
    subject: { kind: 'field', field },
    test: value === null ? 'blank' : 'is',
    comparands: value === null ? [] : [{ kind: 'literal', value }],
  }));
  return clauses.length === 0
    ? emptyClause()
    : clauses.length === 1
      ? clauses[0]!
      : { kind: 'group', quantifier: 'allOf', members: clauses };
}

/** Adds a condition beside another: into its group, or into a new one around both. */
export function beside(condition: Condition, added: Condition): Condition {
  return condition.kind === 'group'
    ? { ...condition, members: [...condition.members, added] }
    : { kind: 'group', quantifier: 'allOf', members: [condition, added] };
}

/** As many comparands as the test takes, as far as they are there. */
export function fitComparands(comparands: Comparand[], shape: TestShape): Comparand[] {
  const most = { alone: 0, one: 1, range: 2, many: comparands.length }[shape];
  return comparands.slice(0, most);
}

export function moved<T>(list: T[], from: number, to: number): T[] {
  const next = list.filter((_, i) => i !== from);
  next.splice(to, 0, list[from]!);
  return next;
}

export function replaced<T>(list: T[], at: number, item: T): T[] {
  return list.map((other, i) => (i === at ? item : other));
}

export function without<T>(list: T[], at: number): T[] {
  return list.filter((_, i) => i !== at);
}

/** An effect on the state of elements; the other kinds are written as sentences. */
export type StateEffect = Extract<Effect, { targets: Element[] }>;

export const isStateEffect = (effect: Effect): effect is StateEffect => 'targets' in effect;

/** What an effect acts on. */
export function targetsOf(effect: Effect): Element[] {
  if (isStateEffect(effect)) {
    return effect.targets;
  }
  return 'field' in effect ? [{ kind: 'field', key: effect.field }] : effect.kind === 'message' && effect.at ? [effect.at] : [];
}

/** Everything that a rule acts on, by case or by table. */
export function allTargets(rule: Rule): Element[] {
  const outputs = rule.table?.outputs ?? [];
  return [
    ...(rule.cases ?? []).flatMap((c) => c.effects).flatMap(targetsOf),
    ...outputs.flatMap((o): Element[] =>
      o.kind === 'state' ? o.targets : o.kind === 'message' ? (o.at ? [o.at] : []) : [{ kind: 'field', key: o.field }],
    ),
  ];
}

/** Whether every blank of the rule can be shown as a chip; a rule that cannot is written as a sentence. */
export function hasChips(rule: Rule): boolean {
  return (
    !rule.table &&
    !rule.where &&
    (rule.cases ?? []).every(
      (c) =>
        (c.while == null || conditionHasChips(c.while)) &&
        c.effects.every((e) => isStateEffect(e) && !(e.kind === 'require' && (e.message || e.moves?.length)) && !isReset(e)),
    )
  );
}

const isReset = (effect: Effect) => effect.kind === 'hide' && effect.value === 'reset';

function conditionHasChips(condition: Condition): boolean {
  return condition.kind === 'group'
    ? condition.members.every(conditionHasChips)
    : (condition.subject.kind !== 'field' || !condition.subject.saved) &&
        condition.subject.kind !== 'linked' &&
        (condition.comparands ?? []).every(
          (c) =>
            (c.kind === 'literal' && (c.value === null || typeof c.value !== 'object')) ||
            (c.kind === 'subject' && c.subject.kind === 'field' && !c.subject.saved),
        );
}

export const sameElement = (one: Element, other: Element) => one.kind === other.kind && one.key === other.key;

export function sameSubject(one: Subject, other: Subject): boolean {
  if (one.kind === 'field' && other.kind === 'field') {
    return one.field === other.field && (one.part ?? null) === (other.part ?? null) && !one.saved === !other.saved;
  }
  return one.kind === 'linked' || other.kind === 'linked'
    ? JSON.stringify(one) === JSON.stringify(other)
    : one.kind === other.kind;
}

function freeKey(taken: Rule[]): string {
  const keys = new Set(taken.map((rule) => rule.key));
  let number = taken.length + 1;
  while (keys.has(`rule-${number}`)) {
    number++;
  }
  return `rule-${number}`;
}

/**
 * Whether the rule is limited to some forms, or to the form or the list: both are a person's own hands, and there is
 * another way to the same record. See Channels in docs/rule-language.md.
 */
export function isConvenience(rule: Rule): boolean {
  const channels = rule.where?.channels ?? [];
  const isForPeople = channels.length === 0 || channels.some((channel) => channel === 'form' || channel === 'list');
  const isForSome = channels.length > 0 && !(channels.includes('form') && channels.includes('list'));
  const effects = (rule.cases ?? []).flatMap((aCase) => aCase.effects);
  return (
    isForPeople &&
    ((rule.where?.forms ?? []).length > 0 || isForSome) &&
    effects.some(
      (effect) =>
        effect.kind === 'lock' ||
        effect.kind === 'require' ||
        (effect.kind === 'message' && (effect.severity === 'stopsMoving' || effect.severity === 'stopsSaving')),
    )
  );
}
