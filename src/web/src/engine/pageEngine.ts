import { Editions } from './editions';
import { Engine, type WorkerLike } from './engine';

/** The engine of this page; it starts with the first thing that it is asked. */
export const engine = new Engine(
  () => new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }) as unknown as WorkerLike,
);

/** The editions that this page's engine has compiled. */
export const editions = new Editions(engine);
