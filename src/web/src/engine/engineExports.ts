/** What the WebAssembly engine exports; see Dibujo.Browser. Models go over as tapes, JSON comes back. */
export interface EngineExports {
  Programs: {
    Publish(items: number[], text: string): number;
    Draft(items: number[], text: string): number;
    Edit(program: number, items: number[], text: string): void;
    Problems(program: number): string;
    Elements(program: number, form: string): string;
    Close(program: number): void;
  };
  Sessions: {
    Open(program: number, items: number[], text: string): number;
    Close(session: number): void;
    All(session: number): string;
    Change(session: number, field: number, items: number[], text: string, isPartial: boolean): string;
    Enter(session: number, items: number[], text: string): string;
    LookUpAgain(session: number): string;
    Rebase(session: number, program: number): string;
    Changes(session: number): string;
    Outlook(session: number): string;
    Clauses(session: number, rule: number): string;
    Explain(session: number, element: number): string;
  };
  Readings: {
    GoBy(items: number[], text: string): void;
    Read(written: string, today: string, items: number[], text: string): string;
  };
  KnownRecords: {
    Know(items: number[], text: string): void;
  };
  Sentences: {
    Write(program: number, rules: number[]): string;
    WriteOne(program: number, items: number[], text: string): string;
    Vocabulary(program: number): string;
    Hear(program: number, said: string, items: number[], text: string): string;
    Mended(program: number, items: number[], text: string): string;
    HearCells(program: number, items: number[], text: string): string;
    Name(program: number, items: number[], text: string): string;
  };
  Analyses: {
    Reach(program: number, items: number[], text: string): string;
    Reordered(program: number, places: number[]): string;
    Skipped(program: number): string;
    Ways(program: number): string;
  };
}
