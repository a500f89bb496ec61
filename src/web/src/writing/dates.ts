/** Days and moments by the site's clock, as the person writes them; in records they are text of ISO 8601. As Notation in Dibujo.Core, against which `written.json` holds this. */
import { ownNotation } from './notation';

const english = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A day or moment as the person writes it; any other text as it is. */
export function writtenDate(iso: string): string {
  const [, year = '', month = '', day = '', , hours, minutes, seconds] =
    /^(\d{4})-(\d{2})-(\d{2})(T(\d{2}):(\d{2})(?::(\d{2}))?.*)?$/.exec(iso) ?? [];
  if (!year || Number(month) > 12) {
    return iso;
  }
  const date = writtenDay(year, month, day);
  return hours === undefined ? date : `${date}, ${writtenTime(hours, minutes ?? '', seconds)}`;
}

function writtenDay(year: string, month: string, day: string): string {
  const parts: Record<string, string> = {
    yyyy: year,
    MMM: ownNotation().months[Number(month) - 1] ?? '',
    MM: month,
    M: String(Number(month)),
    dd: day,
    d: String(Number(day)),
  };
  return ownNotation().day.replace(/yyyy|MMM|MM|M|dd|d/g, (part) => parts[part] ?? part);
}

function writtenTime(hours: string, minutes: string, seconds = '00'): string {
  const rest = `:${minutes}${seconds === '00' ? '' : `:${seconds}`}`;
  const hour = Number(hours);
  return ownNotation().is12Hours ? `${hour % 12 || 12}${rest} ${hour < 12 ? 'AM' : 'PM'}` : `${hours}${rest}`;
}

/** Sentences of the engine write days as "5 Jan 2031", also with a time; here as the person does. */
export const inLocale = (sentence: string): string =>
  sentence.replace(
    /\b(\d{1,2}) (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) (\d{4})(?:,? (\d{2}:\d{2}))?\b/g,
    (_, date: string, month: string, year: string, time?: string) => {
      const day = `${year}-${String(english.indexOf(month) + 1).padStart(2, '0')}-${date.padStart(2, '0')}`;
      return writtenDate(time ? `${day}T${time}` : day);
    },
  );
