import { useQuery } from '@tanstack/react-query';
import { answered } from './client';
import { listRecordTypes } from './generated';

/** All record types that one may see, asked for once for all who want them. */
export const useRecordTypes = () =>
  useQuery({ queryKey: ['record-types'], queryFn: () => answered(listRecordTypes()), staleTime: 10_000 });

/** What a record type is called; its key until that is known. */
export function useRecordTypeName(): (key: string) => string {
  const all = useRecordTypes().data;
  return (key) => all?.find((type) => type.key === key)?.label ?? key;
}
