import type { CompilationReport, Definition } from '../api/generated';
import { CompiledDefinition } from './compiledDefinition';

/** What the WebAssembly engine exports; see Dibujo.Browser. */
export interface EngineExports {
  Programs: {
    Compile(definition: string, form: string): number;
    Report(): string;
    Close(program: number): void;
  };
  Sessions: {
    Open(program: number, values: string, setting: string): number;
    Close(session: number): void;
    All(session: number): number[];
    Change(session: number, field: number, value: string): number[] | null;
    ValueOf(session: number, field: number): string;
    Violation(session: number, field: number): string;
    Missing(session: number): string;
    Messages(session: number): string;
    Suggestions(session: number): string;
    Offers(session: number, field: number): string[] | null;
    LookUpAgain(session: number): number[];
    Changes(session: number): string;
    Clauses(session: number, rule: number): string;
    Explain(session: number, element: number): string;
  };
  KnownRecords: {
    Know(recordType: string, number: number, values: string): void;
  };
  Sentences: {
    Read(program: number, sentence: string, like: string): string;
    Complete(program: number, sentence: string, cursor: number): string;
  };
}

/** The rule engine, compiled to WebAssembly: the same code that the server judges by. */
export class Engine {
  constructor(private readonly exports: EngineExports) {}

  /** Compiles for the form of that key, or for the main form. */
  compile(definition: Definition, form = ''): CompiledDefinition {
    const program = this.exports.Programs.Compile(JSON.stringify(definition), form);
    const report = JSON.parse(this.exports.Programs.Report()) as CompilationReport;
    return new CompiledDefinition(this.exports, program, definition, report);
  }
}

let loading: Promise<Engine> | undefined;

/** Loads the engine once; later calls share it. */
export function loadEngine(): Promise<Engine> {
  loading ??= load();
  return loading;
}

async function load(): Promise<Engine> {
  const address = '/engine/_framework/dotnet.js';
  const { dotnet } = (await import(/* @vite-ignore */ address)) as {
    dotnet: { create(): Promise<{ getAssemblyExports(name: string): Promise<unknown> }> };
  };
  const runtime = await dotnet.create();
  const exports = (await runtime.getAssemblyExports('Dibujo.Browser')) as { Dibujo: { Browser: EngineExports } };
  return new Engine(exports.Dibujo.Browser);
}
