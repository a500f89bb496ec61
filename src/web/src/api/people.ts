import { useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { knowPeople } from '../engine/pageEngine';
import { answered } from './client';
import { listPeople } from './generated';

/** All who can sign in. The engine is told as well: it reads their names where they are typed. */
export const peopleQuery = {
  queryKey: ['people'],
  queryFn: async () => {
    const people = await answered(listPeople());
    knowPeople(people);
    return people;
  },
  staleTime: 60_000,
};

/** Tells what a person is called by the name of the account; the account's name where nobody knows. */
export function usePeople(): (userName: string | undefined) => string {
  const people = useQuery(peopleQuery).data;
  return useCallback(
    (userName: string | undefined) => people?.find((person) => person.userName === userName)?.displayName ?? userName ?? '',
    [people],
  );
}
