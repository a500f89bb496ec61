import { useEffect, useState } from 'react';
import type { ClauseExplanation, Rule } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useFromRecord } from '../../engine/useRecord';
import { isSame } from '../draft/steps';

const none: ClauseExplanation[] = [];

/** Every clause of an open rule with the record's present value and its truth, as of the last answer. */
export function useClauses(record: OpenRecord, rule: Rule, place: number): ClauseExplanation[] {
  const [clauses, setClauses] = useState(none);
  const version = useFromRecord(record, () => record.version);
  useEffect(() => {
    let isWanted = true;
    void record
      .clauses(place)
      // The same truths are the same list, so that what stands beside them is not drawn anew.
      .then((found) => isWanted && setClauses((before) => (isSame(before, found) ? before : found)));
    return () => {
      isWanted = false;
    };
  }, [record, rule, place, version]);
  return clauses;
}
