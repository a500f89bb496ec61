import { useEffect, useRef, useState } from 'react';
import { stayConnected } from '../api/stayConnected';

interface News {
  /** Somebody, perhaps this person, saved the record. */
  onSaved?: (by: string) => void;
  /** Some records of the type were saved. */
  onChanged?: (records: number[]) => void;
  /** Another edition is in force, or may be: something may have been missed. */
  onPublished?: (edition: number | undefined) => void;
}

/** Follows what others do to records of a type, and to one of them; answers with the account names of those who have it open. */
export function useLiveRecord(recordType: string, record: number | undefined, news: News): string[] {
  const [here, setHere] = useState<{ record?: number; people: string[] }>({ people: [] });
  const latest = useRef(news);
  useEffect(() => {
    latest.current = news;
  });
  useEffect(() => {
    return stayConnected(
      '/live/records',
      {
        Here: (at: number, people: string[]) => setHere({ record: at, people }),
        Saved: (_: number, by: string) => latest.current.onSaved?.(by),
        Changed: (records: number[]) => latest.current.onChanged?.(records),
        Published: (edition: number) => latest.current.onPublished?.(edition),
      },
      async (connection) => {
        await connection.invoke('Watch', recordType);
        if (record) {
          await connection.invoke('Open', record);
        }
      },
      () => latest.current.onPublished?.(undefined),
    );
  }, [recordType, record]);
  return here.record === record ? here.people : [];
}
