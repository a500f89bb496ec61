import { useQuery, useQueryClient } from '@tanstack/react-query';
import { goBy } from '../writing/siteTime';
import { answered, keepToken } from './client';
import { readSignIn, signOut } from './generated';

const key = ['signed-in'];

/** Who is signed in on this browser; fetches the token for changes along with it. */
export function useSignedIn() {
  return useQuery({
    queryKey: key,
    queryFn: async () => {
      const signedIn = await answered(readSignIn());
      keepToken(signedIn.token);
      goBy(signedIn.timeZone);
      return signedIn;
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

export function useSignedInChanged() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: key });
}
