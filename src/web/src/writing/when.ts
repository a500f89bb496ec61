import { siteZone } from './siteTime';

/** A moment in UTC as the person's locale writes it, by the site's clock, to the minute. */
export const when = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short', timeZone: siteZone() });

/** The same to the second. */
export const whenExactly = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium', timeZone: siteZone() });
