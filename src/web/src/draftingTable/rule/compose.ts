import type {
  Case,
  Comparand,
  Condition,
  ConditionClause,
  Effect,
  Element,
  FieldType,
  Rule,
  Subject,
  SubjectOffer,
} from '../../api/generated';
import type { Value } from '../../engine/answers';

type TestShape = SubjectOffer['tests'][number]['shape'];

/** A clause whose blanks are still to be filled in. */
export function emptyClause(): ConditionClause {
  return { kind: 'clause', subject: { kind: 'field', field: '' }, test: 'is', comparands: [] };
}

/** A rule whose blanks are still to be filled in. It has no name: it gets one from what it will do. */
export function newRule(
  effect: Effect = { kind: 'require', targets: [], level: 'toMoveOn' },
  condition: Condition = emptyClause(),
): Rule {
  return { key: newKey(), name: '', on: true, cases: [{ while: condition, effects: [effect] }] };
}

/** A grid that is still to be drawn. */
export const newGrid = (): Rule => ({
  key: newKey(),
  name: '',
  on: true,
  table: { hit: 'first', drivers: [], outputs: [], rows: [] },
});

/** A rule is on unless it says otherwise. */
export const isOn = (rule: Rule): boolean => rule.on !== false;

export function duplicate(rule: Rule): Rule {
  return { ...rule, key: newKey(), name: `${rule.name} (copy)` };
}

/** A key that no other rule has, also none that somebody else is making at this moment. */
export function newKey(): string {
  return `r-${crypto.getRandomValues(new Uint32Array(2)).reduce((text, part) => text + part.toString(36), '')}`;
}

/** A field as it is on the sheet, as a clause with the test that fits its type. */
export function clauseOf(field: string, type: FieldType['kind'] | undefined, value: Value): ConditionClause {
  const subject: Subject = { kind: 'field', field };
  const literal: Comparand = { kind: 'literal', value };
  if (value === null) {
    return { kind: 'clause', subject, test: 'blank', comparands: [] };
  }
  switch (type) {
    case 'fullName':
    case 'address':
      return { kind: 'clause', subject, test: 'complete', comparands: [] };
    case 'choices':
      return {
        kind: 'clause',
        subject,
        test: 'includesAll',
        comparands: (value as string[]).map((one) => ({ kind: 'literal', value: one })),
      };
    case 'number':
    case 'money':
      return { kind: 'clause', subject, test: 'atLeast', comparands: [literal] };
    default:
      return { kind: 'clause', subject, test: 'is', comparands: [literal] };
  }
}

/** Clauses as the condition of a rule; a blank one where there are none. */
export function conditionOf(clauses: ConditionClause[]): Condition {
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

/** What holds otherwise where something is so only while a condition holds; undefined where coming undone is enough. */
export function opposite(effect: Effect): Effect | undefined {
  switch (effect.kind) {
    case 'show':
      return { kind: 'hide', targets: effect.targets, value: 'keep' };
    case 'require':
      return { kind: 'makeOptional', targets: effect.targets };
    case 'unlock':
      return { kind: 'lock', targets: effect.targets };
    default:
      return undefined;
  }
}

/** Whether a rule's one case has the opposite of all that can have one as its otherwise. */
export function isOnlyWhile({ cases = [] }: Pick<Rule, 'cases'>): boolean {
  const [first, otherwise] = cases;
  const wanted = first?.effects.map(opposite).filter((effect) => effect !== undefined) ?? [];
  return (
    cases.length === 2 &&
    otherwise!.while == null &&
    wanted.length > 0 &&
    wanted.length === otherwise!.effects.length &&
    wanted.every(({ kind }, i) => otherwise!.effects[i]!.kind === kind) &&
    JSON.stringify(wanted.map(targetsOf)) === JSON.stringify(otherwise!.effects.map(targetsOf))
  );
}

/** The same rule, where what its one case does is so only while its condition holds; or no longer so. */
export function onlyWhile(rule: Rule, isOnly: boolean): Rule {
  const [first] = rule.cases ?? [];
  const otherwise = first?.effects.map(opposite).filter((effect) => effect !== undefined) ?? [];
  return first ? { ...rule, cases: isOnly && otherwise.length > 0 ? [first, { effects: otherwise }] : [first] } : rule;
}

/** Puts other effects into a case. An otherwise that says the opposite goes along. */
export function withCase(rule: Rule, at: number, next: Case): Rule {
  const changed = { ...rule, cases: replaced(rule.cases ?? [], at, next) };
  return at === 0 && isOnlyWhile(rule) ? onlyWhile(changed, true) : changed;
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
