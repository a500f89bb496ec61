import type { Problem } from '../api/client';
import type { ListRow, Refusal, RowChange, RowOutcome } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import { storedBase, type OpenRecord } from '../engine/openRecord';
import { Pending } from '../pending/pending';
import { attempt, isPassing, isSignedOut, onBetter } from '../pending/retry';
import type { Shelf, Slot } from '../pending/shelf';
import { isSame } from '../pending/same';
import { newTicket } from '../pending/ticket';
import { Turns } from '../pending/turns';
import type { Stored } from '../records/filling';
import { collisionsOf, type Collision, type Meanwhile } from '../records/meanwhile';

/** A row that is being typed into, or whose save was refused. */
export interface OpenRow {
  record: OpenRecord;
  pending: Pending<Value>;
  slot: Slot<Value>;
  /** Key of the form through which it is typed into. */
  form: string | null;
  version: number;
  /** Comes once the engine has it, or cannot have it. */
  live: Promise<void>;
  /** Number of the edition under which it is typed into. */
  edition: number;
  /** Why it was not saved, by field; under the empty key what is about no field. */
  refusals: Record<string, string>;
  /** What somebody else changed as well: one of the two has to be chosen, on the record's page. */
  collisions: Collision[];
  /** Whether it was not saved as the server could not be reached: it is tried again when that may be otherwise. */
  isWaiting: boolean;
  /** Whether it is being saved: nobody types into it meanwhile. */
  isSaving: boolean;
  /** What was sent last, and may have been done though nobody answered. */
  unanswered?: { request: RowChange; ticket?: string };
}

/** A row that was saved upon what somebody else had saved meanwhile. */
export interface Met {
  id: number;
  meanwhile: Meanwhile;
}

/** What is so of the rows under a person's hands, at one moment. */
export interface EditedState {
  /** By the record's number. */
  rows: ReadonlyMap<number, OpenRow>;
  /** Why a row could not be opened. */
  problem?: string;
  met?: Met;
}

/** What the rows of a list are stored with. */
export interface RowServer {
  /** The record as a list sees it, through one of its forms. */
  read(id: number, form: string | null): Promise<Stored>;
  change(row: RowChange): Promise<RowOutcome | undefined>;
  /** What was saved of a record after that version. */
  since(id: number, version: number): Promise<Meanwhile>;
}

/** How rows are opened. */
export interface RowOpening {
  server: RowServer;
  shelf(id: number): Shelf<Value>;
  open(stored: Stored, pending: Pending<Value>): { record: OpenRecord; live: Promise<void> };
  /** A row was saved, in the place of what the outcome says. */
  onSaved(request: RowChange, outcome: RowOutcome): void;
}

/** How long a row that is left waits for the engine, in milliseconds. */
const mostWait = 5000;

/** How often a row that others keep saving is saved again. */
const mostTries = 5;

/** The rows of a list under a person's hands: each is opened when it is typed into, and saved when it is left. */
export class EditedRows {
  private state: EditedState = { rows: new Map() };
  private readonly turns = new Map<number, Turns>();
  private readonly listeners = new Set<() => void>();
  private stopListening?: () => void;

  constructor(private readonly by: RowOpening) {}

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  present = () => this.state;

  /**
   * Opens a row through one of the record's forms, with fields that are changed at once. Where it is open through another form
   * that is saved first; false where it could not be.
   */
  open = (id: number, form: string | null, typed: Values = {}) =>
    this.inTurn(id, async () => {
      this.stopListening ??= onBetter(() => this.tryAgain());
      this.tell({ problem: undefined });
      if (this.row(id) && this.row(id)?.form !== form) {
        await this.leaveNow(id);
      }
      let row = this.row(id);
      if (!row) {
        try {
          const stored = await attempt(() => this.by.server.read(id, form));
          const slot = this.by.shelf(id).slot();
          const pending = new Pending(storedBase(stored.view), slot);
          row = { ...this.opened(stored, pending), pending, slot, form, ...unrefused };
        } catch (failure) {
          const { title, detail } = failure as Problem;
          this.tell({ problem: `No. ${id} cannot be opened: ${title} ${detail}` });
          return false;
        }
        this.put(id, row);
      }
      Object.entries(typed).forEach(([field, value]) => row.record.change(field, value));
      return row.form === form;
    });

  /** Saves a row that is left, and answers with it; where that is refused it stays open with all reasons. */
  leave = (id: number) => this.inTurn(id, () => this.leaveNow(id));

  /** Takes rows that are open over to the edition that is in force, with all that was typed into them. */
  renew = (edition: number) =>
    [...this.state.rows.keys()].forEach(
      (id) =>
        void this.inTurn(id, async () => {
          const row = this.row(id);
          if (row && row.edition !== edition) {
            // Where it cannot be read it stays under the one before, and is judged by the server all the same.
            await this.reopen(id, row).catch(() => undefined);
          }
        }),
    );

  /** Takes back what was typed into a row. */
  takeBack = (id: number) =>
    this.inTurn(id, () => {
      this.row(id)?.pending.takeBack();
      this.put(id, undefined);
    });

