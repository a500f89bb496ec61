import { useQuery } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { loadEngine } from './engine';
import type { FormRecord } from './formRecord';

/** The engine once it has loaded; undefined until then, and for good where it cannot load. */
export function useEngine() {
  const {
    data: engine,
    isLoading,
    error,
  } = useQuery({ queryKey: ['engine'], queryFn: loadEngine, staleTime: Infinity, gcTime: Infinity });
  return { engine, isLoading, error };
}

/** Draws anew whenever the record changes. */
export function useChanges(record: FormRecord) {
  useSyncExternalStore(record.subscribe, () => record.version);
}
