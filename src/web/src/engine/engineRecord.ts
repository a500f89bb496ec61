import type {
  ClauseExplanation,
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
import type { EngineExports } from './engineExports';
import { absent, readBits, type ElementState, type FormRecord, type Value, type Values } from './formRecord';

const unused = new FinalizationRegistry<{ exports: EngineExports; session: number }>(({ exports, session }) =>
  exports.Sessions.Close(session),
);

/** A record open in the browser's engine. Every change is answered with a small delta, which is all that is read. */
export class EngineRecord implements FormRecord {
  readonly isLive = true;
  readonly recordType: string;
  version = 0;
  isSettled = true;
  private trial?: Map<string, Value>;
  private readonly numbers = new Map<string, number>();
  private readonly fields = new Map<string, number>();
  private readonly states: ElementState[] = [];
  private readonly values: Value[] = [];
  private readonly cases: number[] = [];
  private readonly violations = new Map<number, string>();
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly exports: EngineExports,
    private readonly session: number,
    type: RecordType,
    elements: Element[],
    numbers: number[],
    readonly setting: Setting,
  ) {
    elements.forEach((element, i) => this.numbers.set(`${element.kind}:${element.key}`, numbers[i]!));
    type.fields.forEach((field, number) => this.fields.set(field.key, number));
    this.recordType = type.key;
    unused.register(this, { exports, session });
    this.follow(exports.Sessions.All(session));
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  state(kind: ElementKind, key: string): ElementState {
    const number = this.numbers.get(`${kind}:${key}`);
    return (number === undefined ? undefined : this.states[number]) ?? absent;
  }

  value(field: string): Value {
    return this.values[this.fields.get(field) ?? -1] ?? null;
  }

  violation(field: string): string {
    return this.violations.get(this.fields.get(field) ?? -1) ?? '';
  }

  change(field: string, value: Value) {
    const number = this.fields.get(field);
    if (number === undefined) {
      return;
    }
    // The engine's runtime has no tables for composing characters; the browser does.
    const composed = JSON.stringify(value).normalize('NFC');
    const delta = this.exports.Sessions.Change(this.session, number, composed);
    if (delta !== null) {
      this.trial?.set(field, value);
      this.violations.set(number, this.exports.Sessions.Violation(this.session, number));
      this.follow(delta);
    }
  }

  /** Makes the changes of a trial here too, and notes those that follow, so that it can go on elsewhere. */
  goOn(trial: Map<string, Value>) {
    trial.forEach((value, field) => this.change(field, value));
    this.trial = trial;
  }

  changes(): Values {
    return JSON.parse(this.exports.Sessions.Changes(this.session)) as Values;
  }

  setAside(): Values {
    return JSON.parse(this.exports.Sessions.SetAside(this.session)) as Values;
  }

  forms(): string[] {
    return this.exports.Sessions.Forms(this.session);
  }

  outlook(): Outlook[] {
    return JSON.parse(this.exports.Sessions.Outlook(this.session)) as Outlook[];
  }

  messages(): SaidMessage[] {
    return JSON.parse(this.exports.Sessions.Messages(this.session)) as SaidMessage[];
  }

  suggestions(): Suggestion[] {
    return JSON.parse(this.exports.Sessions.Suggestions(this.session)) as Suggestion[];
  }

  offers(field: string): string[] | null {
    const number = this.fields.get(field);
    return number === undefined ? null : this.exports.Sessions.Offers(this.session, number);
  }

  know(linked: LinkedRecord[]) {
    linked.forEach((r) => this.exports.KnownRecords.Know(r.recordType, r.number, JSON.stringify(r.values)));
    this.follow(this.exports.Sessions.LookUpAgain(this.session));
  }

  explain(kind: ElementKind, key: string): ElementExplanation | null {
    const number = this.numbers.get(`${kind}:${key}`);
    return number === undefined ? null : (JSON.parse(this.exports.Sessions.Explain(this.session, number)) as ElementExplanation);
  }

  caseInForce(rule: number): number {
    return this.cases[rule] ?? -1;
  }

  clauses(rule: number): ClauseExplanation[] {
    return JSON.parse(this.exports.Sessions.Clauses(this.session, rule)) as ClauseExplanation[];
  }

  /** Takes over a delta; its layout is described at Sessions in Dibujo.Browser. */
  private follow(delta: number[]) {
    let at = 0;
    for (let left = delta[at++]!; left > 0; left--) {
      this.states[delta[at]!] = readBits(delta[at + 1]!);
      at += 2;
    }
    for (let left = delta[at++]!; left > 0; left--) {
      const field = delta[at++]!;
      this.values[field] = JSON.parse(this.exports.Sessions.ValueOf(this.session, field)) as Value;
    }
    for (let left = delta[at++]!; left > 0; left--) {
      this.cases[delta[at]!] = delta[at + 1]!;
      at += 2;
    }
    this.isSettled = delta[at] === 1;
    this.version++;
    this.listeners.forEach((listener) => listener());
  }
}
