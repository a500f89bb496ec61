import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr';
import { useEffect } from 'react';

/** Calls whenever somebody has changed the draft, and whenever something may have been missed. */
export function useLive(recordType: string, onChange: () => void) {
  useEffect(() => {
    const connection = new HubConnectionBuilder()
      .withUrl('/live/drafts')
      .withAutomaticReconnect({
        nextRetryDelayInMilliseconds: ({ previousRetryCount }) => Math.min(5000, 300 * 2 ** previousRetryCount),
      })
      .configureLogging(LogLevel.None)
      .build();
    let isWanted = true;
    const watch = async () => {
      await connection.invoke('Watch', recordType);
      onChange();
    };
    const start = () => {
      connection.start().then(watch, () => isWanted && window.setTimeout(start, 3000));
    };
    connection.on('Changed', onChange);
    connection.onreconnected(() => void watch());
    start();
    window.addEventListener('online', onChange);
    return () => {
      isWanted = false;
      window.removeEventListener('online', onChange);
      void connection.stop();
    };
  }, [recordType, onChange]);
}
