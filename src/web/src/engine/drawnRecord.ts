import type { Element, ElementKind, RecordType, SaidMessage, Suggestion } from '../api/generated';
import type { Delta, PossibleValue, Value } from './answers';
import { absent, readBits, type ElementState } from './elementState';
import { partsOf } from './parts';
import { Topics } from './topics';

/** Everything that is drawn of one field. The same object for as long as nothing in it differs. */
export interface FieldView {
  state: ElementState;
  parts: Record<string, ElementState>;
  value: Value;
  /** The limit that the value breaks, in words; empty if none. */
  violation: string;
  /** What was typed may mean one of these: which, the person has to say. */
  possible: PossibleValue[];
  /** Keys of the choices that are left to it; null where all are. */
  offers: string[] | null;
  messages: SaidMessage[];
  suggestions: Suggestion[];
  /** Whether a change of rules changed its state a moment ago. */
  isMarked: boolean;
}

/** Everything that is drawn of a section, tab or form. */
export interface ContainerView {
  state: ElementState;
  isMarked: boolean;
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

/** How long what a change of rules changed stays marked, in milliseconds. */
const markedFor = 1600;

/** What is drawn of a record, and whom to tell when a piece of it differs: it follows what the engine tells. */
export abstract class DrawnRecord {
  /** Goes up with everything that differs. */
  version = 0;
  protected summary: Summary;
  protected readonly topics = new Topics();
  /** Names of the elements, by the numbers by which the engine calls them. */
  protected readonly elements: string[] = [];
  protected cases: number[] = [];
  private marked = new Set<string>();
  private unmarking: ReturnType<typeof setTimeout> | undefined;
  private readonly states = new Map<string, ElementState>();
  private readonly violations = new Map<string, string>();
  private readonly possible = new Map<string, PossibleValue[]>();
  private readonly offers = new Map<string, string[] | null>();
  private messages: SaidMessage[] = none;
  private suggestions: Suggestion[] = none;
  private readonly fieldViews = new Map<string, FieldView>();
  private readonly containerViews = new Map<string, ContainerView>();

  protected constructor(
    readonly type: RecordType,
    states: { element: Element; bits: number }[],
    protected readonly values: Map<string, Value>,
    forms: string[],
  ) {
    states.forEach(({ element, bits }) => this.states.set(`${element.kind}:${element.key}`, readBits(bits)));
    this.summary = { isLive: false, isSettled: true, changed: 0, setAside: none, forms };
  }

  subscribe = (topic: string, listener: () => void) => this.topics.subscribe(topic, listener);

  state(kind: ElementKind, key: string): ElementState {
    return this.states.get(`${kind}:${key}`) ?? absent;
  }

  field(key: string): FieldView {
    let view = this.fieldViews.get(key);
    if (!view) {
      const parts: Record<string, ElementState> = {};
      for (const part of partsOf(this.type.fields.find((field) => field.key === key)?.type.kind)) {
        parts[part.key] = this.state('part', `${key}.${part.key}`);
      }
      view = {
        state: this.state('field', key),
        parts,
        value: this.value(key),
        violation: this.violations.get(key) ?? '',
        possible: this.possible.get(key) ?? none,
        offers: this.offers.get(key) ?? null,
        messages: this.messages.filter(({ at }) => at && fieldOf(at) === key),
        suggestions: this.suggestions.filter(({ field }) => field === key),
        isMarked: this.marked.has(`field:${key}`),
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
      view = { state: this.state(kind, key), messages: this.messages.filter(isHere), isMarked: this.marked.has(name) };
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
    return this.values.get(field) ?? null;
  }

  /** Takes over what is different, and marks for a moment whose state that is. */
  protected followMarked(delta: Delta) {
    const before = new Map(this.states);
    this.follow(delta);
    const changed = [...this.states].filter(([name, state]) => before.get(name) !== state).map(([name]) => name);
    if (changed.length > 0) {
      clearTimeout(this.unmarking);
      this.mark(new Set(changed));
      this.unmarking = setTimeout(() => this.mark(new Set()), markedFor);
    }
  }

  private mark(names: Set<string>) {
    const touched = [...this.marked, ...names];
    this.marked = names;
    touched.forEach((name) => this.touch(name));
    this.tell();
  }

  /** What a field's text may mean; nothing where that is certain. */
  protected leaveOpen(field: string, possible: PossibleValue[] = none) {
    if (possible.length > 0 || this.possible.has(field)) {
      this.possible.set(field, possible);
      this.touch(`field:${field}`);
    }
  }

  /** Takes over what is different. */
  protected follow(delta: Delta) {
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

  protected summarise(part: Partial<Summary>) {
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
  protected touch(name: string) {
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

  protected tell() {
    this.version++;
    this.topics.touch('any');
    this.topics.tell();
  }
}

/** The field that a message stands beside; none where it stands beside something else. */
const fieldOf = ({ kind, key }: Element) => (kind === 'field' || kind === 'part' ? key.split('.')[0]! : undefined);
