import type {
  Element,
  ElementExplanation,
  ElementKind,
  LinkedRecord,
  Outlook,
  RecordType,
  SaidMessage,
  Setting,
  Suggestion,
} from '../api/generated';
import type { Changes, Delta, Opened, Value, Values } from './answers';
import { absent, readBits, type ElementState } from './elementState';
import type { Engine } from './engine';
import { Topics } from './topics';

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

/** Everything that is drawn of one field. The same object for as long as nothing in it differs. */
export interface FieldView {
  state: ElementState;
  parts: Record<string, ElementState>;
  value: Value;
  /** The limit that the value breaks, in words; empty if none. */
  violation: string;
  /** Keys of the choices that are left to it; null where all are. */
  offers: string[] | null;
  messages: SaidMessage[];
  suggestions: Suggestion[];
}

/** Everything that is drawn of a section, tab or form. */
export interface ContainerView {
  state: ElementState;
  messages: SaidMessage[];
}

/** What is so of the record as a whole. */
export interface Summary {
  /** Whether states follow the typing; where not, they are the server's, as of the last save. */
  isLive: boolean;
  /** False while rules go round in a cycle for these values; the fields in it keep their saved values then. */
  isSettled: boolean;
  changed: number;
  /** Keys of the fields of which what was typed waits. */
  setAside: string[];
  /** Keys of the forms that apply to the record now. */
  forms: string[];
}

const none: never[] = [];

/**
 * A record open on a form: what to draw of it, and whom to tell when a piece of that differs. It begins with what the server
 * says and becomes live when the engine has opened it. What is typed stands in its field at once, and stays there whatever
 * happens to the engine; what anything means is decided elsewhere.
 */
export class OpenRecord {
  readonly recordType: string;
  /** Goes up with everything that differs. */
  version = 0;
  private summary: Summary;
  private readonly topics = new Topics();
  private readonly states = new Map<string, ElementState>();
  private readonly values: Map<string, Value>;
  private readonly violations = new Map<string, string>();
  private readonly offers = new Map<string, string[] | null>();
  private messages: SaidMessage[] = none;
  private suggestions: Suggestion[] = none;
  private cases: number[] = [];
  private readonly elements: string[] = [];
  private readonly numbers = new Map<string, number>();
  /** What was typed, field by field, to be told to an engine that knows nothing of it yet. */
  private readonly typed = new Map<string, Value>();
  /** What was typed and is not answered yet, or cannot be held: it stands in its field whatever the engine says. */
  private readonly standing = new Map<string, { value: Value; change: number }>();
  private readonly fieldViews = new Map<string, FieldView>();
  private readonly containerViews = new Map<string, ContainerView>();
  private lastChange = 0;
  private session?: { id: number; generation: number };
  private source?: () => Promise<number>;
  private isClosed = false;
  private stopListening?: () => void;

  constructor(
    private readonly engine: Engine,
    readonly type: RecordType,
    private given: RecordSource,
    typed: Values = {},
    private readonly followsForms = true,
  ) {
    this.recordType = given.recordType;
    this.values = new Map(Object.entries(given.values) as [string, Value][]);
    given.states.forEach(({ element, bits }) => this.states.set(`${element.kind}:${element.key}`, readBits(bits)));
    Object.entries(typed).forEach(([field, value]) => this.hold(field, value));
    this.summary = { isLive: false, isSettled: true, changed: this.typed.size, setAside: none, forms: given.forms };
  }

  get setting() {
    return this.given.setting;
  }

  /** What was typed and not taken back, by field. */
  get trial(): ReadonlyMap<string, Value> {
    return this.typed;
  }

  // What is drawn, and when to draw it anew.

  subscribe = (topic: string, listener: () => void) => this.topics.subscribe(topic, listener);

  state(kind: ElementKind, key: string): ElementState {
    return this.states.get(`${kind}:${key}`) ?? absent;
  }

