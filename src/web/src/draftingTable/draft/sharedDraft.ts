import type {
  CollisionView,
  Definition,
  DraftNews,
  DraftStep,
  DraftStepMade,
  DraftView,
  Rule,
  RuleEdit,
} from '../../api/generated';
import type { Problem } from '../../api/client';
import { after, between, isEmpty, isSame, withKnown } from './steps';
import { ownStep, reversed, withoutStep, type OwnStep } from './undo';

/** What a draft is stored with. */
export interface DraftServer {
  make(step: DraftStep): Promise<DraftStepMade>;
  news(after: number): Promise<DraftNews>;
  read(): Promise<DraftView>;
}

/** Where what the server does not have yet outlasts the page, and one's own steps outlast a reload. */
export interface Shelf {
  unsent: DraftStep | null;
  own: { past: OwnStep[]; future: OwnStep[] } | null;
}

/** What is so of a draft at one moment. */
export interface DraftState {
  definition: Definition;
  version: number;
  edition: number | null;
  isSaved: boolean;
  canUndo: boolean;
  canRedo: boolean;
  /** Why it is not saved. */
  problem?: Problem;
  /** Edits that came too late and wait for a choice. */
  collisions: CollisionView[];
  /** What an undoing had to leave as it was. */
  kept: number;
  /** Who changed each rule last, by its key. */
  revisions: DraftView['revisions'];
}

/** How long an edit waits for the next one before it is sent, and how long until a failed sending is tried again, in milliseconds. */
const pause = 300;
const patience = 3000;

/** How many steps of one's own can be undone. */
const mostSteps = 200;

/**
 * A draft that several administrators write at once. What is written here is sent as edits of single rules; what the others
 * wrote is taken over as it comes. Two edits of one rule wait for a choice; nothing is lost on the way.
 */
export class SharedDraft {
  private state: DraftState;
  private base: Definition;
  private typeRevision: number;
  private past: OwnStep[];
  private future: OwnStep[];
  /** What the last step was made from, and what it was part of: the next step of the same text joins it. */
  private last?: { before: Definition; joint?: string };
  /** For rules that somebody else changed while an edit of one's own had not been sent: what version that edit was made knowing. */
  private readonly known = new Map<string, number>();
  /** What was sent last, arrived or not. */
  private lastSent?: DraftStep;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: Promise<void> | undefined;
  private isClosed = false;
  private readonly listeners = new Set<() => void>();

