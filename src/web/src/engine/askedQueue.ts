import type { Reply, Request } from './worker';

/** What takes long and can wait: nobody types on for its sake. */
const patient: Request['operation'][] = ['outlook'];

/**
 * What the engine is asked, one thing after another in the order in which it came; but keys come before what takes long and can
 * wait. Such a thing is begun only when nothing else has come in, and where it is asked of the same session again the one before
 * is answered along with it.
 */
export class AskedQueue {
  private readonly urgent: Request[] = [];
  private readonly waiting: Request[] = [];
  private isRunning = false;

  constructor(
    private readonly run: (request: Request) => Promise<Reply>,
    private readonly answer: (reply: Reply) => void,
  ) {}

  add(request: Request) {
    (patient.includes(request.operation) ? this.waiting : this.urgent).push(request);
    if (!this.isRunning) {
      this.isRunning = true;
      void this.work();
    }
  }

  private async work() {
    for (let next = await this.next(); next; next = await this.next()) {
      const [request, ...same] = next;
      const reply = await this.run(request!);
      this.answer(reply);
      same.forEach(({ id }) => this.answer({ ...reply, id }));
    }
    this.isRunning = false;
  }

  private async next(): Promise<Request[] | undefined> {
    if (this.urgent.length === 0 && this.waiting.length > 0) {
      // Whatever has been sent by now comes in first.
      await new Promise((resolve) => setTimeout(resolve));
    }
    const urgent = this.urgent.shift();
    if (urgent) {
      return [urgent];
    }
    const [first, ...rest] = this.waiting;
    if (!first) {
      return undefined;
    }
    const isSame = (one: Request) => one.operation === first.operation && one.operands[0] === first.operands[0];
    this.waiting.splice(0, this.waiting.length, ...rest.filter((one) => !isSame(one)));
    return [first, ...rest.filter(isSame)];
  }
}
