import { useEffect } from 'react';

/** Has the browser ask before the page is left while something is not saved. */
export function useUnsavedWarning(isUnsaved: boolean) {
  useEffect(() => {
    if (!isUnsaved) {
      return;
    }
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [isUnsaved]);
}
