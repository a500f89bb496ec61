import { useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { answered } from './client';
import { listPeople } from './generated';

/** Tells what a person is called by the name of the account; the account's name where nobody knows. */
export function usePeople(): (userName: string | undefined) => string {
  const people = useQuery({ queryKey: ['people'], queryFn: () => answered(listPeople()), staleTime: 60_000 }).data;
  return useCallback(
    (userName: string | undefined) => people?.find((person) => person.userName === userName)?.displayName ?? userName ?? '',
    [people],
  );
}
