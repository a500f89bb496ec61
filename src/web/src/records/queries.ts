import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { beginRecord, readEdition, readRecord } from '../api/generated';

/** The edition in force of a record type. */
export function useEdition(key: string | undefined) {
  return useQuery({
    queryKey: ['edition', key],
    queryFn: () => answered(readEdition({ path: { key: key! } })),
    enabled: key !== undefined,
  });
}

export function useStoredRecord(id: number) {
  return useQuery({ queryKey: ['record', id], queryFn: () => answered(readRecord({ path: { id } })), gcTime: 0 });
}

export function useBeginning(key: string) {
  return useQuery({ queryKey: ['new-record', key], queryFn: () => answered(beginRecord({ path: { key } })), gcTime: 0 });
}
