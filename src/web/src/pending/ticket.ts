/**
 * By which the server knows a request that it has answered already, where the answer was lost: sent again with the same ticket it does
 * nothing twice. Undefined where a browser makes none, as on a page that came over an open line.
 */
export const newTicket = (): string | undefined => globalThis.crypto?.randomUUID?.();
