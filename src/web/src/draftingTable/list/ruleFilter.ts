import type { Element, Problem, Rule, State, Subject } from '../../api/generated';
import { drives, subjectsOf, touches } from '../element/connections';
import { isOn } from '../rule/compose';
import { verbOf } from '../rule/verbs';

/** What is looked for in the list of rules: all of it at once. */
export interface RuleFilter {
  words: string;
  element?: Element;
  /** Whether the rule acts on the element, looks at it, or either. */
  role: 'either' | 'driven' | 'driving';
  /** A verb of {@link verbOf}. */
  does?: string;
  /** Key of a stage that the rule names. */
  stage?: string;
  /** Account of who changed it last. */
  by?: string;
  isOn?: boolean;
  isInForce: boolean;
  hasProblems: boolean;
  isChanged: boolean;
}

export const everything: RuleFilter = { words: '', role: 'either', isInForce: false, hasProblems: false, isChanged: false };

/** What is to be known of the rules beside what they say. */
export interface RuleFacts {
  problems: Map<number, Problem[]>;
  /** The rule in words, where it has been written. */
  sentence: (rule: Rule) => string;
  isInForce: (place: number) => boolean;
  isChanged: (rule: Rule) => boolean;
  changedBy: (rule: Rule) => string | undefined;
}

export const isNarrowed = (filter: RuleFilter): boolean => JSON.stringify(filter) !== JSON.stringify(everything);

/** Whether a rule, at its place in the whole list, is what is looked for. */
export function matches(rule: Rule, place: number, filter: RuleFilter, facts: RuleFacts): boolean {
  const { element } = filter;
  return (
    (filter.isOn === undefined || isOn(rule) === filter.isOn) &&
    (!filter.isInForce || facts.isInForce(place)) &&
    (!filter.hasProblems || facts.problems.has(place)) &&
    (!filter.isChanged || facts.isChanged(rule)) &&
    (!filter.by || facts.changedBy(rule) === filter.by) &&
    (!element || (filter.role !== 'driving' && touches(rule, element)) || (filter.role !== 'driven' && drives(rule, element))) &&
    (!filter.does || verbsOf(rule).includes(filter.does)) &&
    (!filter.stage || namesStage(rule, filter.stage)) &&
    hasWords(rule, filter.words, facts)
  );
}

/** All words stand in the rule's name, reason, group or sentence, or in any of them together. */
function hasWords(rule: Rule, words: string, facts: RuleFacts): boolean {
  const sought = folded(words).split(/\s+/).filter(Boolean);
  if (sought.length === 0) {
    return true;
  }
  const text = folded([rule.name, rule.reason, rule.group, facts.sentence(rule)].join(' '));
  return sought.every((word) => text.includes(word));
}

const folded = (text: string) => text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();

const stateVerbs: Record<State, string> = {
  shown: 'show',
  hidden: 'hide',
  hiddenAndCleared: 'hide',
  hiddenAndReset: 'hide',
  requiredToMoveOn: 'require',
  requiredToSave: 'require',
  optional: 'makeOptional',
  locked: 'lock',
  open: 'unlock',
};

/** Everything that a rule does, by case or by table. */
export function verbsOf(rule: Rule): string[] {
  const { outputs = [], rows = [] } = rule.table ?? {};
  return [
    ...(rule.cases ?? []).flatMap(({ effects }) => effects.map(verbOf)),
    ...outputs.flatMap((output) =>
      output.kind === 'value'
        ? [output.held ? 'calculate' : 'set']
        : output.kind === 'choices'
          ? ['narrow']
          : output.kind === 'message'
            ? [`message:${output.severity}`]
            : [],
    ),
    ...rows.flatMap((row) =>
      row.then.flatMap((answer) => (answer.kind === 'states' ? answer.states.map((state) => stateVerbs[state]) : [])),
    ),
  ];
}

/** Whether a clause or a cell names the stage; the key may stand for a choice of a field as well, so the subject counts. */
function namesStage(rule: Rule, stage: string): boolean {
  const isStage = (subject: Subject | undefined) => subject?.kind === 'stage';
  if (!subjectsOf(rule).some(isStage)) {
    return false;
  }
  const names = (value: unknown): boolean =>
    Array.isArray(value)
      ? value.some(names)
      : typeof value === 'object' && value !== null
        ? 'subject' in value && isStage(value.subject as Subject)
          ? JSON.stringify(value).includes(JSON.stringify(stage))
          : Object.values(value).some(names)
        : false;
  return (
    names((rule.cases ?? []).map((aCase) => aCase.while)) ||
    (rule.table?.drivers ?? []).some(
      (driver, i) => isStage(driver) && rule.table!.rows.some((row) => JSON.stringify(row.if[i]).includes(JSON.stringify(stage))),
    )
  );
}
