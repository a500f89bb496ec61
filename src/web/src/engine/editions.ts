import type { Engine } from './engine';

/** Programs of published editions: compiled once, and shared by all records that are opened under them. */
export class Editions {
  private readonly programs = new Map<string, Promise<number>>();

  constructor(private readonly engine: Engine) {
    engine.onDeath(() => this.programs.clear());
  }

  /** The program of that edition. To ask for it before it is needed makes it ready. */
  program(recordType: string, edition: number): Promise<number> {
    const address = `/api/record-types/${encodeURIComponent(recordType)}/editions/${edition}`;
    let program = this.programs.get(address);
    if (!program) {
      program = this.engine.ask('publish', address);
      this.programs.set(address, program);
      // What went wrong may go right the next time.
      program.catch(() => this.programs.delete(address));
    }
    return program;
  }
}
