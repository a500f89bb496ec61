import { useEffect, useState } from 'react';
import type { Outlook } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';

/** How long nothing is typed before the moves are thought through, in milliseconds. */
const pause = 250;

/** What would come of each move with what is typed now; undefined until that has been thought through. */
export function useOutlook(record: FormRecord): Outlook[] | undefined {
  const [known, setKnown] = useState<{ record: FormRecord; version: number; outlook: Outlook[] | null }>();
  const { version } = record;
  useEffect(() => {
    const timer = window.setTimeout(() => setKnown({ record, version, outlook: record.outlook() }), pause);
    return () => window.clearTimeout(timer);
  }, [record, version]);
  return known?.record === record && known.version === version ? (known.outlook ?? undefined) : undefined;
}
