/** Something that is done after a while, once however often it is asked for: what is planned sooner stays so, and nothing puts it off. */
export function planned(act: () => void) {
  let timer = 0;
  let due = Infinity;
  return {
    /** Has it done after so many milliseconds at the latest. */
    within(pause: number) {
      const at = Date.now() + pause;
      if (at < due) {
        window.clearTimeout(timer);
        due = at;
        timer = window.setTimeout(() => {
          due = Infinity;
          act();
        }, pause);
      }
    },
    stop() {
      window.clearTimeout(timer);
      due = Infinity;
    },
  };
}
