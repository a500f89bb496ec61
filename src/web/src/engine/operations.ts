import type {
  Answer,
  Cell,
  ClauseExplanation,
  Definition,
  EditionView,
  Element,
  ElementExplanation,
  FieldType,
  LinkedRecord,
  Problem,
  OtherWord,
  Rule,
  SentencePart,
  Setting,
  Vocabulary,
} from '../api/generated';
import type {
  Changes,
  Delta,
  DraftProblems,
  Edited,
  Foresight,
  Hearing,
  NumberedElement,
  Opened,
  Reading,
  TableReach,
  Value,
  Values,
  Ways,
  Writer,
} from './answers';
import type { EngineExports } from './engineExports';
import { sample } from './sample';
import { tapeOf } from './tape';

const tape = (model: unknown): [number[], string] => {
  const { items, text } = tapeOf(model);
  return [items, text];
};

const parsed = <T>(json: string) => JSON.parse(json) as T;

/** A record to be opened. */
export interface OpeningRecord {
  /** Key of the form at hand. */
  form: string;
  values: Values;
  setting: Setting;
  /** The records to which its links lead. */
  linked: LinkedRecord[];
  /** Whether it is to be told which forms apply. */
  followsForms: boolean;
}

/** What the engine can be asked to do, whichever thread it runs on. Programs and sessions are numbers until they are closed. */
export function operationsOn({ Programs, Sessions, KnownRecords, Sentences, Analyses, Readings }: EngineExports) {
  function problemsOf(program: number): DraftProblems {
    const { type, rules } = parsed<{ type: Problem[]; rules: (number | Problem[])[] }>(Programs.Problems(program));
    const byRule = new Map<number, Problem[]>();
    for (let i = 0; i < rules.length; i += 2) {
      byRule.set(rules[i] as number, rules[i + 1] as Problem[]);
    }
    return { type, rules: byRule };
  }

  const operations = {
    /** Reads from now on what this person writes, as they write it. */
    goBy: (writer: Writer) => Readings.GoBy(...tape(writer)),

    /** What a text says as a value of a type. */
    read: (text: string, type: FieldType, today: string) => parsed<Reading>(Readings.Read(text, today, ...tape(type))),

    /** Fetches an edition from its address on the server and compiles it. */
    async publish(address: string) {
      const answer = await fetch(address);
      if (!answer.ok) {
        throw new Error(`${address} answers ${answer.status}`);
      }
      return Programs.Publish(...tape(((await answer.json()) as EditionView).definition));
    },

    /** Checks and compiles a draft; its rules are known from now on by their places. */
    draft(definition: Definition) {
      const program = Programs.Draft(...tape(definition));
      return { program, problems: problemsOf(program) };
    },

    /** Puts other rules into a draft, a number for each that is known, and carries a record over to them. */
    edit(program: number, rules: (Rule | number)[], session?: number): Edited {
      Programs.Edit(program, ...tape(rules));
      return {
        problems: problemsOf(program),
        delta: session === undefined ? undefined : parsed<Delta>(Sessions.Rebase(session, program)),
      };
    },

    closeProgram: (program: number) => Programs.Close(program),

    /** Opens a record with what was typed into it before. */
    open(program: number, record: OpeningRecord, typed: [number, Value][]): Opened {
      const { form, values, setting, linked, followsForms } = record;
      KnownRecords.Know(...tape(linked));
      const session = Sessions.Open(program, ...tape({ values, setting, followsForms }));
      const change = ([field, value]: [number, Value]) => parsed<Delta>(Sessions.Change(session, field, ...tape(value), false));
      const read: [number, Value][] = [];
      const unheld = typed.filter((one) => {
        const delta = change(one);
        if (delta.read !== undefined) {
          read.push([one[0], delta.read]);
        }
        return delta.refused !== undefined;
      });
      return {
        session,
        elements: parsed<NumberedElement[]>(Programs.Elements(program, form)),
        all: parsed<Delta>(Sessions.All(session)),
        unheld: unheld.map(change),
        read,
      };
    },

    /** Changes a field to a value, or to what a text says that was typed; whether more of that may come. */
    change: (session: number, field: number, value: Value, isPartial = false) =>
      parsed<Delta>(Sessions.Change(session, field, ...tape(value), isPartial)),

    enter: (session: number, setting: Setting) => parsed<Delta>(Sessions.Enter(session, ...tape(setting))),

    /** Takes in records to which links lead. */
    know(session: number, linked: LinkedRecord[]) {
      KnownRecords.Know(...tape(linked));
      return parsed<Delta>(Sessions.LookUpAgain(session));
    },

    changes: (session: number) => parsed<Changes>(Sessions.Changes(session)),

    outlook: (session: number) => parsed<Foresight>(Sessions.Outlook(session)),

    clauses: (session: number, rule: number) => parsed<ClauseExplanation[]>(Sessions.Clauses(session, rule)),

    explain: (session: number, element: number) => parsed<ElementExplanation>(Sessions.Explain(session, element)),

    closeSession: (session: number) => Sessions.Close(session),

    /** The rules at those places in words. */
    sentences: (program: number, places: number[]) => parsed<SentencePart[][]>(Sentences.Write(program, places)),

    /** What may be put into the blanks of a sentence. */
    vocabulary: (program: number) => parsed<Vocabulary>(Sentences.Vocabulary(program)),

    /** What comes of a rule that is said as people say it, otherwise like another. */
    hear: (program: number, said: string, like: Rule) => parsed<Hearing>(Sentences.Hear(program, said, ...tape(like))),

    /** The word of theirs for which somebody put a name, where what was not understood was said again; null for none. */
    mended: (program: number, misheard: string[], mended: string) =>
      parsed<OtherWord | null>(Sentences.Mended(program, ...tape({ misheard, mended }))),

    /** What is typed into cells of a rule's table; null for what cannot be read. */
    hearCells: (program: number, rule: Rule, cells: { column: number; text: string }[]) =>
      parsed<(Cell | Answer | null)[]>(Sentences.HearCells(program, ...tape({ rule, cells }))),

    /** The sentence of any rule, also of one that the program does not have. */
    sentenceOf: (program: number, rule: Rule) => Sentences.WriteOne(program, ...tape(rule)),

    /** A name for a rule that nobody has named. */
    ruleName: (program: number, rule: Rule) => Sentences.Name(program, ...tape(rule)),

    /** Which rows of a rule's table are reached, and what none covers. */
    reach: (program: number, rule: Rule) => parsed<TableReach>(Analyses.Reach(program, ...tape(rule))),

    /** What changes where the draft's rules stand in another order, given as their places now: sentences. */
    reordered: (program: number, places: number[]) => parsed<string[]>(Analyses.Reordered(program, places)),

    /** Where the moves of each workflow lead. */
    ways: (program: number) => parsed<Ways[]>(Analyses.Ways(program)),

    /** What rules with a jump ahead or an early end skip, by the places of the rules. */
    skipped: (program: number) => parsed<{ rule: number; elements: Element[] }[]>(Analyses.Skipped(program)),
  };
  return {
    ...operations,

    /** Does everything once on something tiny, so that what is needed next is not done for the first time. */
    warm() {
      const { program } = operations.draft(sample);
      const record = { form: 'f', values: { a: 'x' }, setting: { workflow: 'w', stage: 's' }, linked: [], followsForms: true };
      const { session } = operations.open(program, record, []);
      operations.change(session, 1, 3);
      operations.outlook(session);
      operations.explain(session, 0);
      operations.clauses(session, 0);
      operations.edit(program, [{ ...sample.rules[0]!, cases: [] }], session);
      operations.sentences(program, [0]);
      operations.vocabulary(program);
      operations.closeSession(session);
      operations.closeProgram(program);
    },
  };
}

export type Operations = ReturnType<typeof operationsOn>;
