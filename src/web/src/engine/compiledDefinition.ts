import type {
  CompilationReport,
  Definition,
  LinkedRecord,
  Rule,
  SentenceOffer,
  SentenceReading as ReadSentence,
  Setting,
} from '../api/generated';
import type { EngineExports } from './engine';
import { EngineRecord } from './engineRecord';
import type { Values } from './formRecord';

const unused = new FinalizationRegistry<{ exports: EngineExports; program: number }>(({ exports, program }) =>
  exports.Programs.Close(program),
);

/** What came of reading a sentence: a rule, or the problem with it. */
export type SentenceReading = Omit<ReadSentence, 'rule'> & { rule?: Rule | null };

/** A definition that the engine has compiled, with what it had to say about it. */
export class CompiledDefinition {
  constructor(
    private readonly exports: EngineExports,
    private readonly program: number,
    readonly definition: Definition,
    readonly report: CompilationReport,
  ) {
    unused.register(this, { exports, program });
  }

  /** Whether a record can be opened under it: false only where the record type itself has a problem. */
  get isUsable(): boolean {
    return this.program !== 0;
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
    return new EngineRecord(this.exports, session, this.definition, this.report, setting);
  }
}
