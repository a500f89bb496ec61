import type { Definition, Rule } from '../../api/generated';

/** A draft with the way to it and back. */
export interface History {
  past: Definition[];
  present: Definition;
  future: Definition[];
  /** What the last step was a part of, such as one text that is being typed; the next step of the same joins it. */
  joint?: string;
}

export type Step =
  | { kind: 'change'; definition: Definition }
  /** Something that follows from the last step and is undone with it. */
  | { kind: 'amend'; rule: string; change: Partial<Rule> }
  | { kind: 'undo' }
  | { kind: 'redo' };

export function walk(history: History, step: Step): History {
  const { past, present, future } = history;
  switch (step.kind) {
    case 'change': {
      const joint = jointOf(present, step.definition);
      return joint !== undefined && joint === history.joint
        ? { past, present: step.definition, future: [], joint }
        : { past: [...past, present], present: step.definition, future: [], joint };
    }
    case 'amend':
      return {
        ...history,
        present: {
          ...present,
          rules: present.rules.map((rule) => (rule.key === step.rule ? { ...rule, ...step.change } : rule)),
        },
      };
    case 'undo': {
      const previous = past.at(-1);
      return previous ? { past: past.slice(0, -1), present: previous, future: [present, ...future] } : history;
    }
    case 'redo': {
      const [next, ...rest] = future;
      return next ? { past: [...past, present], present: next, future: rest } : history;
    }
  }
}

const texts: (keyof Rule)[] = ['name', 'reason'];

/** Which text of which rule is typed from one draft to the next; undefined where it is anything else. */
function jointOf(before: Definition, after: Definition): string | undefined {
  const changed = after.rules.filter((rule, i) => rule !== before.rules[i]);
  const [rule] = changed;
  if (changed.length !== 1 || before.rules.length !== after.rules.length || before.recordType !== after.recordType) {
    return undefined;
  }
  const old = before.rules.find(({ key }) => key === rule!.key);
  const differs = Object.keys({ ...old, ...rule }).filter((name) => old?.[name as keyof Rule] !== rule![name as keyof Rule]);
  return old && differs.length === 1 && texts.includes(differs[0] as keyof Rule) ? `${rule!.key} ${differs[0]!}` : undefined;
}
