import fc from 'fast-check';
import type { WeeklyPattern, Term } from '../api/plan';
import {
  endClock,
  sessionsOf,
  termDays,
  toClock,
  toEpochDay,
  toInstant,
  toLocalDate,
  toMinutes,
  toWall,
  weekdayOf,
  WEEKDAYS,
} from './index';
import { Temporal } from 'temporal-polyfill';

const term: Term = {
  name: 'Autumn',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [
    { from: '2026-09-25', to: '2026-09-28', name: 'Long weekend' },
    { from: '2026-10-12', to: '2026-10-18', name: 'Reading week' },
  ],
  daySwaps: [{ date: '2026-11-18', follows: 'thursday', name: 'Thursday timetable' }],
};

const pattern = (more: Partial<WeeklyPattern> = {}): WeeklyPattern => ({
  kind: 'weekly',
  every: 1,
  days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
  lingerMinutes: 0,
  ends: { by: 'term' },
  ...more,
});
const dates = (p: WeeklyPattern, t = term) => sessionsOf(t, p).sessions.map((s) => s.date);

test('teaching weeks are numbered, and a week off has none', () => {
  const numbers = termDays(term).weeks.map((w) => w.number);
  expect(numbers).toEqual([1, 2, 3, 4, 5, 6, null, 7, 8, 9, 10, 11, 12, 13, 14]);
  expect(termDays(term).weeks[6]!.breakName).toBe('Reading week');
});

test('a session has its date, its local end, its instants and its teaching week', () => {
  const [first] = sessionsOf(term, pattern()).sessions;
  expect(first).toMatchObject({ number: 1, date: '2026-09-01', start: '18:30', week: 1 });
  expect(new Date(first!.startsAt).toISOString()).toBe('2026-09-01T21:30:00.000Z');
  expect(first!.endsAt - first!.startsAt).toBe(80 * 60_000);
  expect(endClock(first!)).toBe('19:50');
});

test('days off are skipped and named', () => {
  const { sessions, skipped, minutes } = sessionsOf(term, pattern());
  expect(skipped).toEqual([{ date: '2026-10-13', reason: 'Reading week' }]);
  expect(sessions).toHaveLength(14);
  expect(minutes).toBe(14 * 80);
});

test('on a swapped day the sessions of the weekday it follows take place, and its own do not', () => {
  const thursdays = pattern({ days: [{ day: 'thursday', start: '09:00', minutes: 50 }] });
  expect(dates(thursdays)).toContain('2026-11-18');
  const wednesdays = sessionsOf(term, pattern({ days: [{ day: 'wednesday', start: '09:00', minutes: 50 }] }));
  expect(wednesdays.sessions.map((s) => s.date)).not.toContain('2026-11-18');
  expect(wednesdays.skipped).toContainEqual({
    date: '2026-11-18',
    reason: 'Thursday timetable: follows Thursday',
  });
});

test('a break uses up no turn of a series that meets every second teaching week', () => {
  expect(dates(pattern({ every: 2 }))).toEqual([
    '2026-09-01',
    '2026-09-15',
    '2026-09-29',
    '2026-10-20',
    '2026-11-03',
    '2026-11-17',
    '2026-12-01',
  ]);
});

test('a number of sessions means sessions that take place', () => {
  const eight = sessionsOf(term, pattern({ ends: { by: 'count', count: 8 } }));
  expect(eight.sessions).toHaveLength(8);
  expect(eight.sessions.at(-1)!.date).toBe('2026-10-27');
  expect(eight.missing).toBe(0);
  expect(sessionsOf(term, pattern({ ends: { by: 'count', count: 20 } })).missing).toBe(6);
});

test('an end by date includes its day', () => {
  expect(dates(pattern({ ends: { by: 'date', date: '2026-09-15' } }))).toEqual([
    '2026-09-01',
    '2026-09-08',
    '2026-09-15',
  ]);
});

test('the wall-clock time stays through a clock change, so the instant moves', () => {
  const { sessions } = sessionsOf(term, pattern());
  const hour = (date: string) => new Date(sessions.find((s) => s.date === date)!.startsAt).getUTCHours();
  expect(hour('2026-10-27')).toBe(21);
  expect(hour('2026-11-03')).toBe(22);
});

const ZONES = [
  'America/Halifax',
  'Europe/Lisbon',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'America/St_Johns',
  'Atlantic/Azores',
  'Asia/Beirut',
  'America/Port_of_Spain',
  'Pacific/Apia',
];
const anyZone = fc.constantFrom(...ZONES);
const anyDay = fc.integer({ min: toEpochDay('2020-01-01'), max: toEpochDay('2030-12-31') });

test('a wall time becomes the same instant as Temporal gives, gaps and repeats included', () => {
  fc.assert(
    fc.property(anyZone, anyDay, fc.integer({ min: 0, max: 1439 }), (zone, day, minutes) => {
      const plain = Temporal.PlainDateTime.from(`${toLocalDate(day)}T${toClock(minutes)}`);
      const expected = plain.toZonedDateTime(zone, { disambiguation: 'compatible' }).epochMilliseconds;
      expect(toInstant(zone, day, minutes)).toBe(expected);
    }),
    { numRuns: 3000 },
  );
});