  field(key: string): FieldView {
    let view = this.fieldViews.get(key);
    if (!view) {
      const parts: Record<string, ElementState> = {};
      for (const part of partKeys[this.type.fields.find((field) => field.key === key)?.type.kind ?? ''] ?? none) {
        parts[part] = this.state('part', `${key}.${part}`);
      }
      view = {
        state: this.state('field', key),
        parts,
        value: this.value(key),
        violation: this.violations.get(key) ?? '',
        offers: this.offers.get(key) ?? null,
        messages: this.messages.filter(({ at }) => at && fieldOf(at) === key),
        suggestions: this.suggestions.filter(({ field }) => field === key),
      };
      this.fieldViews.set(key, view);
    }
    return view;
  }

  container(kind: 'section' | 'tab' | 'form', key: string): ContainerView {
    const name = `${kind}:${key}`;
    let view = this.containerViews.get(name);
    if (!view) {
      const isHere = ({ at }: SaidMessage) => (kind === 'form' ? !at || at.kind === 'form' : at?.kind === kind && at.key === key);
      view = { state: this.state(kind, key), messages: this.messages.filter(isHere) };
      this.containerViews.set(name, view);
    }
    return view;
  }

  whole = (): Summary => this.summary;

  /** Which case of the rule at that place is in force; -1 for none. */
  caseInForce(rule: number): number {
    return this.cases[rule] ?? -1;
  }

  value(field: string): Value {
    const standing = this.standing.get(field);
    return standing ? standing.value : (this.values.get(field) ?? null);
  }

  // What is done to it.

  /** Takes in what a person has typed. */
  change(field: string, value: Value) {
    const change = this.hold(field, value);
    this.touch(`field:${field}`);
    if (this.session) {
      this.send(field, value, change);
    } else {
      this.summarise({ changed: this.typed.size });
    }
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
    this.follow(delta);
  }

  close() {
    this.isClosed = true;
    this.stopListening?.();
    this.stopListening = undefined;
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
        ? { changes: Object.fromEntries(this.typed), setAside: {} }
        : await this.engine.ask('changes', session).catch(() => ({ changes: Object.fromEntries(this.typed), setAside: {} }));
    // What a field cannot hold goes along, so that nobody takes it for saved.
    this.standing.forEach(({ value }, field) => (known.changes[field] = value));
    return known;
  }

