import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { beginRecord, readRecord, readRecordType } from '../api/generated';

/** Reads the record type as that edition has it; by default, as the one in force does. */
export const recordTypeQuery = (key: string, edition?: number) => ({
  queryKey: ['record-type', key, edition],
  queryFn: () => answered(readRecordType({ path: { key }, query: { edition } })),
  // An edition never changes; which one is in force does.
  staleTime: edition === undefined ? 0 : Infinity,
});

/** The record type as that edition has it; by default, as the one in force does. */
export const useRecordType = (key: string | undefined, edition?: number) =>
  useQuery({ ...recordTypeQuery(key ?? '', edition), enabled: key !== undefined });

/** The record as that form shows it; by default the first that applies. */
export const useStoredRecord = (id: number, form?: string) =>
  useQuery({
    queryKey: ['record', id, form],
    queryFn: () => answered(readRecord({ path: { id }, query: { form } })),
    gcTime: 0,
    staleTime: Infinity,
  });

/** A record that is about to be begun, as that form shows it, in that workflow; by default the first of each. */
export const useBeginning = (key: string, form?: string, workflow?: string) =>
  useQuery({
    queryKey: ['new-record', key, form, workflow],
    queryFn: () => answered(beginRecord({ path: { key }, query: { form, workflow } })),
    gcTime: 0,
    staleTime: Infinity,
  });
