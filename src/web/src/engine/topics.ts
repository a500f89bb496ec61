/** Who wants to know of what. Touching a topic tells nobody yet: all that was touched is told at once. */
export class Topics {
  private readonly listeners = new Map<string, Set<() => void>>();
  private readonly touched = new Set<string>();

  subscribe(topic: string, listener: () => void) {
    let listening = this.listeners.get(topic);
    if (!listening) {
      listening = new Set();
      this.listeners.set(topic, listening);
    }
    listening.add(listener);
    return () => void listening.delete(listener);
  }

  touch(topic: string) {
    this.touched.add(topic);
  }

  /** The topics beginning so that somebody wants to know of. */
  starting(prefix: string) {
    return [...this.listeners.keys()].filter((topic) => topic.startsWith(prefix));
  }

  /** Tells everybody whose topic was touched since the last time. */
  tell() {
    const topics = [...this.touched];
    this.touched.clear();
    topics.forEach((topic) => this.listeners.get(topic)?.forEach((listener) => listener()));
  }
}
