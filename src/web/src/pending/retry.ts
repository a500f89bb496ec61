import { onSignedIn, type Problem } from '../api/client';

/** Answers of a server that is busy, starting or gone, behind which the next try may well succeed. */
const passing = [408, 425, 429, 502, 503, 504];

/** Whether it passes by itself: the connection is gone, or the server has no time. Whatever else was answered would be answered again. */
export const isPassing = ({ status }: Problem): boolean => status === undefined || status === null || passing.includes(status);

/** Whether nobody, or somebody else, is signed in at this browser. */
export const isSignedOut = ({ status }: Problem): boolean => status === 401;

/** How long it is waited before the next try, in milliseconds, by how many have failed. */
export const delayAfter = (failures: number): number => Math.min(1000 * 2 ** (failures - 1), 15_000);

/** How often somebody who waits for an answer is kept waiting for another try. */
const mostTries = 3;

/** Tries again what failed in a way that passes, as long as somebody who waits for it has patience. What is tried has to bear being done twice. */
export async function attempt<T>(act: () => Promise<T>): Promise<T> {
  for (let failures = 1; ; failures++) {
    try {
      return await act();
    } catch (failure) {
      if (failures >= mostTries || !isPassing(failure as Problem)) {
        throw failure;
      }
      await new Promise((resolve) => setTimeout(resolve, delayAfter(failures)));
    }
  }
}

/** Calls whenever something that failed may well succeed: there is a connection again, or somebody has signed in again. */
export function onBetter(listener: () => void) {
  globalThis.window?.addEventListener('online', listener);
  const stop = onSignedIn(listener);
  return () => {
    globalThis.window?.removeEventListener('online', listener);
    stop();
  };
}
