import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { beginRecord, readRecord, readRecordType } from '../api/generated';

/** The record type as that edition has it; by default, as the one in force does. */
export function useRecordType(key: string | undefined, edition?: number) {
  return useQuery({
    queryKey: ['record-type', key, edition],
    queryFn: () => answered(readRecordType({ path: { key: key! }, query: { edition } })),
    enabled: key !== undefined,
    // An edition never changes; which one is in force does.
    staleTime: edition === undefined ? 0 : Infinity,
  });
}

/** The record as that form shows it; by default the main form. */
export function useStoredRecord(id: number, form?: string) {
  return useQuery({
    queryKey: ['record', id, form],
    queryFn: () => answered(readRecord({ path: { id }, query: { form } })),
    gcTime: 0,
  });
}

export function useBeginning(key: string, form?: string) {
  return useQuery({
    queryKey: ['new-record', key, form],
    queryFn: () => answered(beginRecord({ path: { key }, query: { form } })),
    gcTime: 0,
  });
}
