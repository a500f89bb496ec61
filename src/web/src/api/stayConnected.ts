import { HubConnectionBuilder, LogLevel, type HubConnection } from '@microsoft/signalr';
import { connections } from './client';

/** How long it is waited until what broke is made again, in milliseconds: at first, and at most; and where it did not come about at all. */
const [soonest, latest, anew] = [300, 5000, 3000];

/**
 * A connection to one of the server's hubs, made again whenever it breaks; answers how to end it. What this page does itself it is
 * not told.
 * @param on What is done at each of the hub's messages.
 * @param watch Tells the hub what is watched, each time that there is a connection.
 * @param missed Called where there was none for a while: something may have been missed.
 */
export function stayConnected(
  url: string,
  on: Record<string, (...told: never[]) => void>,
  watch: (connection: HubConnection) => Promise<void>,
  missed: () => void,
): () => void {
  let isWanted = true;
  const connection = new HubConnectionBuilder()
    .withUrl(url)
    .withAutomaticReconnect({
      nextRetryDelayInMilliseconds: ({ previousRetryCount }) => Math.min(latest, soonest * 2 ** previousRetryCount),
    })
    .configureLogging(LogLevel.None)
    .build();
  const idOf = () => connection.connectionId;
  connections.add(idOf);
  const start = (then?: () => void) => {
    connection.start().then(
      () => watch(connection).then(then),
      () => isWanted && window.setTimeout(() => start(then), anew),
    );
  };
  Object.entries(on).forEach(([message, act]) => connection.on(message, act as (...told: unknown[]) => void));
  connection.onreconnected(() => void watch(connection).then(missed));
  // The server has ended it: one may do something else by now, or did not read for too long. Who may come again does so.
  connection.onclose(() => isWanted && window.setTimeout(() => start(missed), soonest));
  start();
  return () => {
    isWanted = false;
    connections.delete(idOf);
    void connection.stop();
  };
}
