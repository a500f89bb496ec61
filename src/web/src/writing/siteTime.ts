/** The site's time: days and moments are meant in it, wherever the browser is. The server says which, along with who is signed in. */
let zone: string | undefined;

/** Goes by that zone of the IANA database from now on; by the browser's own where it does not know it. */
export function goBy(name: string) {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    zone = name;
  } catch {
    zone = undefined;
  }
}

/** Its name; undefined for the browser's own. */
export const siteZone = () => zone;

/** What the site's clock shows at that moment, to the second, as in ISO 8601 and without a zone. */
export function siteTime(at = new Date()): string {
  const parts = new Intl.DateTimeFormat('en', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  }).formatToParts(at);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  return `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}:${part('second')}`;
}
