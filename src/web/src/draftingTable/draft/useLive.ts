import { useEffect } from 'react';
import { stayConnected } from '../../api/stayConnected';

/** Calls whenever somebody has changed the draft, and whenever something may have been missed. */
export function useLive(recordType: string, onChange: () => void) {
  useEffect(() => {
    const watch = (connection: { invoke: (method: string, of: string) => Promise<unknown> }) =>
      connection.invoke('Watch', recordType).then(onChange);
    const end = stayConnected('/live/drafts', { Changed: onChange }, watch, () => undefined);
    window.addEventListener('online', onChange);
    return () => {
      window.removeEventListener('online', onChange);
      end();
    };
  }, [recordType, onChange]);
}
