import type {
  Answer,
  Cell,
  DecisionTable,
  Definition,
  Element,
  OtherWord,
  Rule,
  SentencePart,
  Vocabulary,
} from '../api/generated';
import type { DraftProblems, Hearing, TableReach, Ways } from './answers';
import type { Engine } from './engine';
import type { OpenRecord } from './openRecord';

interface Opening {
  program: Promise<number>;
  /** Once it is known. */
  number?: number;
  generation: number;
}

/** A draft in the engine. Only the rules that an edit brings go over; the others are known there by number. */
export class DraftProgram {
  private opened?: Opening;
  private numbers = new WeakMap<Rule, number>();
  private count = 0;
  private knownVocabulary?: Promise<Vocabulary>;
  private readonly sentences = new WeakMap<Rule, SentencePart[]>();
  private definition: Definition;

  constructor(
    private readonly engine: Engine,
    definition: Definition,
    /** So many versions of rules the engine keeps beside those that are in the draft. */
    private readonly mostKept = 1000,
  ) {
    this.definition = definition;
  }

  /** The record type that it was laid out for. */
  get type() {
    return this.definition.recordType;
  }

  /** Number of the program, for records to be opened under it. */
  program = (): Promise<number> => {
    if (this.opened?.generation !== this.engine.generation) {
      const { rules } = this.definition;
      const { generation } = this.engine;
      this.numbers = new WeakMap(rules.map((rule, place) => [rule, place]));
      this.count = rules.length;
      const program = this.engine.ask('draft', this.definition).then((answer) => answer.program);
      const opened: Opening = { program, generation };
      program.then(
        (number) => (opened.number = number),
        () => undefined,
      );
      this.opened = opened;
    }
    return this.opened.program;
  };

  /** Asks at once where the program is known: questions come to the engine in the order in which they are put. */
  private ask<T>(question: (program: number) => Promise<T>): Promise<T> {
    const opening = this.program();
    return this.opened?.number === undefined ? opening.then(question) : question(this.opened.number);
  }

  /** Takes over an edit, and carries the record on the sheet over to it; what is wrong with the draft now comes back. */
  async edit(definition: Definition, record?: OpenRecord): Promise<DraftProblems> {
    try {
      const { problems, delta } = await this.ask((program) => {
        // Rules that went over are kept there: after many edits they are all sent anew, and those of before are forgotten.
        if (
          this.count > this.mostKept + 3 * definition.rules.length ||
          !definition.rules.some((rule) => this.numbers.has(rule))
        ) {
          this.numbers = new WeakMap();
          this.count = 0;
        }
        const rules = definition.rules.map((rule) => this.numbers.get(rule) ?? rule);
        definition.rules.forEach((rule) => {
          if (!this.numbers.has(rule)) {
            this.numbers.set(rule, this.count++);
          }
        });
        this.definition = definition;
        return this.engine.ask('edit', program, rules, record?.sessionId);
      });
      if (delta) {
        record?.rebased(delta);
      }
      return problems;
    } catch (failure) {
      // What the engine knows of the rules is not sure any more: the draft goes over as a whole next time.
      this.opened = undefined;
      throw failure;
    }
  }

  /** Opens a record under the draft; where that was edited on the way, carries the record over. */
  async open(record: OpenRecord): Promise<void> {
    const before = this.definition;
    await record.open(this.program);
    if (this.definition !== before) {
      await this.edit(this.definition, record);
    }
  }

  close() {
    if (this.opened?.generation === this.engine.generation) {
      void this.opened.program.then((program) => this.engine.ask('closeProgram', program)).catch(() => undefined);
    }
    this.opened = undefined;
  }

  /** What may be put into the blanks of a sentence. */
  vocabulary(): Promise<Vocabulary> {
    this.knownVocabulary ??= this.ask((program) => this.engine.ask('vocabulary', program));
    this.knownVocabulary.catch(() => (this.knownVocabulary = undefined));
    return this.knownVocabulary;
  }

  /** The sentence of a rule, if it has been written. */
  sentence(rule: Rule): SentencePart[] | undefined {
    return this.sentences.get(rule);
  }

  /** Writes the sentences of those of the draft's rules that have none yet. */
  async write(rules: Rule[]): Promise<void> {
    const program = await this.program();
    const places = rules.filter((rule) => !this.sentences.has(rule)).map((rule) => this.definition.rules.indexOf(rule));
    const known = places.filter((place) => place >= 0);
    if (known.length > 0) {
      const asked = known.map((place) => this.definition.rules[place]!);
      const written = await this.engine.ask('sentences', program, known);
      written.forEach((parts, i) => this.sentences.set(asked[i]!, parts));
    }
  }

  /** What comes of a rule that is said as people say it, otherwise like another. */
  async hear(said: string, like: Rule): Promise<Hearing> {
    return this.ask((program) => this.engine.ask('hear', program, said, like));
  }

  /** The word of theirs for which somebody put a name, where what was not understood was said again; null for none. */
  async mended(misheard: string[], mended: string): Promise<OtherWord | null> {
    return this.ask((program) => this.engine.ask('mended', program, misheard, mended));
  }

  /** What is typed into cells of a table, a column from 0 and a text each; null for what cannot be read. */
  async hearCells(table: DecisionTable, cells: { column: number; text: string }[]): Promise<(Cell | Answer | null)[]> {
    const rule: Rule = { key: '', name: '', table: { ...table, rows: [] } };
    return this.ask((program) => this.engine.ask('hearCells', program, rule, cells));
  }

  /** Which rows of a table are reached, and what none covers. */
  async reach(table: DecisionTable): Promise<TableReach> {
    return this.ask((program) => this.engine.ask('reach', program, { key: '', name: '', table }));
  }

  /** What rules with a jump ahead or an early end skip, by the keys of the rules. */
  async skipped(): Promise<Map<string, Element[]>> {
    const program = await this.program();
    const { rules } = this.definition;
    const skipped = await this.engine.ask('skipped', program);
    return new Map(skipped.map(({ rule, elements }) => [rules[rule]?.key ?? '', elements]));
  }

  /** Where the moves of each workflow lead. */
  async ways(): Promise<Ways[]> {
    return this.ask((program) => this.engine.ask('ways', program));
  }

  /** What changes where the rules stand in another order, a sentence each; rules that are new change no order. */
  async reordered(rules: Rule[]): Promise<string[]> {
    const places = rules.map((rule) => this.definition.rules.indexOf(rule)).filter((place) => place >= 0);
    return this.ask((program) => this.engine.ask('reordered', program, places));
  }

  /** The sentence of any rule, also of one that is not in the draft. */
  async sentenceOf(rule: Rule): Promise<string> {
    return this.ask((program) => this.engine.ask('sentenceOf', program, rule));
  }

  /** A name for a rule that nobody has named. */
  async ruleName(rule: Rule): Promise<string> {
    return this.ask((program) => this.engine.ask('ruleName', program, rule));
  }
}
