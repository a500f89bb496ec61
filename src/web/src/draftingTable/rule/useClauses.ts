import { useEffect, useState } from 'react';
import type { ClauseExplanation, Rule } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useFromRecord } from '../../engine/useRecord';

const none: ClauseExplanation[] = [];

/** Every clause of an open rule with the record's present value and its truth, as of the last answer. */
export function useClauses(record: OpenRecord, rule: Rule, place: number): ClauseExplanation[] {
  const [clauses, setClauses] = useState(none);
  const version = useFromRecord(record, () => record.version);
  useEffect(() => {
    let isWanted = true;
    void record.clauses(place).then((found) => isWanted && setClauses(found));
    return () => {
      isWanted = false;
    };
  }, [record, rule, place, version]);
  return clauses;
}
