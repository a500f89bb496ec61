import { useEffect, useState } from 'react';
import type { Foresight } from '../engine/answers';
import type { OpenRecord } from '../engine/openRecord';

/** How long nothing is typed before the moves are thought through, in milliseconds. */
const pause = 100;

/** What would come of each move, and how far each form is, with what is typed now; undefined until that has been thought through. */
export function useOutlook(record: OpenRecord): Foresight | undefined {
  const [known, setKnown] = useState<{ record: OpenRecord; outlook: Foresight }>();
  useEffect(() => {
    let timer = 0;
    let asked = 0;
    const think = () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(() => {
        const mine = ++asked;
        void record.outlook().then((outlook) => {
          if (outlook && mine === asked) {
            setKnown({ record, outlook });
          }
        });
      }, pause);
    };
    think();
    const stop = record.subscribe('any', think);
    return () => {
      window.clearTimeout(timer);
      asked = -1;
      stop();
    };
  }, [record]);
  return known?.record === record ? known.outlook : undefined;
}
