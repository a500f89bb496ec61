import { useBlocker } from 'react-router-dom';
import { useClosingWarning } from './useClosingWarning';

/** Asks before the page is left while something is not saved, whether for another page of ours or for good. */
export function useUnsavedWarning(isUnsaved: boolean) {
  useBlocker(({ currentLocation, nextLocation }) => {
    // Another search or hash is another way of looking at the same page.
    if (currentLocation.pathname === nextLocation.pathname) {
      return false;
    }
    const { isSaved } = (nextLocation.state ?? {}) as { isSaved?: boolean };
    return isUnsaved && !isSaved && !window.confirm('Something is not saved yet. Leave all the same?');
  });
  useClosingWarning(isUnsaved);
}
