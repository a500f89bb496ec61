/** Does one thing after the other, in the order in which they were asked for: reads and writes of one thing never overtake each other. */
export class Turns {
  private last: Promise<unknown> = Promise.resolve();

  /** Does it when everything before has ended, well or badly; answers with what comes of it. */
  take<T>(act: () => T | Promise<T>): Promise<T> {
    const turn = this.last.then(act, act);
    this.last = turn.catch(() => undefined);
    return turn;
  }
}
