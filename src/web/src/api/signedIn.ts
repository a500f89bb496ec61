import { useQuery, useQueryClient } from '@tanstack/react-query';
import { writeBy } from '../writing/notation';
import { goBy } from '../writing/siteTime';
import { answered, keepSignIn, signedInHere } from './client';
import { readSignIn, signOut } from './generated';

const key = ['signed-in'];

/** Who is signed in on this browser; fetches the token for changes along with it. */
export function useSignedIn() {
  return useQuery({
    queryKey: key,
    queryFn: async () => {
      const signedIn = await answered(readSignIn());
      keepSignIn(signedIn);
      goBy(signedIn.timeZone);
      writeBy(signedIn.notation);
      return signedIn;
    },
    staleTime: Infinity,
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return async () => {
    await answered(signOut());
    signedInHere(await answered(readSignIn()));
    queries.clear();
    window.location.assign('/');
  };
}

/** To be called when somebody has tried to sign in: takes over who is signed in now. Where that is not the person of this page the page is loaded anew. */
export function useSignedInChanged() {
  const queries = useQueryClient();
  return async () => {
    const signedIn = await answered(readSignIn());
    if (!signedInHere(signedIn) && signedIn.person) {
      // Nothing that is on this page is that person's; what was typed on it is kept for whoever typed it.
      window.location.reload();
    }
    queries.setQueryData(key, signedIn);
  };
}
