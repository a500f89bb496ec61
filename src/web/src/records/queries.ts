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
