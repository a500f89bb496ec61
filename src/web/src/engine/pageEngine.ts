import type { PersonEntry } from '../api/generated';
import { onNotation, ownNotation } from '../writing/notation';
import type { Writer } from './answers';
import { Editions } from './editions';
import { Engine, type WorkerLike } from './engine';

let people: PersonEntry[] = [];

/** Whose texts are read, and what people are called in them. */
const writer = (): Writer => {
  const { language, day, numbers } = ownNotation();
  return { language, day, marks: numbers, people };
};

/** The engine of this page; it starts with the first thing that it is asked. */
export const engine = new Engine(
  () => new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }) as unknown as WorkerLike,
  () => [{ operation: 'goBy', operands: [writer()] }],
);

const tell = () => engine.isRunning && void engine.ask('goBy', writer()).catch(() => undefined);
onNotation(tell);

/** Tells the engine what people are called. */
export function knowPeople(known: PersonEntry[]) {
  people = known;
  tell();
}

/** The editions that this page's engine has compiled. */
export const editions = new Editions(engine);
