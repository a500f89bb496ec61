/** A moment as the person's locale writes it, to the minute. */
export const when = (at: string): string => new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