  /** What would come of each move that is this person's to make; null where only the server knows. */
  outlook(): Promise<Outlook[] | null> {
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

  private hold(field: string, value: Value): number {
    this.typed.set(field, value);
    this.standing.set(field, { value, change: ++this.lastChange });
    return this.lastChange;
  }

  private async reopen() {
    const { generation } = this.engine;
    const { values, setting, linked, form } = this.given;
    try {
      const program = await this.source!();
      const told = [...this.typed];
      const numbered = told.map(([field, value]): [number, Value] => [
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
      if (this.isClosed || generation !== this.engine.generation) {
        return;
      }
      this.begun(opened, generation, until);
      if (this.given.setting !== setting) {
        this.enter(this.given.setting);
      }
    } catch {
      // Dead again, or nothing to open it with: what was typed stands, and the server judges it.
    }
  }

  private begun({ session, elements, all }: Opened, generation: number, until: number) {
    this.session = { id: session, generation };
    elements.forEach(({ number, kind, key }) => {
      this.elements[number] = `${kind}:${key}`;
      this.numbers.set(`${kind}:${key}`, number);
    });
    const later: [string, Value, number][] = [];
    this.standing.forEach(({ value, change }, field) => {
      if (change <= until) {
        this.standing.delete(field);
        this.touch(`field:${field}`);
      } else {
        later.push([field, value, change]);
      }
    });
    this.summarise({ isLive: true });
    this.follow(all);
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
    this.ask((session) => this.engine.ask('change', session, number, value), field, change);
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
        if (field !== undefined && this.standing.get(field)?.change === change && delta.refused === undefined) {
          this.standing.delete(field);
          this.touch(`field:${field}`);
        }
        this.follow(delta);
      },
      // A dead engine is started again with all that was typed; anything else that fails leaves it standing.
      () => undefined,
    );
  }

  /** Takes over what is different. */
  private follow(delta: Delta) {
    this.followStates(delta);
    for (let i = 0; i < delta.values.length; i += 2) {
      const { key } = this.type.fields[delta.values[i] as number]!;
      this.values.set(key, delta.values[i + 1] as Value);
      this.touch(`field:${key}`);
    }
    for (let i = 0; i < delta.cases.length; i += 2) {
      this.cases[delta.cases[i]!] = delta.cases[i + 1]!;
      this.topics.touch(`rule:${delta.cases[i]!}`);
    }
    this.followBeside(delta);
    this.summarise({
      isSettled: delta.isSettled,
      changed: delta.changed,
      setAside: delta.setAside,
      forms: delta.forms ?? this.summary.forms,
    });
    this.tell();
  }

  private followStates({ elements }: Delta) {
    for (let i = 0; i < elements.length; i += 2) {
      const name = this.elements[elements[i]!];
      const state = readBits(elements[i + 1]!);
      if (name !== undefined && this.states.get(name) !== state) {
        this.states.set(name, state);
        this.touch(name);
      }
    }
  }

  private followBeside({ violations, offers, messages, suggestions }: Delta) {
    for (let i = 0; violations && i < violations.length; i += 2) {
      const { key } = this.type.fields[violations[i] as number]!;
      this.violations.set(key, violations[i + 1] as string);
      this.touch(`field:${key}`);
    }
    for (let i = 0; offers && i < offers.length; i += 2) {
      const { key } = this.type.fields[offers[i] as number]!;
      this.offers.set(key, offers[i + 1] as string[] | null);
      this.touch(`field:${key}`);
    }
    if (messages) {
      [...this.messages, ...messages].forEach(({ at }) => {
        this.touch(
          !at || at.kind === 'form'
            ? 'form:'
            : at.kind === 'field' || at.kind === 'part'
              ? `field:${fieldOf(at)}`
              : `${at.kind}:${at.key}`,
        );
      });
      this.messages = messages;
    }
    if (suggestions) {
      [...this.suggestions, ...suggestions].forEach(({ field }) => this.touch(`field:${field}`));
      this.suggestions = suggestions;
    }
  }

  private summarise(part: Partial<Summary>) {
    const next = { ...this.summary, ...part };
    const isSame = (Object.keys(next) as (keyof Summary)[]).every(
      (name) => JSON.stringify(next[name]) === JSON.stringify(this.summary[name]),
    );
    if (!isSame) {
      this.summary = next;
      this.topics.touch('record');
    }
  }

  /** Notes that an element has to be drawn anew. */
  private touch(name: string) {
    const [kind, key] = name.split(':') as [string, string];
    const topic = kind === 'part' ? `field:${key.split('.')[0]!}` : kind === 'form' ? 'form:' : name;
    if (topic.startsWith('field:')) {
      this.fieldViews.delete(topic.slice('field:'.length));
    } else {
      [...this.containerViews.keys()]
        .filter((view) => view === topic || (kind === 'form' && view.startsWith('form:')))
        .forEach((view) => this.containerViews.delete(view));
    }
    this.topics.touch(topic);
    if (kind === 'tab') {
      this.topics.touch('tabs');
    }
  }

  private tell() {
    this.version++;
    this.topics.touch('any');
    this.topics.tell();
  }
}

const partKeys: Record<string, string[]> = {
  fullName: ['given', 'family'],
  address: ['street', 'postalCode', 'city', 'country'],
};

/** The field that a message stands beside; none where it stands beside something else. */
const fieldOf = ({ kind, key }: Element) => (kind === 'field' || kind === 'part' ? key.split('.')[0]! : undefined);
