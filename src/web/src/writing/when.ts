import { writtenDate } from './dates';
import { siteTime } from './siteTime';

/** A moment in UTC as the person writes it, by the site's clock, to the minute. */
export const when = (at: string): string => writtenDate(siteTime(new Date(at)).slice(0, 16));

/** The same to the second. */
export const whenExactly = (at: string): string => writtenDate(siteTime(new Date(at)));
