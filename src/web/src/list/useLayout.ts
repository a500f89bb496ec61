import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import type { ColumnView, RecordType } from '../api/generated';
import { layoutOf, leftOut, writtenLayout, type Layout } from './layout';

/** How long the layout stays as it is before the address says so, in milliseconds. */
const pause = 300;

/** How many of the latest changes an address may be behind. */
const mostKnown = 50;

/**
 * How a list is seen: the address says it, so that Back leads to it and it can be sent to a colleague. What is changed here counts at
 * once, and the address follows: no letter that is typed waits for it.
 * @param last The layout that the person had last; it counts where the address says none.
 */
export function useLayout(type: RecordType, known: ColumnView[], last: unknown) {
  const [address, setAddress] = useSearchParams();
  const written = address.get('list');
  const said = useMemo(() => layoutOf(written ? writtenLayout(written) : last, type, known), [written, last, type, known]);
  const missing = useMemo(() => leftOut(written ? writtenLayout(written) : last, said), [written, last, said]);
  /** What was changed here, and what the address said then and has been told since. */
  const [own, setOwn] = useState<{ layout: Layout; known: (string | null)[] }>();
  const layout = own?.known.includes(written) ? own.layout : said;
  const latest = useRef(layout);
  useEffect(() => {
    latest.current = layout;
  });

  function change(part: Partial<Layout>) {
    const next = { ...latest.current, ...part };
    latest.current = next;
    setOwn((before) => ({
      layout: next,
      known: [...(before?.known.includes(written) ? before.known.slice(-mostKnown) : []), written, JSON.stringify(next)],
    }));
  }

  const follow = useEffectEvent((next: Layout) => {
    if (own?.layout === next && written !== JSON.stringify(next)) {
      setAddress({ list: JSON.stringify(next) }, { replace: true });
    }
  });
  useEffect(() => {
    const timer = window.setTimeout(() => follow(layout), pause);
    return () => window.clearTimeout(timer);
  }, [layout]);

  return { layout, missing, change };
}
