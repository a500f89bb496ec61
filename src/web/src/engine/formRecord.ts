import type {
  ClauseExplanation,
  ElementExplanation,
  ElementKind,
  LinkedRecord,
  Outlook,
  SaidMessage,
  Setting,
  Suggestion,
  Value,
} from '../api/generated';

export type { Value };

export type Values = Record<string, Value>;

export interface ElementState {
  isVisible: boolean;
  isLocked: boolean;
  requirement: 'optional' | 'toMoveOn' | 'toSave';
  isSuspended: boolean;
  isSetAside: boolean;
  /** Whether it is needed for named moves only. */
  isForSomeMoves: boolean;
}

/** A record open on a form: what to draw, and whom to tell of changes. What anything means is decided elsewhere. */
export interface FormRecord {
  readonly setting: Setting;
  /** Key of its record type. */
  readonly recordType: string;
  /** Whether states follow the typing; where not, they are the server's, as of the last save. */
  readonly isLive: boolean;
  /** False while rules go round in a circle for these values; the fields in it keep their saved values then. */
  readonly isSettled: boolean;
  /** Goes up with every change, for React to notice. */
  readonly version: number;
  subscribe(listener: () => void): () => void;
  state(kind: ElementKind, key: string): ElementState;
  value(field: string): Value;
  /** The limit that the field's value breaks, in words; empty if none. */
  violation(field: string): string;
  change(field: string, value: Value): void;
  /** The changes that count now, to be sent to the server. */
  changes(): Values;
  /** What was typed and waits, set aside, for its field to show or open again. */
  setAside(): Values;
  /** Keys of the forms that apply to the record now. */
  forms(): string[];
  /** What would come of each move that is this person's to make; null where only the server knows. */
  outlook(): Outlook[] | null;
  messages(): SaidMessage[];
  suggestions(): Suggestion[];
  /** Keys of the choices that are left to a field; null where all are. */
  offers(field: string): string[] | null;
  /** Takes in records to which a link leads, so that rules can look at them. */
  know(linked: LinkedRecord[]): void;
  explain(kind: ElementKind, key: string): ElementExplanation | null;
  /** Which case of the rule is in force; -1 for none. */
  caseInForce(rule: number): number;
  clauses(rule: number): ClauseExplanation[];
}

const requirements = ['optional', 'toMoveOn', 'toSave'] as const;

/** Reads a state as the engine and the server pack it: see ElementState.Bits in Dibujo.Core. */
export function readBits(bits: number): ElementState {
  return {
    isVisible: (bits & 1) !== 0,
    isLocked: (bits & 2) !== 0,
    requirement: requirements[(bits >> 2) & 3] ?? 'optional',
    isSuspended: (bits & 16) !== 0,
    isSetAside: (bits & 32) !== 0,
    isForSomeMoves: (bits & 64) !== 0,
  };
}

/** For what stands on no form. */
export const absent: ElementState = readBits(0);
