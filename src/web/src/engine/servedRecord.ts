import type { ClauseExplanation, ElementKind, RecordView, SaidMessage, Suggestion } from '../api/generated';
import { absent, readBits, type ElementState, type FormRecord, type Value, type Values } from './formRecord';

/** A record with the states that the server evaluated, for as long as the browser's engine has not loaded. */
export class ServedRecord implements FormRecord {
  readonly isLive = false;
  readonly isSettled = true;
  version = 0;
  private readonly states = new Map<string, ElementState>();
  private readonly edits: Values = {};
  private readonly listeners = new Set<() => void>();

  constructor(private readonly record: RecordView) {
    for (const { element, bits } of record.states) {
      this.states.set(`${element.kind}:${element.key}`, readBits(bits));
    }
  }

  get setting() {
    return this.record.setting;
  }

  get recordType() {
    return this.record.recordType;
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  state = (kind: ElementKind, key: string) => this.states.get(`${kind}:${key}`) ?? absent;

  value = (field: string): Value => (field in this.edits ? this.edits[field]! : ((this.record.values[field] as Value) ?? null));

  violation = () => '';

  change(field: string, value: Value) {
    this.edits[field] = value;
    this.version++;
    this.listeners.forEach((listener) => listener());
  }

  changes = (): Values => ({ ...this.edits });

  setAside = (): Values => ({});

  forms = () => this.record.forms;

  outlook = () => null;

  messages = (): SaidMessage[] => [];

  suggestions = (): Suggestion[] => [];

  offers = () => null;

  know = () => undefined;

  explain = () => null;

  caseInForce = () => -1;

  clauses = (): ClauseExplanation[] => [];
}
