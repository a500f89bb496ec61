import type { CollisionView, Definition, DraftNews, DraftStep, DraftView, Rule } from '../../api/generated';
import type { Problem } from '../../api/client';
import { Pending } from '../../pending/pending';
import { Sending } from '../../pending/sending';
import type { Shelf } from '../../pending/shelf';
import { Turns } from '../../pending/turns';
import { baseOf, editsOf, mergeEdits, sameEdit, stepOf, type DraftEdit } from './draftEdits';
import { after, isSame, withKnown } from './steps';
import { OwnSteps, type StepStore } from './undo';

/** What a draft is stored with. */
export interface DraftServer {
  /** Makes a step; answers with all steps after the version that is known, that one among them. */
  make(step: DraftStep, known: number): Promise<DraftNews>;
  news(after: number): Promise<DraftNews>;
  read(): Promise<DraftView>;
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

/** How long an edit waits for the next one before it is sent, in milliseconds. */
const pause = 300;

/** Where the server has gone back, as to a copy of its data that was made before. */
const older: Problem = {
  status: 409,
  title: 'The draft on the server is older than the one that is open here.',
  detail: 'Load the page again. What was written here and is not there is kept at this browser until then',
};

/**
 * A draft that several administrators write at once. What is written here is pending as edits of single rules and sent by itself;
 * what the others wrote is taken over as it comes. Two edits of one rule wait for a choice; nothing is lost on the way.
 */
export class SharedDraft {
  private state: DraftState;
  private base: Definition;
  private readonly pending: Pending<DraftEdit>;
  private readonly steps: OwnSteps;
  private readonly turns = new Turns();
  private readonly sending = new Sending(
    () => this.send(),
    (problem) => this.tell({ problem }),
  );
  private readonly listeners = new Set<() => void>();

  constructor(
    view: DraftView,
    private readonly server: DraftServer,
    shelf: Shelf<DraftEdit>,
    store: StepStore,
  ) {
    this.base = view.definition;
    this.steps = new OwnSteps(store);
    const slot = shelf.slot();
    this.pending = new Pending(baseOf(view.definition, view.version), slot, sameEdit, mergeEdits);
    this.state = {
      definition: view.definition,
      version: view.version,
      edition: view.edition ?? null,
      isSaved: true,
      canUndo: this.steps.canUndo,
      canRedo: this.steps.canRedo,
      collisions: view.collisions,
      kept: 0,
      revisions: view.revisions,
    };
    // What was written before and never arrived goes on from what it was made on; others may have changed the same since.
    const before = shelf.others(slot.name);
    before.reverse().forEach(({ kept }) => this.pending.takeUp(kept.edits));
    if (before.length > 0) {
      this.goOn(view.definition, view.version);
      slot.flush();
      before.forEach((other) => shelf.remove(other.slot));
      this.sending.soon(pause);
    }
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  present = () => this.state;

  /** Takes in what was written here. */
  change = (definition: Definition) => {
    this.steps.note(this.state.definition, definition);
    this.write(definition);
  };

  /** Takes in what follows from the last step, and is undone with it. */
  amend = (rule: string, change: Partial<Rule>) => {
    const { definition } = this.state;
    const next = { ...definition, rules: definition.rules.map((one) => (one.key === rule ? { ...one, ...change } : one)) };
    this.steps.amend(next);
    this.write(next);
  };

  undo = () => this.step(this.steps.undo(this.state.definition));

  redo = () => this.step(this.steps.redo(this.state.definition));

  /** Takes over what others did; called when the server says that there is something. */
  pull = (): Promise<void> =>
    this.turns.take(async () => {
      try {
        await this.take(await this.server.news(this.state.version));
      } catch {
        // The next message, or the next edit, tries again.
      }
    });

  /** Everything that came of a choice between two versions. */
  settled = (news: DraftNews) => this.turns.take(() => this.take(news));

  /** The version to be published, once everything is stored; rejected where it cannot be. */
  async settle(): Promise<number> {
    await this.sending.now();
    if (!this.state.isSaved) {
      await this.sending.now();
    }
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
    this.steps.keep();
    return this.sending.close();
  }

  /** Writes what outlasts the window. */
  keep = () => this.steps.keep();

  private step(stepped: { draft: Definition; kept: number } | undefined) {
    if (stepped) {
      this.write(stepped.draft, stepped.kept);
    }
  }

  private write(definition: Definition, kept = 0) {
    this.pending.become(editsOf(this.base, definition));
    this.tell({ definition, kept, isSaved: false });
    this.sending.soon(pause);
  }

  /** Sends what the server does not have, until it has all. */
  private async send() {
    while (this.pending.all.size > 0) {
      await this.turns.take(async () => {
        const step = stepOf(this.pending.all);
        const sent = this.pending.sending([...this.pending.all.keys()]);
        await this.take(await this.server.make(step, this.state.version), sent);
      });
    }
    this.tell({ isSaved: true });
  }

  /**
   * Carries what is pending over to what the draft is now.
   * @param sent What this answers: it is stored, or waits beside the draft for a choice.
   */
  private async take(news: DraftNews, sent?: ReadonlyMap<string, DraftEdit>) {
    if (news.version < this.state.version) {
      throw older;
    }
    let { base } = this;
    let { version } = news;
    let revisions = { ...this.state.revisions };
    if (!news.steps) {
      const view = await this.server.read();
      ({ definition: base, version, revisions } = view);
    } else {
      for (const { step, version, by, at } of news.steps.filter((one) => one.version > this.state.version)) {
        base = after(base, step);
        step.edits.forEach(({ key }) => (revisions[key] = { version, by, at }));
      }
    }
    this.goOn(base, version, sent);
    this.tell({ revisions, collisions: news.collisions, edition: news.edition ?? null });
  }

  /** Puts what is pending upon another base. */
  private goOn(base: Definition, version: number, sent?: ReadonlyMap<string, DraftEdit>) {
    const { definition } = this.state;
    // What records have become by a publication cannot be taken back by undoing the edits that led to it.
    const isUsedUp = (base.recordType.reshaping ?? []).length < (this.base.recordType.reshaping ?? []).length;
    if (isUsedUp && !isSame(base.recordType, definition.recordType)) {
      this.steps.forget();
    }
    this.base = base;
    const then = baseOf(base, version);
    if (sent) {
      this.pending.arrived(sent, then, (key, edit) => sameEdit(then.value(key), edit));
    } else {
      this.pending.rebase(then);
    }
    const written = after(base, stepOf(this.pending.all));
    const next = withKnown(written, definition);
    this.pending.become(editsOf(base, next));
    const isOther =
      next.rules.length !== definition.rules.length ||
      next.rules.some((rule, i) => rule !== definition.rules[i]) ||
      next.recordType !== definition.recordType ||
      next.examples !== definition.examples;
    this.tell({ definition: isOther ? next : definition, version, isSaved: this.pending.all.size === 0 });
  }

  private tell(part: Partial<DraftState>) {
    this.state = { ...this.state, ...part, canUndo: this.steps.canUndo, canRedo: this.steps.canRedo };
    this.listeners.forEach((listener) => listener());
  }
}
