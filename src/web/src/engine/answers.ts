import type { ElementKind, Outlook, Problem, Rule, SaidMessage, SentenceOffer, Suggestion, Value } from '../api/generated';

export type { Value };

export type Values = Record<string, Value>;

/** What is different in an open record after a change: see FollowedRecord in Dibujo.Core. */
export interface Delta {
  elements: number[];
  values: (number | Value)[];
  cases: number[];
  violations?: (number | string)[];
  offers?: (number | string[] | null)[];
  messages?: SaidMessage[];
  suggestions?: Suggestion[];
  forms?: string[];
  /** How many changes count. */
  changed: number;
  /** Keys of the fields whose changes wait. */
  setAside: string[];
  isSettled: boolean;
  /** The field of that number cannot hold what was typed; nothing was changed. */
  refused?: number;
  /** What that may mean, where it may mean several things. */
  choices?: PossibleValue[];
  /** What was typed, as the value that it says. */
  read?: Value;
}

/** One of several values that a text may mean, and how it is written so that nothing else is meant. */
export interface PossibleValue {
  value: Value;
  text: string;
}

/** What a text says: a value, one of several, or none for a reason; see Reading in Dibujo.Core. */
export type Reading = { value: Value } | { choices: PossibleValue[] } | { reason: string };

/** How the person writes, and what people are called. */
export interface Writer {
  language: string;
  day: string;
  marks: string;
  people: { userName: string; displayName: string }[];
}

/** An element with the number by which deltas call it. */
export interface NumberedElement {
  number: number;
  kind: ElementKind;
  key: string;
}

/** A record that has just been opened. */
export interface Opened {
  session: number;
  elements: NumberedElement[];
  all: Delta;
  /** What is said of what was typed before and no field can hold. */
  unheld: Delta[];
  /** What was typed before, by the field's number, as the value that it says. */
  read: [number, Value][];
}

/** What is wrong with a draft: problems of the record type, and by place in the list those of each rule, with places within it. */
export interface DraftProblems {
  type: Problem[];
  rules: Map<number, Problem[]>;
}

/** A draft after an edit, and what that made of the record on the sheet. */
export interface Edited {
  problems: DraftProblems;
  delta?: Delta;
}

export interface Changes {
  changes: Values;
  setAside: Values;
}

/** How far a form can be; see Progress in Dibujo.Core. */
export type Progress = 'notRelevant' | 'notBegun' | 'begun' | 'complete';

/** How far a form is filled in; see FormProgress in Dibujo.Core. */
export interface FormProgress {
  form: string;
  progress: Progress;
  filled: number;
  asked: number;
}

/** What would come of moves, and how far each form is, with what is typed now. */
export interface Foresight {
  moves: Outlook[];
  forms: FormProgress[];
}

/** Words that take the place of others. */
export interface Wordage {
  label: string;
  text: string;
}

/** What came of a rule that was said: see Hearing in Dibujo.Core. Places count characters from the start. */
export interface Hearing {
  rule?: Rule;
  /** Its canonical sentence. */
  sentence?: string;
  guesses: { start: number; end: number; meant: string; others: Wordage[] }[];
  /** What may stand at the end of what was said so far, the most likely first. */
  offers: SentenceOffer[];
  /** For which parts of the rule the words stand. */
  aligned: { start: number; end: number; part: string }[];
  question?: { start: number; end: number; said: string; options: Wordage[] };
  misunderstanding?: { place: number; message: string; nearest: Wordage[] };
}

/** What is found in a decision table: see TableReach in Dibujo.Core. Places of rows count from 0. */
export interface TableReach {
  unreached: number[];
  overlaps: { upper: number; lower: number }[];
  gaps: string[];
}

/** Where the moves of a workflow lead, by keys of its stages. */
export interface Ways {
  /** No way leads to them from the first. */
  unreached: string[];
  /** No way leads from them to an end. */
  stuck: string[];
}
