import { useQuery } from '@tanstack/react-query';
import { answered } from '../../api/client';
import { compareEditions, type Difference } from '../../api/generated';

/** What is other in the draft than in an edition, once asked for; a draft that was stored anew is compared anew. Without an edition everything is new. */
export function useComparison(
  recordType: string,
  edition: number | null,
  version: number,
  isWanted: boolean,
): Difference[] | undefined {
  return useQuery({
    queryKey: ['comparison', recordType, edition, 'draft', version],
    queryFn: () => answered(compareEditions({ path: { key: recordType }, query: { from: String(edition ?? 0), to: 'draft' } })),
    enabled: isWanted,
    placeholderData: (before) => before,
    staleTime: Infinity,
  }).data?.differences;
}
