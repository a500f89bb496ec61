import { useEffect, useRef, useState } from 'react';
import { stayConnected } from '../../api/stayConnected';

/** Somebody who has the draft open, and where: a sheet, and behind a stroke a rule. */
export interface PersonAt {
  person: string;
  place: string;
}

interface Connection {
  invoke: (method: string, ...of: string[]) => Promise<unknown>;
}

/**
 * Calls whenever somebody has changed the draft, and whenever something may have been missed; answers with all who have it open.
 * @param place Where one is oneself.
 */
export function useLive(recordType: string, place: string, onChange: () => void): PersonAt[] {
  const [here, setHere] = useState<PersonAt[]>([]);
  const connected = useRef<Connection>(undefined);
  const at = useRef(place);
  useEffect(() => {
    const stand = () => connected.current?.invoke('Stand', recordType, at.current).catch(() => undefined);
    const watch = (connection: Connection) => {
      connected.current = connection;
      return connection.invoke('Watch', recordType).then(() => {
        onChange();
        void stand();
      });
    };
    const end = stayConnected(
      '/live/drafts',
      { Changed: onChange, Here: (all: PersonAt[]) => setHere(all) },
      watch,
      () => undefined,
    );
    window.addEventListener('online', onChange);
    return () => {
      window.removeEventListener('online', onChange);
      connected.current = undefined;
      end();
    };
  }, [recordType, onChange]);
  useEffect(() => {
    at.current = place;
    // Who walks through the rules is not followed at every step.
    const timer = window.setTimeout(() => void connected.current?.invoke('Stand', recordType, place).catch(() => undefined), 400);
    return () => window.clearTimeout(timer);
  }, [recordType, place]);
  return here;
}
