import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { foreseeConsequences, type ConsequencesView, type RecordType } from '../api/generated';

/** What publishing the record type would do to the records that there are; undefined until it has been counted. */
export function useConsequences(type: RecordType, isWanted: boolean): ConsequencesView | undefined {
  return useQuery({
    queryKey: ['consequences', type.key, type],
    queryFn: () => answered(foreseeConsequences({ path: { key: type.key }, body: type })),
    enabled: isWanted,
    retry: false,
    gcTime: 60_000,
    staleTime: 30_000,
  }).data;
}
