import { HubConnectionBuilder, LogLevel, type HubConnection } from '@microsoft/signalr';
import { useEffect, useRef, useState } from 'react';

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
    let isWanted = true;
    const connection: HubConnection = new HubConnectionBuilder()
      .withUrl('/live/records')
      .withAutomaticReconnect({
        nextRetryDelayInMilliseconds: ({ previousRetryCount }) => Math.min(5000, 300 * 2 ** previousRetryCount),
      })
      .configureLogging(LogLevel.None)
      .build();
    const watch = async () => {
      await connection.invoke('Watch', recordType);
      if (record) {
        await connection.invoke('Open', record);
      }
    };
    const again = () => watch().then(() => latest.current.onPublished?.(undefined));
    const start = () => {
      connection.start().then(watch, () => isWanted && window.setTimeout(start, 3000));
    };
    connection.on('Here', (at: number, people: string[]) => setHere({ record: at, people }));
    connection.on('Saved', (_: number, by: string) => latest.current.onSaved?.(by));
    connection.on('Changed', (records: number[]) => latest.current.onChanged?.(records));
    connection.on('Published', (edition: number) => latest.current.onPublished?.(edition));
    connection.onreconnected(() => void again());
    start();
    return () => {
      isWanted = false;
      void connection.stop();
    };
  }, [recordType, record]);
  return here.record === record ? here.people : [];
}
