import { Temporal } from 'temporal-polyfill';
import { changesBetween, isZone, offsetAt, toInstant, toWall } from './zone';

/** Every change of a zone's clocks as Temporal finds them, with the minutes east of UTC from then on. */
function* byTemporal(zone: string, from: string, to: string) {
  const end = Temporal.Instant.from(to).epochMilliseconds;
  let at = Temporal.Instant.from(from).toZonedDateTimeISO(zone);
  for (;;) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= end) return;
    if (next.offsetNanoseconds !== at.offsetNanoseconds)
      yield { at: next.epochMilliseconds, after: next.offsetNanoseconds / 60e9 };
    at = next;
  }
}

/** `ZONES_FROM=1990 npx jest zone.test` takes all the years, and most of a minute. */
const FROM = process.env.ZONES_FROM ?? '2023';

test('clocks change when Temporal says they do, in every zone', () => {
  for (const zone of Intl.supportedValuesOf('timeZone')) {
    const [from, to] = [`${FROM}-01-02T00:00Z`, '2030-01-01T00:00Z'];
    const own = changesBetween(zone, Date.parse(from), Date.parse(to) - 1);
    expect([zone, ...own.map(({ at, after }) => ({ at, after }))]).toEqual([
      zone,
      ...byTemporal(zone, from, to),
    ]);
  }
});

test('what a year begins with, and what lies outside the years that are known, has an offset too', () => {
  // Samoa left out a whole day as the year 2012 began to be near; its clocks jump by 24 hours.
  expect(offsetAt('Pacific/Apia', Date.UTC(2011, 11, 29))).toBe(-600);
  expect(offsetAt('Pacific/Apia', Date.UTC(2011, 11, 31))).toBe(840);
  expect(offsetAt('Europe/Lisbon', Date.UTC(1970, 0, 1))).toBe(
    offsetAt('Europe/Lisbon', Date.UTC(1990, 0, 1)),
  );
  expect(offsetAt('Europe/Lisbon', Date.UTC(2300, 6, 1))).toBe(0);
  expect(toWall('Asia/Kathmandu', toInstant('Asia/Kathmandu', 20_000, 615))).toEqual({
    day: 20_000,
    minutes: 615,
  });
});

test('a zone is a name of the time zone database', () => {
  expect(['America/Halifax', 'UTC', 'Asia/Kolkata'].every(isZone)).toBe(true);
  expect(['', '+03:00', 'Mars/Olympus', 'Halifax'].some(isZone)).toBe(false);
});
