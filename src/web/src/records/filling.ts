import type { Problem } from '../api/client';
import type { RecordType, RecordView } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import { storedBase, type OpenRecord } from '../engine/openRecord';
import type { Edit } from '../pending/edit';
import { Pending } from '../pending/pending';
import { attempt } from '../pending/retry';
import { isSame } from '../pending/same';
import type { Kept, Shelf } from '../pending/shelf';
import { newTicket } from '../pending/ticket';
import { Turns } from '../pending/turns';
import { byOthers, collisionsOf, isNothing, type Collision, type Meanwhile } from './meanwhile';
import { seen, type Seen } from './states';

/** A record as it is stored, and the rules under which it is shown. */
export interface Stored {
  type: RecordType;
  view: RecordView;
}

/** What a record is stored with. */
export interface RecordServer {
  /** The record on that form, or where that does not apply any more on the first that does; a new one in that workflow. */
  read(form: string | undefined, workflow: string): Promise<Stored>;
  /** Saves once, however often it is asked to with the same ticket. */
  save(changes: Values, upon: RecordView, move: string | undefined, ticket: string | undefined): Promise<Stored>;
  /** What was saved after that version. */
  since(version: number): Promise<Meanwhile>;
}

/** What became different without this person's doing, to be told in a line or two. */
export interface News {
  /** Number of the edition that came into force; undefined where none did. */
  edition?: number;
  /** What was seen of the record before. */
  before: Seen;
  meanwhile?: Meanwhile;
}

/** Both this person and others have changed something: what to go on with has to be chosen. What collides with nothing is taken over already. */
export interface Choosing {
  meanwhile: Meanwhile;
  collisions: Collision[];
}

/** What was typed at another time, or in another window, and never saved. */
export interface Offer {
  slot: string;
  kept: Kept<Value>;
}

/** What is so of a record that is being filled in, at one moment. */
export interface FillingState extends Stored {
  record: OpenRecord;
  offered: Offer[];
  choosing?: Choosing;
  news?: News;
  refused?: { problem: Problem; at: Values };
  isSaving: boolean;
}

/** How somebody opens a record. */
export interface Opening {
  /** Account name. */
  person: string;
  server: RecordServer;
  shelf: Shelf<Value>;
  open(stored: Stored, pending: Pending<Value>): OpenRecord;
  /** The slot with what is to be taken up without asking: it was typed a moment ago, before the record was begun. */
  handed?: string;
}

/**
 * A record being filled in by one person. What is typed outlasts everything but its being saved: other forms of the record, other
 * editions, saves of other people, and, on the shelf, the window itself. Reading, saving and taking over go one after the other.
 */
export class Filling {
  private state: FillingState;
  private readonly pending: Pending<Value>;
  private readonly slot;
  private readonly turns = new Turns();
  /** What was sent last, and may have been done though nobody answered. */
  private unanswered?: { request: unknown; ticket?: string };
  private isClosed = false;
  private readonly listeners = new Set<() => void>();

