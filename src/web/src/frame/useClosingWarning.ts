import { useEffect } from 'react';

/** Asks before the window is closed or loaded anew while something is not saved; other pages of ours can be gone to. */
export function useClosingWarning(isUnsaved: boolean) {
  useEffect(() => {
    if (!isUnsaved) {
      return;
    }
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [isUnsaved]);
}