  constructor(
    view: DraftView,
    private readonly server: DraftServer,
    private readonly shelf: Shelf,
  ) {
    this.base = view.definition;
    this.typeRevision = view.typeRevision;
    this.past = shelf.own?.past ?? [];
    this.future = shelf.own?.future ?? [];
    const definition = shelf.unsent ? after(view.definition, shelf.unsent) : view.definition;
    this.state = {
      definition,
      version: view.version,
      edition: view.edition ?? null,
      isSaved: definition === view.definition,
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
      collisions: view.collisions,
      kept: 0,
      revisions: view.revisions,
    };
    if (!this.state.isSaved) {
      this.plan(pause);
    }
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  present = () => this.state;

  /** Takes in what was written here. */
  change = (definition: Definition) => {
    const before = this.state.definition;
    const joint = jointOf(before, definition);
    const joins = joint !== undefined && joint === this.last?.joint && this.past.length > 0;
    const from = joins ? this.last!.before : before;
    this.past = [...(joins ? this.past.slice(0, -1) : this.past), ownStep(from, definition)].slice(-mostSteps);
    this.future = [];
    this.last = { before: from, joint };
    this.write(definition);
  };

  /** Takes in what follows from the last step, and is undone with it. */
  amend = (rule: string, change: Partial<Rule>) => {
    const { definition } = this.state;
    const next = { ...definition, rules: definition.rules.map((one) => (one.key === rule ? { ...one, ...change } : one)) };
    if (this.last && this.past.length > 0) {
      this.past = [...this.past.slice(0, -1), ownStep(this.last.before, next)];
    }
    this.write(next);
  };

  undo = () => {
    const step = this.past.at(-1);
    if (step) {
      const { draft, kept } = withoutStep(this.state.definition, step);
      this.past = this.past.slice(0, -1);
      this.future = [step, ...this.future];
      this.last = undefined;
      this.write(draft, kept);
    }
  };

  redo = () => {
    const [step, ...rest] = this.future;
    if (step) {
      const { draft, kept } = withoutStep(this.state.definition, reversed(step));
      this.past = [...this.past, step];
      this.future = rest;
      this.last = undefined;
      this.write(draft, kept);
    }
  };

  /** Takes over what others did; called when the server says that there is something. */
  pull = async () => {
    try {
      this.take(await this.server.news(this.state.version));
    } catch {
      // The next message, or the next edit, tries again.
    }
  };

  /** Everything that came of a choice between two versions. */
  settled = (made: DraftStepMade) => {
    this.tell({ collisions: made.collisions });
    return this.pull();
  };

  /** The version to be published, once everything is stored; rejected where it cannot be. */
  async settle(): Promise<number> {
    clearTimeout(this.timer);
    await this.send();
    if (!this.state.isSaved) {
      throw this.state.problem ?? new Error();
    }
    return this.state.version;
  }

  /** Takes over what publishing did to the draft: what records have become it no longer asks for. */
  published(edition: number) {
    this.tell({ edition });
    return this.pull();
  }

  /** Sends what waits, and nothing after. */
  close(): Promise<void> {
    clearTimeout(this.timer);
    return this.send().finally(() => {
      this.isClosed = true;
      clearTimeout(this.timer);
    });
  }

  private write(definition: Definition, kept = 0) {
    this.tell({ definition, kept, isSaved: false });
    this.keep();
    this.plan(pause);
  }

  private pending(): DraftStep {
    return between(
      this.base,
      this.state.definition,
      (key) => this.known.get(key) ?? this.state.revisions[key]?.version ?? 0,
      this.typeRevision,
    );
  }

  private plan(delay: number) {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), delay);
  }

  /** Sends what the server does not have, again and again until it has all. One sending at a time. */
  private send(): Promise<void> {
    this.running ??= this.sendAll().finally(() => (this.running = undefined));
    return this.running;
  }

  private async sendAll() {
    for (let step = this.pending(); !isEmpty(step) && !this.isClosed; step = this.pending()) {
      try {
        this.lastSent = step;
        await this.server.make(step);
        this.take(await this.server.news(this.state.version), step);
        this.tell({ problem: undefined });
      } catch (refusal) {
        this.tell({ problem: refusal as Problem });
        this.plan(patience);
        return;
      }
    }
    this.tell({ isSaved: isEmpty(this.pending()), problem: undefined });
    this.keep();
  }

  /** Carries what is not stored yet over to what the draft is now. What was sent is stored, or waits beside the draft for a choice. */
  private take(news: DraftNews, sent?: DraftStep) {
    if (news.steps === null) {
      void this.server.read().then((view) => this.rebase(view.definition, view.version, view.revisions, view.typeRevision));
    } else {
      const fresh = news.steps.filter(({ version }) => version > this.state.version);
      const revisions = { ...this.state.revisions };
      let { typeRevision } = this;
      let base = this.base;
      const own = new Set(between(this.base, this.state.definition).edits.map(({ key }) => key));
      for (const { step, version, by, at } of fresh) {
        base = after(base, step);
        step.edits.filter(({ key }) => own.has(key)).forEach((edit) => this.note(edit, revisions));
        step.edits.forEach(({ key }) => (revisions[key] = { version, by, at }));
        typeRevision = step.recordType ? version : typeRevision;
      }
      this.rebase(base, news.version, revisions, typeRevision, sent);
    }
    this.tell({ collisions: news.collisions, edition: news.edition ?? null });
  }

  /** Notes of a rule with an edit of one's own what that edit was made knowing, unless the change that comes is one's own as well. */
  private note(edit: RuleEdit, revisions: DraftView['revisions']) {
    if (this.lastSent?.edits.some(({ key, rule }) => key === edit.key && isSame(rule, edit.rule))) {
      this.known.delete(edit.key);
    } else if (!this.known.has(edit.key)) {
      this.known.set(edit.key, revisions[edit.key]?.version ?? 0);
    }
  }

  private rebase(base: Definition, version: number, revisions: DraftView['revisions'], typeRevision: number, sent?: DraftStep) {
    const { definition } = this.state;
    // What the server fills in of a rule is no edit of one's own.
    const isSent = (edit: RuleEdit) =>
      sent?.edits.some((one) => one.key === edit.key && isSame({ ...one, base: 0 }, { ...edit, base: 0 }));
    const own = between(this.base, definition);
    const written = after(base, {
      edits: own.edits.filter((edit) => !isSent(edit)),
      recordType: isSame(own.recordType, sent?.recordType) ? null : own.recordType,
      examples: isSame(own.examples, sent?.examples) ? null : own.examples,
    });
    const open = new Set(own.edits.filter((edit) => !isSent(edit)).map(({ key }) => key));
    [...this.known.keys()].filter((key) => !open.has(key)).forEach((key) => this.known.delete(key));
    // What records have become by a publication cannot be taken back by undoing the edits that led to it.
    if ((base.recordType.reshaping ?? []).length < (this.base.recordType.reshaping ?? []).length && !this.isOwn(base)) {
      this.past = [];
      this.future = [];
    }
    this.base = base;
    this.typeRevision = typeRevision;
    const next = withKnown(written, definition);
    const isOther =
      !isSame(
        next.rules.map(({ key }) => key),
        definition.rules.map(({ key }) => key),
      ) ||
      next.rules.some((rule, i) => rule !== definition.rules[i]) ||
      next.recordType !== definition.recordType ||
      next.examples !== definition.examples;
    this.tell({ definition: isOther ? next : definition, version, revisions, isSaved: isEmpty(this.pendingOf(next)) });
    this.keep();
  }

  /** Whether the record type that comes is what was written here. */
  private isOwn = (base: Definition) => isSame(base.recordType, this.state.definition.recordType);

  private pendingOf = (definition: Definition) => between(this.base, definition);

  private keep() {
    const step = this.pending();
    this.shelf.unsent = isEmpty(step) ? null : step;
    this.shelf.own = { past: this.past, future: this.future };
  }

  private tell(part: Partial<DraftState>) {
    this.state = { ...this.state, ...part, canUndo: this.past.length > 0, canRedo: this.future.length > 0 };
    this.listeners.forEach((listener) => listener());
  }
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
