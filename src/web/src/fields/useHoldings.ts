import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { countHoldings, type HoldingsView } from '../api/generated';
import { writtenNumber } from '../writing/numbers';

/** How many records hold what; undefined until they have been counted. A record type that was never published has none. */
export function useHoldings(type: string, isPublished: boolean): HoldingsView | undefined {
  return useQuery({
    queryKey: ['holdings', type],
    queryFn: () => answered(countHoldings({ path: { key: type } })),
    enabled: isPublished,
    staleTime: 10_000,
  }).data;
}

export const recordsOf = (count: number): string => (count === 1 ? '1 record' : `${writtenNumber(count)} records`);
