import type { Problem } from '../api/client';
import { delayAfter, isPassing, onBetter } from './retry';

/**
 * Sends what is pending by itself, one sending after the other: some time after it was asked to, again and again where what failed
 * passes, and as soon as there is a connection or a sign-in again. What was refused is sent again when somebody changes it.
 */
export class Sending {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: Promise<void> | undefined;
  private failures = 0;
  private isClosed = false;
  private readonly stopListening = onBetter(() => this.failures > 0 && void this.now());

  /**
   * @param send Sends all that there is, and rejects with the problem where that fails.
   * @param onProblem Told why it is not sent; undefined once it is.
   */
  constructor(
    private readonly send: () => Promise<void>,
    private readonly onProblem: (problem: Problem | undefined) => void,
  ) {}

  /** Sends in that many milliseconds, unless something is planned sooner than a failed sending would be. */
  soon(pause: number) {
    clearTimeout(this.timer);
    if (!this.isClosed) {
      this.timer = setTimeout(() => void this.now(), pause);
    }
  }

  /** Sends at once, or goes on with what is being sent. */
  now(): Promise<void> {
    clearTimeout(this.timer);
    this.running ??= this.run().finally(() => (this.running = undefined));
    return this.running;
  }

  /** Sends what waits, and nothing after. */
  close(): Promise<void> {
    return this.now().finally(() => {
      this.isClosed = true;
      clearTimeout(this.timer);
      this.stopListening();
    });
  }

  private async run() {
    if (this.isClosed) {
      return;
    }
    try {
      await this.send();
      this.failures = 0;
      this.onProblem(undefined);
    } catch (failure) {
      const problem = failure as Problem;
      this.failures++;
      this.onProblem(problem);
      if (isPassing(problem)) {
        this.soon(delayAfter(this.failures));
      }
    }
  }
}
