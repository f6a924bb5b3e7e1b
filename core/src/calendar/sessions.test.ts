import fc from 'fast-check';
import type { MeetingPattern, WeeklyPattern, Term } from './plan';
import {
  endClock,
  periodFaults,
  sessionsOf,
  termDays,
  toClock,
  toEpochDay,
  toInstant,
  toLocalDate,
  toMinutes,
  toWall,
} from './index';
import { Temporal } from 'temporal-polyfill';
import { anyDay, anyPattern, anyPeriods, anyTerm, anyZone } from '../testing/plans';
import { plainSessions } from '../testing/plainWay';

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
    reason: 'Thursday timetable',
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

test('sessions and skipped dates are those that the plain way finds, for any term and pattern', () => {
  fc.assert(
    fc.property(anyTerm, anyPattern, anyPeriods, (t, p, periods) => {
      const { sessions, skipped, missing, missingMinutes } = sessionsOf(t, p, undefined, periods);
      const plain = plainSessions(t, p, periods);
      expect(sessions.map((s) => `${s.date} ${s.start} ${s.minutes} ${s.week}`)).toEqual(plain.sessions);
      expect(skipped.map((s) => s.date)).toEqual(plain.skipped);
      if (p.ends.by === 'count') expect(missing).toBe(p.ends.count - sessions.length);
      if (p.ends.by === 'hours') {
        const taught = sessions.reduce((sum, s) => sum + s.minutes, 0);
        expect(missingMinutes).toBe(Math.max(0, Math.ceil(p.ends.hours * 60 - taught)));
      }
      for (const s of sessions) expect(s.endsAt - s.startsAt).toBe(s.minutes * 60_000);
    }),
    { numRuns: 1500 },
  );
});

test('hours are reached by the session that reaches them, and no more is planned', () => {
  const ten = sessionsOf(term, pattern({ ends: { by: 'hours', hours: 10 } }));
  expect(ten.sessions).toHaveLength(8);
  expect(ten.missingMinutes).toBe(0);
  expect(sessionsOf(term, pattern({ ends: { by: 'hours', hours: 20 } })).missingMinutes).toBe(80);
});

test('consecutive periods are one session; others, and unknown ones, are refused in words', () => {
  const periods = [
    { name: 'P1', start: '08:45', end: '09:30' },
    { name: 'P2', start: '09:35', end: '10:20' },
    { name: 'P3', start: '10:40', end: '11:25' },
  ];
  const by = (names: string[]) => pattern({ days: [{ day: 'thursday', periods: names }] });
  expect(sessionsOf(term, by(['P1', 'P2']), undefined, periods).sessions[0]).toMatchObject({
    start: '08:45',
    minutes: 95,
  });
  expect(periodFaults(by(['P1', 'P3']), periods)[0]!.message).toContain('does not follow');
  expect(periodFaults(by(['P9']), periods)[0]!.message).toContain('no period "P9"');
  expect(periodFaults(by(['P2', 'P3']), periods)).toEqual([]);
  expect(sessionsOf(term, by(['P9']), undefined, periods).sessions).toEqual([]);
});

test('calendar weeks go on counting through a break, teaching weeks do not', () => {
  const calendar = dates(pattern({ every: 2, weeks: 'calendar' }));
  expect(calendar.slice(2, 5)).toEqual(['2026-09-29', '2026-10-27', '2026-11-10']);
});

test('the last Friday, and a 31st that some months lack', () => {
  const monthly = (more: object): MeetingPattern =>
    ({
      kind: 'monthly',
      every: 1,
      lingerMinutes: 0,
      start: '12:00',
      minutes: 30,
      ends: { by: 'term' },
      ...more,
    }) as never;
  const on = (p: MeetingPattern) => sessionsOf(term, p).sessions.map((s) => s.date);
  expect(on(monthly({ onWeekday: { nth: -1, day: 'friday' } }))).toEqual(['2026-10-30', '2026-11-27']);
  expect(on(monthly({ onDate: 31 }))).toEqual(['2026-08-31', '2026-10-31']);
});

test('listed dates outside the term and on days off are skipped, with the reason', () => {
  const listed: MeetingPattern = {
    kind: 'dates',
    every: 1,
    lingerMinutes: 0,
    start: '10:00',
    minutes: 60,
    dates: ['2026-10-13', '2026-08-01', { date: '2026-09-05', start: '11:30', minutes: 45 }],
    ends: { by: 'term' },
  };
  const { sessions, skipped } = sessionsOf(term, listed);
  expect(sessions).toMatchObject([{ date: '2026-09-05', start: '11:30', minutes: 45, number: 1 }]);
  expect(skipped).toEqual([
    { date: '2026-08-01', reason: 'Outside the term' },
    { date: '2026-10-13', reason: 'Reading week' },
  ]);
});