  /** The list is left: rows are saved, and what cannot be is kept on the shelf. */
  close = () => {
    this.stopListening?.();
    this.stopListening = undefined;
    // Whoever goes on to the record finds there at once what was typed.
    this.state.rows.forEach(({ slot }) => slot.flush());
    [...this.state.rows.keys()].forEach((id) => void this.leave(id).finally(() => this.put(id, undefined)));
  };

  private async leaveNow(id: number): Promise<ListRow | undefined> {
    const row = this.row(id);
    if (!row) {
      return undefined;
    }
    if (Object.keys(row.record.unsaved()).length === 0) {
      row.pending.takeBack();
      this.put(id, undefined);
      return undefined;
    }
    if (row.pending.collisions().length > 0) {
      // Nothing is saved over what others did before one has chosen.
      return undefined;
    }
    this.put(id, { ...row, ...unrefused, isSaving: true });
    try {
      return await this.save(id);
    } catch (failure) {
      const problem = failure as Problem;
      this.refuse(id, {
        refusals: { '': `${problem.title} ${problem.detail}` },
        isWaiting: isPassing(problem) || isSignedOut(problem),
      });
      return undefined;
    }
  }

  private async save(id: number): Promise<ListRow | undefined> {
    let met: Met | undefined;
    for (let tries = 0; ; tries++) {
      const row = this.row(id)!;
      // Only the engine knows what is set aside; where it takes long the server judges all that was typed.
      await Promise.race([row.live, new Promise((resolve) => setTimeout(resolve, mostWait))]);
      const { changes } = await row.record.changes();
      if (Object.keys(changes).length === 0) {
        // All of it is set aside: it stays on the shelf.
        this.put(id, undefined);
        return undefined;
      }
      const sent = row.pending.sending(Object.keys(changes));
      const request = { id, version: row.version, changes, form: row.form, move: null };
      const ticket = isSame(row.unanswered?.request, request) ? row.unanswered?.ticket : newTicket();
      this.put(id, { ...row, unanswered: { request, ticket } });
      const outcome = await attempt(() => this.by.server.change({ ...request, ticket }));
      if (outcome?.row) {
        // What was set aside is not saved: it is offered on the record's page.
        row.pending.arrived(sent, {
          version: outcome.row.version,
          value: (field) => sent.get(field) ?? row.pending.all.get(field)?.base ?? null,
        });
        this.by.onSaved(request, outcome);
        this.put(id, undefined);
        this.tell({ met });
        return outcome.row;
      }
      if (!outcome?.version || tries >= mostTries) {
        this.refuse(id, { refusals: byField(outcome?.problem ?? '', outcome?.refusals ?? []) });
        return undefined;
      }
      // Somebody has saved it: where that collides with nothing typed the row goes on upon it.
      const meanwhile = await this.by.server.since(id, row.version);
      await this.reopen(id, row);
      const collisions = collisionsOf(meanwhile, row.pending.collisions());
      if (collisions.length > 0) {
        this.refuse(id, { collisions });
        return undefined;
      }
      met = { id, meanwhile };
    }
  }

  /** Opens a row anew upon what is stored by now, with what was typed into it. */
  private async reopen(id: number, row: OpenRow) {
    const stored = await this.by.server.read(id, row.form);
    row.pending.rebase(storedBase(stored.view));
    row.record.close();
    this.put(id, { ...row, ...this.opened(stored, row.pending) });
  }

  private opened(stored: Stored, pending: Pending<Value>) {
    const { version, edition } = stored.view;
    return { ...this.by.open(stored, pending), version, edition };
  }

  private refuse(id: number, part: Partial<OpenRow>) {
    const row = this.row(id);
    if (row) {
      this.put(id, { ...row, isSaving: false, ...part });
    }
  }

  private tryAgain() {
    [...this.state.rows].filter(([, row]) => row.isWaiting).forEach(([id]) => void this.leave(id));
  }

  private row(id: number): OpenRow | undefined {
    return this.state.rows.get(id);
  }

  /** Puts a row in place of what was known of it; undefined closes it, and what is pending in it stays on the shelf. */
  private put(id: number, row: OpenRow | undefined) {
    const rows = new Map(this.state.rows);
    if (row) {
      rows.set(id, row);
    } else {
      rows.get(id)?.record.close();
      rows.get(id)?.slot.flush();
      rows.delete(id);
    }
    this.tell({ rows });
  }

  /** Does one thing after the other to a row. */
  private inTurn<T>(id: number, act: () => T | Promise<T>): Promise<T> {
    let turns = this.turns.get(id);
    if (!turns) {
      this.turns.set(id, (turns = new Turns()));
    }
    return turns.take(act);
  }

  private tell(part: Partial<EditedState>) {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

const unrefused = { refusals: {}, collisions: [], isWaiting: false, isSaving: false };

const byField = (problem: string, refusals: Refusal[]) =>
  refusals.length > 0 ? Object.fromEntries(refusals.map(({ field, message }) => [field ?? '', message])) : { '': problem };
