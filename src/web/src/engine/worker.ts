import type { EngineExports } from './engineExports';
import { AskedQueue } from './askedQueue';
import { operationsOn, type Operations } from './operations';

/** One thing that the engine is asked to do. */
export interface Request {
  id: number;
  operation: keyof Operations;
  operands: unknown[];
}

/** What came of it: a result, or the reason why there is none. */
export interface Reply {
  id: number;
  result?: unknown;
  error?: string;
}

const runtimeAddress = '/engine/_framework/dotnet.js';

async function load() {
  const { dotnet } = (await import(/* @vite-ignore */ runtimeAddress)) as {
    dotnet: { create(): Promise<{ getAssemblyExports(name: string): Promise<unknown> }> };
  };
  const runtime = await dotnet.create();
  return operationsOn(
    ((await runtime.getAssemblyExports('Dibujo.Browser')) as { Dibujo: { Browser: EngineExports } }).Dibujo.Browser,
  );
}

const operations = load();

async function run({ id, operation, operands }: Request): Promise<Reply> {
  try {
    const known = await operations;
    return { id, result: await (known[operation] as (...operands: unknown[]) => unknown)(...operands) };
  } catch (mistake) {
    return { id, error: String(mistake) };
  }
}

const queue = new AskedQueue(run, (reply) => postMessage(reply));

// Not by assigning onmessage: where that is set, the runtime waits for ever for a message of its own.
addEventListener('message', ({ data }: MessageEvent<Request>) => queue.add(data));
