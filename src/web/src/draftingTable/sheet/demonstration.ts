import type { ConditionClause, RecordType, RecordView, Rule } from '../../api/generated';
import type { Value } from '../../engine/answers';
import type { OpenRecord } from '../../engine/openRecord';
import { subjectsOf, touches } from '../element/connections';
import { allTargets, clauseOf, sameSubject } from '../rule/compose';
import type { View } from './view';

/** What was set on the sheet by the time a rule was last proposed: it belongs to that rule, and to no later one. */
export class Demonstration {
  private used = new Map<string, string>();

  /** What was changed since, as clauses: values, then the stage, a role, the form of a new record. */
  fresh(type: RecordType, record: OpenRecord, view: View, usual: View): ConditionClause[] {
    const values = [...record.trial].filter(([field, value]) => this.used.get(field) !== JSON.stringify(value));
    return [
      ...values.map(([field, value]) => clauseOf(field, kindOf(type, field), value)),
      ...(view.stage && this.used.get('›stage') !== view.stage ? [literal('stage', view.stage)] : []),
      ...(view.roles.length > 0 && view.roles.join() !== usual.roles.join() && this.used.get('›roles') !== view.roles.join()
        ? [literal('role', view.roles[0]!)]
        : []),
      ...(view.record === 0 && usual.record !== 0 && this.used.get('›new') !== 'yes' ? [literal('new', true)] : []),
    ];
  }

  /** Takes note that all of it has been proposed now. */
  use(record: OpenRecord, view: View) {
    this.used = new Map([...record.trial].map(([field, value]) => [field, JSON.stringify(value)]));
    this.used
      .set('›stage', view.stage)
      .set('›roles', view.roles.join())
      .set('›new', view.record === 0 ? 'yes' : '');
  }
}

const literal = (kind: 'stage' | 'role' | 'new', value: Value): ConditionClause => ({
  kind: 'clause',
  subject: { kind },
  test: 'is',
  comparands: [{ kind: 'literal', value }],
});

const kindOf = (type: RecordType, field: string) => type.fields.find(({ key }) => key === field)?.type.kind;

/** How many clauses are offered beside a proposal. */
const mostLikely = 6;

/** What is so on the sheet as well and was perhaps meant: stage, role, new or saved, and what drives the neighbours of what the rule acts on. */
export function likelyClauses(
  rule: Rule,
  rules: Rule[],
  type: RecordType,
  record: OpenRecord,
  sample: RecordView,
  view: View,
): ConditionClause[] {
  const neighbours = type.forms
    .flatMap((form) => form.tabs)
    .flatMap((tab) => tab.sections)
    .filter((section) => allTargets(rule).some(({ key }) => section.fields.includes(key) || section.key === key))
    .flatMap((section) => section.fields);
  const drivers = rules
    .filter((other) => other.key !== rule.key && neighbours.some((key) => touches(other, { kind: 'field', key })))
    .flatMap(subjectsOf)
    .flatMap((subject) => (subject.kind === 'field' && !subject.part && !subject.saved ? [subject.field] : []));
  const all = [
    literal('stage', view.stage || sample.setting.stage),
    ...view.roles.slice(0, 1).map((role) => literal('role', role)),
    literal('new', view.record === 0),
    ...[...new Set([...record.trial.keys(), ...drivers])].map((field) =>
      clauseOf(field, kindOf(type, field), record.value(field)),
    ),
  ];
  const asked = subjectsOf(rule);
  return all.filter(({ subject }) => !asked.some((one) => sameSubject(one, subject))).slice(0, mostLikely);
}
