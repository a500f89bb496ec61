import { useEffect, useState } from 'react';
import type { DecisionTable } from '../../api/generated';
import type { TableReach } from '../../engine/answers';
import { useSurroundings } from '../rule/draftContext';

/** How long a table rests before it is looked through, in milliseconds. */
const pause = 250;
const nothing: TableReach = { unreached: [], overlaps: [], gaps: [] };

/** Which rows are reached and what none covers, a moment after the table was changed. */
export function useReach(table: DecisionTable): TableReach {
  const { reach } = useSurroundings();
  const [found, setFound] = useState<{ of: DecisionTable; reach: TableReach }>();
  useEffect(() => {
    const timer = window.setTimeout(
      () =>
        void reach(table).then(
          (next) => setFound({ of: table, reach: next }),
          () => undefined,
        ),
      pause,
    );
    return () => window.clearTimeout(timer);
  }, [reach, table]);
  return found?.of === table ? found.reach : nothing;
}
