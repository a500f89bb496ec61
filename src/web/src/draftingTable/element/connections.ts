import type { Comparand, Condition, Effect, Element, Rule, Subject } from '../../api/generated';
import { allTargets, replaced, sameElement, targetsOf, isStateEffect } from '../rule/compose';

/** Whether a rule acts on the element. */
export const touches = (rule: Rule, element: Element): boolean => allTargets(rule).some((target) => sameElement(target, element));

/** Whether a rule looks at the element. */
export function drives(rule: Rule, { kind, key }: Element): boolean {
  const isIt = (subject: Subject) =>
    (kind === 'field' &&
      ((subject.kind === 'field' && subject.field === key) || (subject.kind === 'linked' && subject.via[0] === key))) ||
    (kind === 'part' && subject.kind === 'field' && `${subject.field}.${subject.part}` === key);
  return subjectsOf(rule).some(isIt);
}

/** Everything that a rule's conditions look at. */
export function subjectsOf(rule: Rule): Subject[] {
  return [
    ...(rule.cases ?? []).flatMap((aCase) => (aCase.while ? within(aCase.while) : [])),
    ...(rule.table?.drivers ?? []),
    ...(rule.table?.rows ?? []).flatMap((row) => row.if.flatMap((cell) => (cell.comparands ?? []).flatMap(compared))),
  ];
}

function within(condition: Condition): Subject[] {
  return condition.kind === 'group'
    ? condition.members.flatMap(within)
    : [condition.subject, ...(condition.comparands ?? []).flatMap(compared)];
}

const compared = (comparand: Comparand): Subject[] => (comparand.kind === 'subject' ? [comparand.subject] : []);

/** The rule where everything that it does to one element it does to another as well; undefined where it does nothing to it. */
export function likeNeighbour(rule: Rule, neighbour: Element, element: Element): Rule | undefined {
  const joins = (targets: Element[]) =>
    targets.some((target) => sameElement(target, neighbour)) && !targets.some((target) => sameElement(target, element))
      ? [...targets, element]
      : targets;
  const same = (effect: Effect): Effect[] =>
    isStateEffect(effect)
      ? [{ ...effect, targets: joins(effect.targets) }]
      : 'field' in effect &&
          effect.kind !== 'narrow' &&
          neighbour.kind === 'field' &&
          element.kind === 'field' &&
          effect.field === neighbour.key
        ? [effect, { ...effect, field: element.key }]
        : [effect];
  const next: Rule = {
    ...rule,
    cases: (rule.cases ?? []).map((aCase) => ({ ...aCase, effects: aCase.effects.flatMap(same) })),
    table: rule.table && {
      ...rule.table,
      outputs: rule.table.outputs.map((output) =>
        output.kind === 'state' ? { ...output, targets: joins(output.targets) } : output,
      ),
    },
  };
  return JSON.stringify(next) === JSON.stringify(rule) ? undefined : next;
}

/** The rule where its first effect on elements acts on these as well. */
export function withTargets(rule: Rule, elements: Element[]): Rule {
  const [first] = rule.cases ?? [];
  const at = first?.effects.findIndex(isStateEffect) ?? -1;
  if (!first || at < 0) {
    return rule;
  }
  const effect = first.effects[at]!;
  const added = elements.filter((element) => !targetsOf(effect).some((target) => sameElement(target, element)));
  return {
    ...rule,
    cases: replaced(rule.cases!, 0, {
      ...first,
      effects: replaced(first.effects, at, { ...effect, targets: [...targetsOf(effect), ...added] } as Effect),
    }),
  };
}
