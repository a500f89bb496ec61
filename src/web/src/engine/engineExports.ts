/** What the WebAssembly engine exports; see Dibujo.Browser. Programs and sessions are numbers until they are closed. */
export interface EngineExports {
  Programs: {
    Compile(definition: Uint8Array): number;
    Recompile(program: number, rules: Uint8Array): number;
    IsUsable(program: number): boolean;
    Problems(program: number): string;
    Elements(program: number, form: string): string;
    Numbers(program: number, form: string): number[];
    Close(program: number): void;
  };
  Sessions: {
    Open(program: number, values: string, setting: string): number;
    Close(session: number): void;
    All(session: number): number[];
    Change(session: number, field: number, value: string): number[] | null;
    ValueOf(session: number, field: number): string;
    Violation(session: number, field: number): string;
    Messages(session: number): string;
    Suggestions(session: number): string;
    Offers(session: number, field: number): string[] | null;
    LookUpAgain(session: number): number[];
    Changes(session: number): string;
    SetAside(session: number): string;
    Outlook(session: number): string;
    Forms(session: number): string[];
    Clauses(session: number, rule: number): string;
    Explain(session: number, element: number): string;
  };
  KnownRecords: {
    Know(recordType: string, number: number, values: string): void;
  };
  Sentences: {
    Write(program: number, rules: number[]): string;
    Vocabulary(program: number): string;
    Read(program: number, sentence: string, like: string): string;
    Complete(program: number, sentence: string, cursor: number): string;
  };
}
