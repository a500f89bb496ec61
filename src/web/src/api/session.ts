import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, keepToken } from './client';
import { readSession, signOut } from './generated';

const key = ['session'];

/** Who is signed in on this browser; fetches the token for changes along with it. */
export function useSession() {
  return useQuery({
    queryKey: key,
    queryFn: async () => {
      const session = await answered(readSession());
      keepToken(session.token);
      return session;
    },
    staleTime: Infinity,
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return async () => {
    await answered(signOut());
    queries.clear();
    window.location.assign('/');
  };
}

export function useSessionChanged() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: key });
}
