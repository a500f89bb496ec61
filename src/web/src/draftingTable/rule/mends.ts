import type { Comparand, ConditionClause, Effect, Problem, Subject } from '../../api/generated';
import { fitComparands, isStateEffect, replaced, without } from './compose';
import { nearest } from './nearest';
import { offerOf } from './offers';
import type { Writing } from './writing';

/** Something that mends a problem by one press. */
export interface Mend {
  label: string;
  run: () => void;
}

const mostOffered = 3;

/** What mends a problem of a clause at that place: another test, a part, the name that was perhaps meant, or doing without. */
export function clauseMends(
  clause: ConditionClause,
  place: string,
  problem: Problem,
  writing: Writing,
  change: (clause: ConditionClause) => void,
  remove?: () => void,
): Mend[] {
  const { type, vocabulary } = writing;
  const { subject } = clause;
  const comparands = clause.comparands ?? [];
  const part = problem.place.slice(place.length + 1).split('/');
  const away: Mend[] = remove ? [{ label: 'Delete the clause', run: remove }] : [];
  if (part[0] === 'test') {
    const parts = vocabulary.subjects.filter(
      (one) =>
        one.subject.kind === 'field' && subject.kind === 'field' && one.subject.field === subject.field && one.subject.part,
    );
    const tests = offerOf(writing, subject)?.tests ?? [];
    return [
      ...tests.slice(0, mostOffered).map(({ test, words, shape }) => ({
        label: words,
        run: () => change({ ...clause, test, comparands: fitComparands(comparands, shape) }),
      })),
      ...parts.slice(0, mostOffered).map((one) => ({
        label: `Look at ${one.label}`,
        run: () =>
          change({
            ...clause,
            subject: one.subject,
            test: one.tests[0]!.test,
            comparands: fitComparands(comparands, one.tests[0]!.shape),
          }),
      })),
      ...away,
    ];
  }
  if (part[0] === 'subject') {
    const fields = vocabulary.subjects.filter((one) => one.subject.kind === 'field' && !one.subject.part);
    const sought = subject.kind === 'field' ? subject.field : '';
    return [
      ...nearest(sought, fields, (one) => [one.label, (one.subject as { field: string }).field]).map((one) => ({
        label: `Look at ${one.label}`,
        run: () => change({ ...clause, subject: one.subject as Subject }),
      })),
      ...away,
    ];
  }
  const at = Number(part[1]);
  const comparand = comparands[at];
  if (part[0] === 'comparands' && comparand) {
    const field = subject.kind === 'field' ? type.fields.find(({ key }) => key === subject.field)?.type : undefined;
    const options = field && 'options' in field ? field.options.filter(({ retired }) => !retired) : [];
    const said = comparand.kind === 'literal' && typeof comparand.value === 'string' ? comparand.value : '';
    return [
      ...nearest(said, options, (option) => [option.label, option.key]).map((option) => ({
        label: option.label,
        run: () =>
          change({ ...clause, comparands: replaced(comparands, at, { kind: 'literal', value: option.key } as Comparand) }),
      })),
      ...(comparands.length > 1
        ? [{ label: 'Delete it', run: () => change({ ...clause, comparands: without(comparands, at) }) }]
        : away),
    ];
  }
  return away;
}

/** What mends a problem of an effect at that place: the element that was perhaps meant, or doing without. */
export function effectMends(
  effect: Effect,
  place: string,
  problem: Problem,
  { vocabulary }: Writing,
  change: (effect: Effect) => void,
  remove?: () => void,
): Mend[] {
  const part = problem.place.slice(place.length + 1).split('/');
  const away: Mend[] = remove ? [{ label: 'Delete the effect', run: remove }] : [];
  const near = (key: string, kind: string) =>
    nearest(
      key,
      vocabulary.targets.filter(({ element }) => element.kind === kind),
      (one) => [one.label, one.element.key],
    );
  if (isStateEffect(effect) && part[0] === 'targets' && effect.targets[Number(part[1])]) {
    const at = Number(part[1]);
    const target = effect.targets[at]!;
    return [
      ...near(target.key, target.kind).map(({ label, element }) => ({
        label,
        run: () => change({ ...effect, targets: replaced(effect.targets, at, element) }),
      })),
      ...(effect.targets.length > 1
        ? [{ label: 'Delete it', run: () => change({ ...effect, targets: without(effect.targets, at) }) }]
        : away),
    ];
  }
  return 'field' in effect && part[0] === 'field'
    ? [
        ...near(effect.field, 'field').map(({ label, element }) => ({
          label,
          run: () => change({ ...effect, field: element.key }),
        })),
        ...away,
      ]
    : away;
}
