import type { Definition } from '../api/generated';
import { CompiledDefinition } from './compiledDefinition';
import type { EngineExports } from './engineExports';

/** The rule engine, compiled to WebAssembly: the same code that the server judges by. */
export class Engine {
  private last?: CompiledDefinition;

  constructor(private readonly exports: EngineExports) {}

  /** Compiles, for all forms at once. What the last definition had in common with it is not handed over again. */
  compile(definition: Definition): CompiledDefinition {
    return (this.last = this.last?.changedTo(definition) ?? CompiledDefinition.of(this.exports, definition));
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
