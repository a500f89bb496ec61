import type { Element, ElementExplanation, ElementKind, LinkedRecord, RecordType, Setting } from '../api/generated';
import { Pending } from '../pending/pending';
import type { Base } from '../pending/edit';
import type { Changes, Delta, Foresight, Opened, Value, Values } from './answers';
import { DrawnRecord } from './drawnRecord';
import type { Engine } from './engine';

/** A record as the server gives it, to begin with. */
export interface RecordSource {
  recordType: string;
  form: string;
  forms: string[];
  values: object;
  setting: Setting;
  linked: LinkedRecord[];
  states: { element: Element; bits: number }[];
}

/** What is stored of a record, as what is typed into it is made on it. */
export const storedBase = ({ values, version = 0 }: { values: object; version?: number }): Base<Value> => ({
  version,
  value: (field) => ((values as Values)[field] as Value | undefined) ?? null,
});

/** What was typed into something that is never stored. */
export function trialOf(source: RecordSource, typed: Values = {}): Pending<Value> {
  const pending = new Pending(storedBase(source));
  Object.entries(typed).forEach(([field, value]) => pending.type(field, value));
  return pending;
}

/**
 * A record open on a form, to be typed into. It begins with what the server
 * says and becomes live when the engine has opened it. What is typed is pending, stands in its field at once, and stays there
 * whatever happens to the engine; what anything means is decided elsewhere. Pending edits outlive it: the next one that is opened on
 * them, upon what is stored by then, has them all.
 */
export class OpenRecord extends DrawnRecord {
  readonly recordType: string;
  private readonly numbers = new Map<string, number>();
  /** What was typed and is not answered yet, or cannot be held: it stands in its field whatever the engine says. */
  private readonly standing = new Map<string, { value: Value; change: number }>();
  /** Fields into which somebody types at this moment. */
  private readonly begun = new Set<string>();
  private lastChange = 0;
  private session?: { id: number; generation: number };
  private source?: () => Promise<number>;
  private isClosed = false;
  private stopListening?: () => void;
  private stopHearing?: () => void;

  constructor(
    private readonly engine: Engine,
    type: RecordType,
    private given: RecordSource,
    private readonly pending: Pending<Value> = trialOf(given),
    private readonly followsForms = true,
  ) {
    super(type, given.states, new Map(Object.entries(given.values) as [string, Value][]), given.forms);
    this.recordType = given.recordType;
    pending.all.forEach((_, field) => this.hold(field));
    this.summarise({ changed: pending.all.size });
    this.listen();
  }

  get setting() {
    return this.given.setting;
  }

  /** Whether a move leads on from the stage that it is in: where none does, nothing is needed to move on. */
  get leadsOn(): boolean {
    const { workflow, stage } = this.setting;
    return this.type.workflows.find(({ key }) => key === workflow)?.moves.some(({ from }) => from === stage) ?? true;
  }

  /** What was typed and not taken back, by field. */
  get trial(): ReadonlyMap<string, Value> {
    return new Map([...this.pending.all].map(([field, { value }]) => [field, value]));
  }

  /** What was typed and is not what is saved, by field. */
  unsaved(): Values {
    return this.pending.unsaved();
  }

  /** What a linked record is called; undefined for one that is not known here. */
  titleOf(recordType: string, number: number | null): string | undefined {
    return this.given.linked.find((one) => one.recordType === recordType && one.number === number)?.title;
  }

  override value(field: string): Value {
    const standing = this.standing.get(field);
    return standing ? standing.value : super.value(field);
  }

  // What is done to it.

  /** Takes in a value, or a text that a person has typed to its end: the engine reads it. */
  change(field: string, value: Value) {
    this.begun.delete(field);
    this.pending.type(field, value);
  }

  /** Takes in what a person has typed so far: it counts as soon as it can be read, and nothing is said of it before. */
  typing(field: string, text: string) {
    this.begun.add(field);
    this.pending.type(field, text.trim() === '' ? null : text);
  }

  /** Takes everything back that was typed. */
  untry() {
    this.pending.takeBack();
    this.topics.touch('any');
    this.tell();
  }

  /** Takes in records to which a link leads, so that rules can look at them. */
  know(linked: LinkedRecord[]) {
    this.given = { ...this.given, linked: [...this.given.linked, ...linked] };
    this.ask((session) => this.engine.ask('know', session, linked));
  }

  /** Puts the record into another setting. */
  enter(setting: Setting) {
    this.given = { ...this.given, setting };
    this.ask((session) => this.engine.ask('enter', session, setting));
  }

  /** Opens the record in the engine, under the program that comes; again by itself whenever the engine has died. */
  open(source: () => Promise<number>) {
    this.source = source;
    this.isClosed = false;
    this.stopListening ??= this.engine.onDeath(() => this.lost());
    this.listen();
    return this.reopen();
  }

  /** Number of its session, for those who carry it over to other rules. */
  get sessionId(): number | undefined {
    return this.session?.generation === this.engine.generation ? this.session.id : undefined;
  }

  /** Takes over what is different under other rules. */
  rebased(delta: Delta) {
    this.cases = [];
    this.topics.starting('rule:').forEach((topic) => this.topics.touch(topic));
    this.followMarked(delta);
  }

  close() {
    this.isClosed = true;
    this.stopListening?.();
    this.stopListening = undefined;
    this.stopHearing?.();
    this.stopHearing = undefined;
    if (this.sessionId !== undefined) {
      void this.engine.ask('closeSession', this.sessionId).catch(() => undefined);
    }
    this.session = undefined;
  }

  // What is asked of the engine.

