import type {
  Definition,
  Element,
  LinkedRecord,
  Problem,
  Rule,
  SentenceOffer,
  SentencePart,
  SentenceReading as ReadSentence,
  Setting,
  Vocabulary,
} from '../api/generated';
import type { EngineExports } from './engineExports';
import { EngineRecord } from './engineRecord';
import type { Values } from './formRecord';

const unused = new FinalizationRegistry<{ exports: EngineExports; program: number }>(({ exports, program }) =>
  exports.Programs.Close(program),
);

const utf8 = (model: unknown) => new TextEncoder().encode(JSON.stringify(model));

/** What came of reading a sentence: a rule, or the problem with it. */
export type SentenceReading = Omit<ReadSentence, 'rule'> & { rule?: Rule | null };

/** What depends on the record type alone, and so outlives the edit of a rule. */
interface Words {
  readonly sentences: WeakMap<Rule, SentencePart[]>;
  vocabulary?: Vocabulary;
}

/** A definition that the engine has compiled. What it has to say about it is asked for when it is looked at. */
export class CompiledDefinition {
  private knownProblems?: Problem[];

  private constructor(
    private readonly exports: EngineExports,
    private readonly program: number,
    readonly definition: Definition,
    private readonly words: Words,
  ) {
    unused.register(this, { exports, program });
  }

  static of(exports: EngineExports, definition: Definition): CompiledDefinition {
    const program = exports.Programs.Compile(utf8(definition));
    return new CompiledDefinition(exports, program, definition, { sentences: new WeakMap() });
  }

  /**
   * The definition compiled, given that only rules differ; undefined where more does. A rule is known again by being the
   * same object, as an edit leaves those that it does not touch.
   */
  changedTo(definition: Definition): CompiledDefinition | undefined {
    if (definition.recordType !== this.definition.recordType) {
      return undefined;
    }
    if (this.isOf(definition)) {
      return this;
    }
    const places = new Map(this.definition.rules.map((rule, place) => [rule, place]));
    const rules = definition.rules.map((rule) => places.get(rule) ?? rule);
    const program = this.exports.Programs.Recompile(this.program, utf8(rules));
    return new CompiledDefinition(this.exports, program, definition, this.words);
  }

  /** Whether it came of that definition. */
  isOf(definition: Definition): boolean {
    return definition === this.definition;
  }

  /** Whether a record can be opened under it: false only where the record type itself has a problem. */
  get isUsable(): boolean {
    return this.exports.Programs.IsUsable(this.program);
  }

  /** Everything that could not be compiled. */
  get problems(): Problem[] {
    return (this.knownProblems ??= JSON.parse(this.exports.Programs.Problems(this.program)) as Problem[]);
  }

  /** What may be put into the blanks of a sentence. */
  get vocabulary(): Vocabulary {
    return (this.words.vocabulary ??= JSON.parse(this.exports.Sentences.Vocabulary(this.program)) as Vocabulary);
  }

  /** Each rule in words. */
  sentences(): SentencePart[][] {
    const { rules } = this.definition;
    const { sentences } = this.words;
    const unwritten = [...rules.keys()].filter((place) => !sentences.has(rules[place]!));
    if (unwritten.length > 0) {
      const written = JSON.parse(this.exports.Sentences.Write(this.program, unwritten)) as SentencePart[][];
      unwritten.forEach((place, i) => sentences.set(rules[place]!, written[i]!));
    }
    return rules.map((rule) => sentences.get(rule)!);
  }

  /** The rule that a sentence says, otherwise like another; or from where on it cannot be read. */
  readSentence(sentence: string, like: Rule): SentenceReading {
    return JSON.parse(this.exports.Sentences.Read(this.program, sentence, JSON.stringify(like))) as SentenceReading;
  }

  /** What may stand at the cursor of a half-typed sentence, the most likely first. */
  complete(sentence: string, cursor: number): SentenceOffer[] {
    return JSON.parse(this.exports.Sentences.Complete(this.program, sentence, cursor)) as SentenceOffer[];
  }

  open(values: Values, setting: Setting, linked: LinkedRecord[] = []): EngineRecord {
    linked.forEach((r) => this.exports.KnownRecords.Know(r.recordType, r.number, JSON.stringify(r.values)));
    const session = this.exports.Sessions.Open(this.program, JSON.stringify(values), JSON.stringify(setting));
    const form = setting.form ?? this.definition.recordType.forms[0]!.key;
    const elements = JSON.parse(this.exports.Programs.Elements(this.program, form)) as Element[];
    const numbers = this.exports.Programs.Numbers(this.program, form);
    return new EngineRecord(this.exports, session, this.definition.recordType, elements, numbers, setting);
  }
}