  constructor(
    first: Stored,
    private readonly by: Opening,
  ) {
    this.slot = by.shelf.slot();
    this.pending = new Pending(storedBase(first.view), this.slot);
    const kept = by.shelf.others(this.slot.name);
    const handed = kept.find(({ slot }) => slot === by.handed);
    if (handed) {
      this.pending.takeUp(handed.kept.edits);
      by.shelf.remove(handed.slot);
    }
    this.state = {
      ...first,
      record: by.open(first, this.pending),
      offered: kept.filter((one) => one !== handed),
      isSaving: false,
    };
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  present = () => this.state;

  /** Looks at the record again, on another form or in another workflow as well. What others did is taken over where it collides with nothing, and told. */
  look = (form?: string, workflow?: string) =>
    this.turns.take(async () => {
      const { view } = this.state;
      const next = await this.by.server.read(form ?? view.form, workflow ?? view.setting.workflow);
      const isAsBefore =
        next.view.version === view.version &&
        next.view.edition === view.edition &&
        next.view.form === view.form &&
        next.view.setting.workflow === view.setting.workflow;
      if (!isAsBefore && next.view.version >= view.version) {
        await this.goOn(next);
      }
    });

  /** Saves what was changed here, with a move if one is given; answers with what is stored then. A refusal is kept, and nothing typed goes. */
  save = (move?: string): Promise<Stored | undefined> => this.turns.take(() => this.saveNow(move));

  /** Goes on with what was chosen: for those fields what others saved, for all others what was typed here. */
  choose = (theirs: string[]) => {
    this.pending.collisions().forEach(({ key }) => this.pending.choose(key, theirs.includes(key) ? 'theirs' : 'mine'));
    this.tell({ choosing: undefined });
  };

  /** Puts in again what was typed at another time. Where others have changed the same since, one of the two is chosen. */
  takeUp = ({ slot, kept }: Offer) =>
    this.turns.take(async () => {
      if (this.isClosed) {
        // It is left on the shelf, for whoever opens the record next.
        return;
      }
      const { type } = this.state;
      const known = kept.edits.filter(([key]) => type.fields.some((field) => field.key === key));
      this.pending.takeUp(known);
      this.throwAway(slot);
      this.slot.flush();
      if (this.pending.collisions().length > 0) {
        const meanwhile = await this.by.server.since(Math.min(...known.map(([, { since }]) => since)));
        this.tell({ choosing: this.choosing(meanwhile) });
      }
    });

  throwAway = (slot: string) => {
    this.by.shelf.remove(slot);
    this.tell({ offered: this.state.offered.filter((one) => one.slot !== slot) });
  };

  /** Forgets what is typed, so that nothing is offered again. */
  forget = () => {
    this.state.record.untry();
    this.slot.flush();
  };

  /** What is typed and not saved by now, with what it was made on. */
  get left(): ReadonlyMap<string, Edit<Value>> {
    return this.pending.all;
  }

  /** The record is left: what is typed stays on the shelf. */
  close = () => {
    this.isClosed = true;
    this.slot.flush();
    this.state.record.close();
  };

  private async saveNow(move: string | undefined): Promise<Stored | undefined> {
    const { record, view } = this.state;
    if (this.pending.collisions().length > 0) {
      return undefined;
    }
    this.tell({ isSaving: true, refused: undefined });
    try {
      const { changes } = await record.changes();
      const sent = this.pending.sending(Object.keys(changes));
      const request = { changes, move, version: view.version, form: view.form };
      const ticket = isSame(this.unanswered?.request, request) ? this.unanswered?.ticket : newTicket();
      this.unanswered = { request, ticket };
      const stored = await attempt(() => this.by.server.save(changes, view, move, ticket));
      this.unanswered = undefined;
      // What is set aside, belongs to another form or was typed while the server answered is not saved: it stays typed.
      this.pending.arrived(sent, storedBase(stored.view));
      this.slot.flush();
      this.become(stored, { news: undefined, choosing: undefined });
      return stored;
    } catch (refusal) {
      await this.refuse(refusal as Problem);
      return undefined;
    } finally {
      this.tell({ isSaving: false });
    }
  }

  private async refuse(problem: Problem) {
    const { record, view } = this.state;
    if (problem.version === undefined) {
      const at = Object.fromEntries((problem.refusals ?? []).map(({ field }) => [field ?? '', record.value(field ?? '')]));
      this.tell({ refused: { problem, at } });
      return;
    }
    try {
      await this.goOn(await this.by.server.read(view.form, view.setting.workflow), true);
    } catch (failure) {
      this.tell({ refused: { problem: failure as Problem, at: {} } });
    }
  }

  /**
   * Goes on upon the record as it is stored by now.
   * @param isStopped Whether a save was stopped by it: then what others did is told where one has to look before one saves again.
   */
  private async goOn(next: Stored, isStopped = false) {
    const { type, record, view } = this.state;
    const isSaved = next.view.version !== view.version;
    const isOther = next.view.edition !== view.edition;
    const meanwhile = isSaved ? await this.by.server.since(view.version) : undefined;
    // From here on nothing is waited for: whatever was typed until now goes along.
    const before = seen(type, record);
    this.pending.rebase(storedBase(next.view));
    const isTold = isOther || (meanwhile && !isNothing(meanwhile));
    const choosing = meanwhile && (isStopped || this.pending.collisions().length > 0) ? this.choosing(meanwhile) : undefined;
    this.become(next, {
      choosing,
      news: isTold && !choosing ? { edition: isOther ? next.view.edition : undefined, before, meanwhile } : this.state.news,
    });
  }

  private choosing(meanwhile: Meanwhile): Choosing | undefined {
    const collisions = collisionsOf(meanwhile, this.pending.collisions());
    return collisions.length > 0 || !isNothing(byOthers(meanwhile, this.by.person)) ? { meanwhile, collisions } : undefined;
  }

  private become(stored: Stored, part: Partial<FillingState>) {
    this.state.record.close();
    this.tell({ ...stored, ...part, refused: undefined, record: this.by.open(stored, this.pending) });
  }

  private tell(part: Partial<FillingState>) {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
