import type { WorkerLike } from './engine';
import type { Reply, Request } from './worker';

/** A worker for tests: what it is asked is kept, and answered when the test says so. */
export class FakeWorker implements WorkerLike {
  onmessage: ((event: MessageEvent<Reply>) => void) | null = null;
  onerror: ((event: ErrorEvent) => void) | null = null;
  isTerminated = false;
  readonly asked: Request[] = [];

  postMessage(request: Request) {
    this.asked.push(request);
  }

  terminate() {
    this.isTerminated = true;
  }

  /** Answers the oldest question that is open. */
  async answer(result: unknown) {
    const { id } = this.asked.shift()!;
    this.onmessage?.({ data: { id, result } } as MessageEvent<Reply>);
    await settled();
  }

  async die() {
    this.onerror?.({ message: 'out of memory' } as ErrorEvent);
    await settled();
  }
}

/** Lets everything that waits for an answer go on. */
export const settled = () => new Promise((resolve) => setTimeout(resolve));
