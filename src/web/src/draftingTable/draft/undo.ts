import type { Definition, DraftStep, Rule } from '../../api/generated';
import { mergeTypes } from './mergeTypes';
import { after, between, isSame } from './steps';

/** A step of one's own, forth and back. */
export interface OwnStep {
  forth: DraftStep;
  back: DraftStep;
}

/** Where one's own steps outlast a reload. */
export interface StepStore {
  own: { past: OwnStep[]; future: OwnStep[] } | null;
}

/** How many steps of one's own can be undone. */
const mostSteps = 200;

/** How long nothing is done before the steps are written, in milliseconds: they are large, and few of them are ever undone. */
const pause = 1000;

/** One's own steps in a draft, to be undone and redone; what somebody else has changed since stays as they left it. */
export class OwnSteps {
  private past: OwnStep[];
  private future: OwnStep[];
  /** What the last step was made from, and what it was part of: the next step of the same text joins it. */
  private last?: { before: Definition; joint?: string };
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly store: StepStore) {
    this.past = store.own?.past ?? [];
    this.future = store.own?.future ?? [];
  }

  get canUndo() {
    return this.past.length > 0;
  }

  get canRedo() {
    return this.future.length > 0;
  }

  /** A step that has just been made. */
  note(before: Definition, now: Definition) {
    const joint = jointOf(before, now);
    const joins = joint !== undefined && joint === this.last?.joint && this.canUndo;
    const from = joins ? this.last!.before : before;
    this.past = [...(joins ? this.past.slice(0, -1) : this.past), ownStep(from, now)].slice(-mostSteps);
    this.future = [];
    this.last = { before: from, joint };
    this.keepSoon();
  }

  /** What follows from the last step, and is undone with it. */
  amend(now: Definition) {
    if (this.last && this.canUndo) {
      this.past = [...this.past.slice(0, -1), ownStep(this.last.before, now)];
      this.keepSoon();
    }
  }

  /** The draft without the last step, and how much of that had to stay; undefined where there is none. */
  undo(draft: Definition) {
    const step = this.past.at(-1);
    if (!step) {
      return undefined;
    }
    this.past = this.past.slice(0, -1);
    this.future = [step, ...this.future];
    return this.stepped(draft, step);
  }

  /** The draft with the step again that was undone last. */
  redo(draft: Definition) {
    const [step, ...rest] = this.future;
    if (!step) {
      return undefined;
    }
    this.past = [...this.past, step];
    this.future = rest;
    return this.stepped(draft, { forth: step.back, back: step.forth });
  }

  /** Nothing before can be undone any more. */
  forget() {
    this.past = [];
    this.future = [];
    this.keepSoon();
  }

  /** Writes the steps at once. */
  keep = () => {
    if (this.timer !== undefined) {
      clearTimeout(this.timer);
      this.timer = undefined;
      this.store.own = { past: this.past, future: this.future };
    }
  };

  private stepped(draft: Definition, step: OwnStep) {
    this.last = undefined;
    this.keepSoon();
    return withoutStep(draft, step);
  }

  private keepSoon() {
    this.timer ??= setTimeout(this.keep, pause);
  }
}

const ownStep = (before: Definition, now: Definition): OwnStep => ({
  forth: between(before, now),
  back: between(now, before),
});

/** The draft without that step; what somebody else has changed since stays as they left it, and is counted. */
function withoutStep(draft: Definition, { forth, back }: OwnStep): { draft: Definition; kept: number } {
  const isUntouched = (key: string) => {
    const made = forth.edits.find((edit) => edit.key === key);
    const present = draft.rules.find((rule) => rule.key === key);
    return made?.isRemoved ? present === undefined : made?.rule ? isSame(made.rule, present) : present !== undefined;
  };
  const edits = back.edits.filter(({ key }) => isUntouched(key));
  // Of the record type all but what others made of the same parts since is undone.
  const undone = back.recordType && forth.recordType && mergeTypes(forth.recordType, back.recordType, draft.recordType);
  const isTypeUntouched = !undone?.collides;
  return {
    draft: after(draft, {
      edits,
      recordType: isTypeUntouched ? (undone?.merged ?? back.recordType) : null,
      examples: isTypeUntouched ? back.examples : null,
    }),
    kept: back.edits.length - edits.length + (isTypeUntouched ? 0 : 1),
  };
}

const texts: (keyof Rule)[] = ['name', 'reason'];

/** Which text of which rule is typed from one draft to the next; undefined where it is anything else. */
function jointOf(before: Definition, next: Definition): string | undefined {
  const [rule, ...others] = next.rules.filter((one, i) => one !== before.rules[i]);
  const old = before.rules.find(({ key }) => key === rule?.key);
  if (!rule || !old || others.length > 0 || before.rules.length !== next.rules.length || before.recordType !== next.recordType) {
    return undefined;
  }
  const differs = Object.keys({ ...old, ...rule }).filter((name) => old[name as keyof Rule] !== rule[name as keyof Rule]);
  return differs.length === 1 && texts.includes(differs[0] as keyof Rule) ? `${rule.key} ${differs[0]!}` : undefined;
}
