import { toEpochDay, toMinutes } from './localDate';
import { LocalDate } from './plan';
import { offsetAt, toInstant } from './zone';
import { zoneBands } from './zones';

const HOME = 'America/Halifax';
const at = (date: string, clock = '18:30') => {
  const startsAt = toInstant(HOME, toEpochDay(date), toMinutes(clock));
  return { startsAt, endsAt: startsAt + 80 * 60_000 };
};
const TUESDAYS = ['2026-10-13', '2026-10-20', '2026-10-27', '2026-11-03', '2026-11-10'].map((d) => at(d));
const band = (zone: string, sessions = TUESDAYS) => zoneBands(HOME, [{ zone, people: 5 }], sessions)[0]!;

test('where clocks change on different dates, the sessions between drift and the others do not', () => {
  const lisbon = band('Europe/Lisbon');
  expect(lisbon.hours.map((h) => [h.date, h.minutes / 60, h.drift])).toEqual([
    ['2026-10-13', 22.5, 0],
    ['2026-10-20', 22.5, 0],
    ['2026-10-27', 21.5, -60],
    ['2026-11-03', 22.5, 0],
    ['2026-11-10', 22.5, 0],
  ]);
  expect(lisbon.shifts).toEqual([]);
});

test('a zone that never changes shifts for good when home does, and does not drift', () => {
  const spain = band('America/Port_of_Spain');
  expect(spain.hours.every((h) => h.drift === 0)).toBe(true);
  expect(spain.shifts).toEqual([{ startsAt: TUESDAYS[3]!.startsAt, minutes: 60 }]);
  expect(spain.hours.map((h) => h.minutes / 60)).toEqual([17.5, 17.5, 17.5, 18.5, 18.5]);
});

test('the day may be another, and home is always itself', () => {
  const kathmandu = band('Asia/Kathmandu');
  expect(kathmandu.hours[0]).toMatchObject({
    date: '2026-10-14',
    dayShift: 1,
    minutes: 3 * 60 + 15,
    hour: 'night',
  });
  expect(band(HOME).hours.every((h) => h.dayShift === 0 && h.drift === 0 && h.minutes === 1110)).toBe(true);
  expect(zoneBands(HOME, [{ zone: 'UTC', people: 1 }], [])[0]!.hours).toEqual([]);
});

test('summer time is known to the end of the century, and a date beyond is refused in words', () => {
  const at = (year: number) => offsetAt('America/Halifax', Date.UTC(year, 6, 1));
  expect([at(2026), at(2059), at(2060), at(2100)]).toEqual([-180, -180, -180, -180]);
  expect(LocalDate.safeParse('2100-12-31').success).toBe(true);
  const beyond = LocalDate.safeParse('2101-01-01');
  expect(beyond.error?.issues[0]?.message).toBe('Give a date from 1990 to 2100.');
});
