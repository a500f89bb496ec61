import { afterEach, describe, expect, it } from 'vitest';
import { goBy, siteTime, siteZone } from './siteTime';
import { when, whenExactly } from './when';

afterEach(() => goBy('UTC'));

describe('the site’s time', () => {
  it.each([
    ['UTC', '2026-12-31T23:30:05'],
    ['Europe/Berlin', '2027-01-01T00:30:05'],
    ['America/St_Johns', '2026-12-31T20:00:05'],
    ['Pacific/Kiritimati', '2027-01-01T13:30:05'],
  ])('is that of %s, wherever the browser is', (zone, shown) => {
    goBy(zone);
    expect(siteTime(new Date('2026-12-31T23:30:05Z'))).toBe(shown);
  });

  it('says when something was saved, and what today is', () => {
    goBy('Pacific/Kiritimati');
    expect(when('2026-12-31T23:30:05Z')).toContain('2027');
    expect(whenExactly('2026-12-31T23:30:05Z')).toContain('05');
  });

  it('is the browser’s where that does not know the zone', () => {
    goBy('Nowhere/At_All');
    expect(siteZone()).toBeUndefined();
  });
});
