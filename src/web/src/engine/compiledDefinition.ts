import type { CompilationReport, Definition, Setting } from '../api/generated';
import type { EngineExports } from './engine';
import { EngineRecord } from './engineRecord';
import type { Values } from './formRecord';

const unused = new FinalizationRegistry<{ exports: EngineExports; program: number }>(({ exports, program }) =>
  exports.Programs.Close(program),
);

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

  open(values: Values, setting: Setting): EngineRecord {
    const session = this.exports.Sessions.Open(this.program, JSON.stringify(values), JSON.stringify(setting));
    return new EngineRecord(this.exports, session, this.definition, this.report, setting);
  }
}