test.each([
  [
    'a time that the change skips moves forward by the gap',
    'America/Halifax',
    '2027-03-14',
    '02:30',
    '2027-03-14T06:30:00.000Z',
  ],
  [
    'a time that the change repeats is the first',
    'America/Halifax',
    '2026-11-01',
    '01:30',
    '2026-11-01T04:30:00.000Z',
  ],
  ['a half-hour change', 'Australia/Lord_Howe', '2026-10-04', '02:15', '2026-10-03T15:45:00.000Z'],
  ['a change at midnight', 'Asia/Beirut', '2026-03-29', '00:20', '2026-03-28T22:20:00.000Z'],
])('%s', (_name, zone, date, clock, instant) => {
  expect(new Date(toInstant(zone, toEpochDay(date), toMinutes(clock))).toISOString()).toBe(instant);
});

test('an instant read back in its zone is the wall time it was made from, outside of gaps', () => {
  fc.assert(
    fc.property(anyZone, anyDay, fc.integer({ min: 180, max: 1439 }), (zone, day, minutes) => {
      // Pacific/Apia left out a whole day in 2011 only; clock changes in these years lie before 03:00.
      expect(toWall(zone, toInstant(zone, day, minutes))).toEqual({ day, minutes });
    }),
  );
});

/** The plain way: walk every day, ask every question of every day. */
function oracle(t: Term, p: WeeklyPattern): string[] {
  const result: string[] = [];
  const isOff = (date: string) => t.daysOff.some((o) => o.from <= date && date <= o.to);
  const weekNumber = (date: string): number | null => {
    let number = 0;
    for (let monday = toEpochDay(t.firstDay) - weekdayOf(toEpochDay(t.firstDay)); ; monday += 7) {
      const week = [0, 1, 2, 3, 4].map((i) => toLocalDate(monday + i));
      const teaches = week.some((d) => d >= t.firstDay && d <= t.lastDay && !isOff(d));
      if (teaches) number++;
      if (date >= toLocalDate(monday) && date <= toLocalDate(monday + 6)) return teaches ? number : null;
    }
  };
  let first: number | null = null;
  const last = p.ends.by === 'date' && p.ends.date < t.lastDay ? p.ends.date : t.lastDay;
  for (let day = toEpochDay(t.firstDay); toLocalDate(day) <= last; day++) {
    const date = toLocalDate(day);
    const number = weekNumber(date);
    first ??= number;
    const follows = t.daySwaps.find((s) => s.date === date)?.follows ?? WEEKDAYS[weekdayOf(day)]!;
    if (isOff(date) || !p.days.some((d) => d.day === follows)) continue;
    if (p.every > 1 && (number === null || (number - first!) % p.every !== 0)) continue;
    if (p.ends.by === 'count' && result.length === p.ends.count) break;
    result.push(date);
  }
  return result;
}

const anyTerm = fc
  .record({
    first: fc.integer({ min: toEpochDay('2026-01-01'), max: toEpochDay('2027-12-31') }),
    length: fc.integer({ min: 0, max: 150 }),
    off: fc.array(fc.tuple(fc.nat(150), fc.nat(8)), { maxLength: 5 }),
    swaps: fc.uniqueArray(fc.tuple(fc.nat(150), fc.constantFrom(...WEEKDAYS)), {
      maxLength: 3,
      selector: ([d]) => d,
    }),
    zone: anyZone,
  })
  .map(({ first, length, off, swaps, zone }): Term => ({
    name: 'Any',
    zone,
    firstDay: toLocalDate(first),
    lastDay: toLocalDate(first + length),
    daysOff: off.map(([at, more]) => ({
      from: toLocalDate(first + at),
      to: toLocalDate(first + at + more),
      name: 'Off',
    })),
    daySwaps: swaps.map(([at, follows]) => ({ date: toLocalDate(first + at), follows, name: 'Swap' })),
  }));

const anyPattern = fc.record({
  kind: fc.constant('weekly' as const),
  every: fc.integer({ min: 1, max: 4 }),
  lingerMinutes: fc.constant(0),
  days: fc
    .uniqueArray(fc.constantFrom(...WEEKDAYS), { minLength: 1, maxLength: 7 })
    .map((days) => days.map((day) => ({ day, start: '18:30', minutes: 80 }))),
  ends: fc.oneof(
    fc.constant({ by: 'term' as const }),
    fc.record({ by: fc.constant('count' as const), count: fc.integer({ min: 1, max: 40 }) }),
    fc.record({ by: fc.constant('date' as const), date: anyDay.map(toLocalDate) }),
  ),
});

test('sessions are those that the plain way finds, for any term and pattern', () => {
  fc.assert(
    fc.property(anyTerm, anyPattern, (t, p) => {
      expect(dates(p, t)).toEqual(oracle(t, p));
    }),
    { numRuns: 500 },
  );
});
