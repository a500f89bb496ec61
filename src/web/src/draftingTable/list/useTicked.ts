import { useCallback, useMemo, useState } from 'react';

/** Rules that are taken together, by their keys. */
export interface Ticked {
  keys: Set<string>;
  /** Takes a rule in or out; with the shift key everything from the last one to it, in the order in which they are drawn. */
  toggle: (key: string, isRange: boolean) => void;
  set: (keys: string[]) => void;
}

export function useTicked(drawn: () => string[]): Ticked {
  const [keys, setKeys] = useState<Set<string>>(() => new Set());
  const [last, setLast] = useState<string>();
  const toggle = useCallback(
    (key: string, isRange: boolean) => {
      const all = drawn();
      const [from, to] = [all.indexOf(last ?? ''), all.indexOf(key)];
      setKeys((before) => {
        const next = new Set(before);
        if (isRange && from >= 0 && to >= 0) {
          all.slice(Math.min(from, to), Math.max(from, to) + 1).forEach((one) => next.add(one));
        } else if (!next.delete(key)) {
          next.add(key);
        }
        return next;
      });
      setLast(key);
    },
    [drawn, last],
  );
  const set = useCallback((next: string[]) => setKeys(new Set(next)), []);
  return useMemo(() => ({ keys, toggle, set }), [keys, toggle, set]);
}