  /** The changes that count now, to be sent to the server, and those that wait. What no engine knows is sent as it was typed. */
  async changes(): Promise<Changes> {
    const session = this.sessionId;
    const known =
      session === undefined
        ? { changes: this.unsaved(), setAside: {} }
        : await this.engine.ask('changes', session).catch(() => ({ changes: this.unsaved(), setAside: {} }));
    // What a field cannot hold goes along, so that nobody takes it for saved.
    this.standing.forEach(({ value }, field) => (known.changes[field] = value));
    return known;
  }

  /** What would come of each move that is this person's to make, and how far each form is; null where only the server knows. */
  outlook(): Promise<Foresight | null> {
    return this.sessionId === undefined ? Promise.resolve(null) : this.engine.ask('outlook', this.sessionId).catch(() => null);
  }

  async explain(kind: ElementKind, key: string): Promise<ElementExplanation | null> {
    const number = this.numbers.get(`${kind}:${key}`);
    return this.sessionId === undefined || number === undefined
      ? null
      : this.engine.ask('explain', this.sessionId, number).catch(() => null);
  }

  clauses(rule: number) {
    return this.sessionId === undefined ? Promise.resolve([]) : this.engine.ask('clauses', this.sessionId, rule).catch(() => []);
  }

  private listen() {
    this.stopHearing ??= this.pending.onEdit((field) => this.hear(field));
  }

  /** An edit is made, or taken back, here or wherever else the record is open. */
  private hear(field: string) {
    const { value, change } = this.hold(field);
    this.touch(`field:${field}`);
    if (this.session) {
      this.send(field, value, change);
    } else {
      this.summarise({ changed: this.pending.all.size });
    }
    this.tell();
  }

  private hold(field: string) {
    const stored = ((this.given.values as Values)[field] as Value | undefined) ?? null;
    const held = { value: this.pending.get(field) ?? (this.pending.all.has(field) ? null : stored), change: ++this.lastChange };
    this.standing.set(field, held);
    return held;
  }

  private async reopen() {
    const { generation } = this.engine;
    const { values, setting, linked, form } = this.given;
    try {
      const program = await this.source!();
      const numbered = [...this.pending.all].map(([field, { value }]): [number, Value] => [
        this.type.fields.findIndex(({ key }) => key === field),
        value,
      ]);
      const until = this.lastChange;
      const opened = await this.engine.ask(
        'open',
        program,
        { form, values: values as Values, setting, linked, followsForms: this.followsForms },
        numbered.filter(([number]) => number >= 0),
      );
      if (generation !== this.engine.generation) {
        return;
      }
      if (this.isClosed) {
        // Nobody has it open any more.
        void this.engine.ask('closeSession', opened.session).catch(() => undefined);
        return;
      }
      this.opened(opened, generation, until);
      if (this.given.setting !== setting) {
        this.enter(this.given.setting);
      }
    } catch {
      // Dead again, or nothing to open it with: what was typed stands, and the server judges it.
    }
  }

  private opened({ session, elements, all, unheld, read }: Opened, generation: number, until: number) {
    this.session = { id: session, generation };
    elements.forEach(({ number, kind, key }) => {
      this.elements[number] = `${kind}:${key}`;
      this.numbers.set(`${kind}:${key}`, number);
    });
    const later: [string, Value, number][] = [];
    // What no field can hold stands as it was typed.
    const stays = new Set(unheld.map(({ refused }) => this.type.fields[refused ?? -1]?.key));
    this.standing.forEach(({ value, change }, field) => {
      if (change <= until && stays.has(field)) {
        return;
      }
      if (change <= until) {
        this.standing.delete(field);
        this.touch(`field:${field}`);
      } else {
        later.push([field, value, change]);
      }
    });
    read.forEach(([number, value]) => this.understood(this.type.fields[number]?.key ?? '', value, until));
    this.summarise({ isLive: true });
    this.follow(all);
    unheld.forEach((delta) => {
      this.leaveOpen(this.type.fields[delta.refused ?? -1]?.key ?? '', delta.choices);
      this.follow(delta);
    });
    later.forEach(([field, value, change]) => this.send(field, value, change));
  }

  private lost() {
    this.session = undefined;
    this.summarise({ isLive: false });
    this.tell();
    void this.reopen();
  }

  private send(field: string, value: Value, change: number) {
    const number = this.type.fields.findIndex(({ key }) => key === field);
    this.ask((session) => this.engine.ask('change', session, number, value, this.begun.has(field)), field, change);
  }

  /** What was typed into a field is that value, unless something else has been typed since. */
  private understood(field: string, value: Value, until: number) {
    const standing = this.standing.get(field);
    if (standing && standing.change <= until && !this.begun.has(field)) {
      this.pending.understood(field, standing.value, value);
    }
  }

  private ask(question: (session: number) => Promise<Delta>, field?: string, change?: number) {
    const session = this.sessionId;
    if (session === undefined) {
      return;
    }
    question(session).then(
      (delta) => {
        if (this.sessionId !== session) {
          return;
        }
        if (field !== undefined && this.standing.get(field)?.change === change) {
          this.leaveOpen(field, delta.choices);
        }
        if (field !== undefined && delta.read !== undefined) {
          this.understood(field, delta.read, change ?? 0);
        }
        if (field !== undefined && this.standing.get(field)?.change === change && delta.refused === undefined) {
          this.standing.delete(field);
          this.touch(`field:${field}`);
        }
        this.follow(delta);
      },
      // What was typed stands. An engine that fails at a question is not trusted with the next: another is started with all of it.
      (failure: Error) => this.sessionId === session && this.engine.restart(failure.message),
    );
  }
}
