import type { Operations } from './operations';
import type { Reply, Request } from './worker';

/** How long an answer may take before the worker counts as dead, in milliseconds: a large draft takes its time to be checked. */
const patience = 180_000;

/** How many workers may die one after another without an answer before no other is started. */
const mostDeaths = 3;

/** As much of a worker as is needed here. */
export interface WorkerLike {
  onmessage: ((event: MessageEvent<Reply>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  postMessage(request: Request): void;
  terminate(): void;
}

interface Waiting {
  resolve: (result: never) => void;
  reject: (reason: Error) => void;
  timer: ReturnType<typeof setTimeout>;
}

/** The worker died, or the engine could not do what it was asked. */
export class EngineError extends Error {}

/** The rule engine in a worker: the same code that the server judges by. Asked one thing at a time, in order. */
export class Engine {
  private worker?: WorkerLike;
  private lastId = 0;
  private deaths = 0;
  private warmed = -1;
  private readonly waiting = new Map<number, Waiting>();
  private readonly mourners = new Set<() => void>();
  /** Goes up each time a worker dies: what was opened in an earlier one is gone. */
  generation = 0;

  /** Whether somebody has asked for something already, or has it begun. */
  get isRunning() {
    return this.worker !== undefined;
  }

  /**
   * @param begin Begins a worker.
   * @param prepare What each worker is asked before anything else.
   */
  constructor(
    private readonly begin: () => WorkerLike,
    private readonly prepare: () => Omit<Request, 'id'>[] = () => [],
  ) {}

  /** Starts the worker, unless it runs. */
  start() {
    if (this.worker) {
      return;
    }
    const worker = this.begin();
    worker.onmessage = ({ data: { id, result, error } }) => {
      this.deaths = 0;
      const asked = this.waiting.get(id);
      this.waiting.delete(id);
      if (asked) {
        clearTimeout(asked.timer);
        if (error === undefined) {
          asked.resolve(result as never);
        } else {
          asked.reject(new EngineError(error));
        }
      }
    };
    worker.onerror = (event) => this.restart(event.message);
    this.worker = worker;
    this.prepare().forEach((first) => worker.postMessage({ id: 0, ...first }));
  }

  /** What comes of an operation; rejected where the engine cannot do it, or dies before it has. */
  ask<K extends keyof Operations>(
    operation: K,
    ...operands: Parameters<Operations[K]>
  ): Promise<Awaited<ReturnType<Operations[K]>>> {
    if (this.deaths >= mostDeaths) {
      return Promise.reject(new EngineError('The engine does not stay alive.'));
    }
    this.start();
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => this.restart(`no answer to ${operation} in ${patience / 1000} s`), patience);
      this.waiting.set(id, { resolve, reject, timer });
      this.worker!.postMessage({ id, operation, operands });
    });
  }

  /** Gets ready for what may be asked next, once for each worker. */
  async warm() {
    if (this.warmed !== this.generation) {
      this.warmed = this.generation;
      await this.ask('warm').catch(() => undefined);
    }
  }

  /** Tells when a worker has died; whatever is asked next starts another. */
  onDeath(listener: () => void) {
    this.mourners.add(listener);
    return () => void this.mourners.delete(listener);
  }

  /** Ends the worker, with all that it owes; whatever is asked next starts another, unless too many have died one after another. */
  restart(reason: string) {
    this.worker?.terminate();
    this.worker = undefined;
    this.deaths++;
    this.generation++;
    const lost = [...this.waiting.values()];
    this.waiting.clear();
    lost.forEach(({ reject, timer }) => {
      clearTimeout(timer);
      reject(new EngineError(`The engine stopped: ${reason}`));
    });
    [...this.mourners].forEach((listener) => listener());
  }
}
