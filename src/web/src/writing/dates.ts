/** Days and moments by the site's clock, as the person's locale writes them. In records they are text of ISO 8601. */
import { siteTime } from './siteTime';

const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: 'UTC' });
const moment = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short', timeZone: 'UTC' });

/** The names of the months, short and long, with the month's number. */
const months = new Map(
  (['short', 'long'] as const).flatMap((month) =>
    [undefined, 'en'].flatMap((locale) =>
      Array.from({ length: 12 }, (_, i): [string, number] => [
        plain(new Intl.DateTimeFormat(locale, { month, timeZone: 'UTC' }).format(Date.UTC(2026, i, 15))),
        i + 1,
      ]),
    ),
  ),
);

/** Whether the locale writes the day before the month. */
const isDayFirst = (() => {
  const kinds = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'numeric' }).formatToParts(0).map(({ type }) => type);
  return kinds.indexOf('day') < kinds.indexOf('month');
})();

const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text);
const isMoment = (text: string) => /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(text);

/** A day or moment as the locale writes it; any other text as it is. */
export function writtenDate(iso: string): string {
  const at = isDay(iso) ? Date.parse(`${iso}T00:00Z`) : isMoment(iso) ? Date.parse(`${iso.slice(0, 19)}Z`) : NaN;
  return Number.isNaN(at) ? iso : (isDay(iso) ? day : moment).format(at);
}

/**
 * The day that somebody typed: as the locale writes it, as ISO does, with a month in words, in figures in the locale's order, or as
 * "today", "tomorrow", "+14". Without a year it is this year's. Null for anything else, and for days that no calendar has.
 */
export function readDay(typed: string, today = isoToday()): string | null {
  const text = plain(typed);
  const offset = { yesterday: -1, today: 0, tomorrow: 1 }[text] ?? (/^[+-]\d{1,4}$/.test(text) ? Number(text) : undefined);
  if (offset !== undefined) {
    return iso(Date.parse(`${today}T00:00Z`) + offset * 86_400_000);
  }
  const figures = /^(\d{2})(\d{2})(\d{4})$/.exec(text)?.slice(1) ?? text.match(/\d+/g) ?? [];
  const words = text.match(/\p{L}+/gu)?.filter((word) => months.has(word)) ?? [];
  if (figures.length === 3 && /^\d{4}/.test(text) && figures[0]?.length === 4) {
    return valid(figures[0], figures[1], figures[2]);
  }
  if (words.length === 1) {
    const [first = '', second] = figures;
    return figures.length > 2 ? null : valid(second ?? today.slice(0, 4), String(months.get(words[0] ?? '')), first);
  }
  if (/\p{L}/u.test(text) || figures.length < 2 || figures.length > 3) {
    return null;
  }
  const [one = '', other = '', year = today.slice(0, 4)] = figures;
  return isDayFirst || text.includes('.') ? valid(year, other, one) : valid(year, one, other);
}

/** The moment that somebody typed: a day and a time of day after it. Null for anything else. */
export function readMoment(typed: string, today = isoToday()): string | null {
  const [, before, hours, minutes, half] =
    /^(.*?)[\s,T]+(?:at\s+)?(\d{1,2})[:.h](\d{2})\s*([ap]\.?m\.?)?$/iu.exec(typed.trim()) ?? [];
  const date = before === undefined ? null : readDay(before.replace(/,\s*$/, ''), today);
  if (date === null || hours === undefined || minutes === undefined) {
    return null;
  }
  const hour = half ? (Number(hours) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hours);
  return hour > 23 || Number(minutes) > 59 ? null : `${date}T${String(hour).padStart(2, '0')}:${minutes}`;
}

/** Sentences of the engine write days as "5 Jan 2031", also with a time; here as the locale writes them. */
export const inLocale = (sentence: string): string =>
  sentence.replace(
    /\b(\d{1,2}) (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) (\d{4})(?:,? (\d{2}:\d{2}))?\b/g,
    (all, date: string, month: string, year: string, time?: string) => {
      const found = valid(year, String(months.get(month.toLowerCase())), date);
      return found === null ? all : writtenDate(time ? `${found}T${time}` : found);
    },
  );

const isoToday = () => siteTime().slice(0, 10);

const iso = (at: number) => new Date(at).toISOString().slice(0, 10);

function valid(year: string, month = '', date = ''): string | null {
  const full = year.length === 2 ? `20${year}` : year;
  const at = Date.UTC(Number(full), Number(month) - 1, Number(date));
  const found = full.length === 4 && !Number.isNaN(at) ? iso(at) : '';
  return found === `${full}-${month.padStart(2, '0')}-${date.padStart(2, '0')}` ? found : null;
}

function plain(text: string) {
  return text.trim().toLocaleLowerCase().replace(/\.$/, '');
}
