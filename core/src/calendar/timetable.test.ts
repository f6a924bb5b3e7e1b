import fc from 'fast-check';
import { MeetingPattern, Term } from './plan';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { readAcademicYear, writeAcademicYear } from './academicYear';
import { calendarOf } from './ics';
import { sessionsOf } from './sessions';
import { patternFrom, readTimetable } from './timetable';
import { autumn } from '../testing/autumn';
import { many } from '../testing/many';

const term = autumn();
const tuesdays = ['2026-09-29', '2026-10-06', '2026-10-13', '2026-10-20'];
const table = (...lines: string[]) => readTimetable(['Series,Date,Start,End', ...lines].join('\n'), term);

test('a table of dates becomes the weekly series that says them, days off aside', () => {
  const { series, bad, fault } = table(...tuesdays.map((d) => `Tides,${d},9:00,10:15`));
  expect([bad, fault]).toEqual([[], null]);
  expect(series).toMatchObject([{ title: 'Tides', sessions: 3, skipped: 1 }]);
  expect(series[0]!.pattern).toMatchObject({
    kind: 'weekly',
    firstDate: '2026-09-29',
    days: [{ day: 'tuesday', start: '09:00', minutes: 75 }],
    ends: { by: 'date', date: '2026-10-20' },
  });
});

test('dates that no week says are a list; a second hour of a day is a series of its own', () => {
  const { series } = table(
    'Tides,2026-09-29,9:00,10:00',
    'Tides,2026-10-01,9:00,10:00',
    'Tides,2026-10-01,14:00,15:00',
  );
  expect(series.map((s) => [s.title, s.pattern.kind, s.sessions])).toEqual([
    ['Tides', 'dates', 2],
    ['Tides (2)', 'dates', 1],
  ]);
});

test('where days are swapped, a week that gives the dates with each other’s lengths is none', () => {
  const swapped = autumn({
    firstDay: '2027-02-19',
    lastDay: '2027-02-22',
    daysOff: [],
    daySwaps: [
      { date: '2027-02-19', follows: 'sunday', name: 'Swap' },
      { date: '2027-02-21', follows: 'monday', name: 'Swap' },
    ],
  });
  const meetings = [
    { date: '2027-02-19', start: '09:00', minutes: 45 },
    { date: '2027-02-21', start: '09:00', minutes: 5 },
    { date: '2027-02-22', start: '09:00', minutes: 5 },
  ];
  const pattern = patternFrom(meetings, swapped)!;
  expect(sessionsOf(swapped, pattern).sessions.map((s) => s.minutes)).toEqual([45, 5, 5]);
});

test('each bad line is named with its reason, and the good ones are read', () => {
  const { series, bad } = table(
    'Tides,2026-10-06,9:00,10:00',
    'Tides,soon,9:00,10:00',
    'Tides,2026-10-07,9,10:00',
    'Tides,2026-10-08,9:00,9:00',
    'Tides,2027-10-08,9:00,10:00',
  );
  expect(series).toHaveLength(1);
  expect(bad.map((b) => b.title)).toEqual(['Line 3', 'Line 4', 'Line 5', 'Line 6']);
  expect(bad.at(-1)!.reason).toContain('outside the term');
});

test.each([
  ['', 'nothing to read'],
  ['Series,Start,End\nx,9:00,10:00', 'column of dates'],
  ['Series,Date,End\nx,2026-10-06,10:00', 'start times'],
  ['Series,Date,Start\nx,2026-10-06,10:00', 'how long'],
  ['Date,Start,End\n', 'Nothing in it'],
])('%j is refused in words', (text, part) => expect(readTimetable(text, term).fault).toContain(part));

test('any plan written as a calendar is read back as a timetable with the same instants', () => {
  fc.assert(
    fc.property(anyTerm, anyPattern, anyPeriods, (t, p, periods) => {
      const planned = sessionsOf(t, p, undefined, periods).sessions;
      if (!planned.length) return;
      const sessions = planned.map((s) => ({ ...s, state: 'planned' }));
      const text = calendarOf(
        [{ uid: 'a', sequence: 0, stamp: 0, title: 'Any', term: t, pattern: p, periods, sessions }],
        null,
      );
      const { series, bad } = readTimetable(text, t);
      expect(bad).toEqual([]);
      const back = series.flatMap((s) => sessionsOf(t, s.pattern).sessions);
      expect(back.map((s) => [s.startsAt, s.minutes]).sort()).toEqual(
        planned.map((s) => [s.startsAt, s.minutes]).sort(),
      );
      for (const s of series) expect(MeetingPattern.safeParse(s.pattern).success).toBe(true);
    }),
    { numRuns: 300 },
  );
});

test("a term's days off and swaps are written as whole days and read back", () => {
  fc.assert(
    fc.property(anyTerm, (t) => {
      const inTerm = {
        ...t,
        daysOff: t.daysOff.filter((o) => o.from <= t.lastDay),
        daySwaps: t.daySwaps.filter((s) => s.date <= t.lastDay),
      };
      const read = readAcademicYear(writeAcademicYear(inTerm, 0), t);
      const sorted = <T extends object>(list: T[]) => list.map((x) => JSON.stringify(x)).sort();
      const unique = [...new Map(inTerm.daysOff.map((o) => [`${o.from}${o.to}`, o])).values()];
      expect(new Set(sorted(read.daysOff))).toEqual(new Set(sorted(unique)));
      expect(sorted(read.daySwaps)).toEqual(sorted(inTerm.daySwaps));
    }),
  );
  expect(patternFrom([], term)).toBeNull();
});

const line = fc.oneof(
  fc.constantFrom(
    'BEGIN:VCALENDAR',
    'END:VCALENDAR',
    'BEGIN:VEVENT',
    'END:VEVENT',
    'BEGIN:VTIMEZONE',
    'END:VTIMEZONE',
    'BEGIN:VALARM',
  ),
  fc.constantFrom(
    'SUMMARY:Tides',
    'UID:a',
    'STATUS:CANCELLED',
    'DTSTART;VALUE=DATE:20261006',
    'DTSTART:20261006T100000Z',
    'DURATION:PT1H',
    'DURATION:-P1D',
    'DTEND:20261006T113000Z',
  ),
  fc
    .tuple(
      fc.constantFrom(
        'DTSTART',
        'DTEND',
        'RRULE',
        'EXDATE',
        'RDATE',
        'RECURRENCE-ID',
        'DURATION',
        'SUMMARY',
        'TZID',
      ),
      fc.string({ maxLength: 20 }),
    )
    .map(([n, v]) => `${n}:${v}`),
  fc
    .tuple(
      fc.constantFrom('YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY', 'MINUTELY', 'SECONDLY', 'NEVER'),
      fc.constantFrom(
        '',
        ';COUNT=3',
        ';INTERVAL=0',
        ';BYDAY=MO,TU',
        ';BYDAY=-9MO',
        ';BYSETPOS=1',
        ';UNTIL=20261101',
        ';BYHOUR=24',
        ';BYMONTHDAY=31',
      ),
    )
    .map(([f, more]) => `RRULE:FREQ=${f}${more}`),
  fc.string({ maxLength: 30 }),
);
const anyCalendar = fc
  .array(line, { maxLength: 20 })
  .map((lines) => ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', ...lines, 'END:VEVENT', 'END:VCALENDAR'].join('\r\n'));
const anyTable = fc
  .array(
    fc.array(
      fc.oneof(
        fc.constantFrom('2026-10-06', '10:00', '11:00', '90', 'Tides', '', '"', '=1+1'),
        fc.string({ maxLength: 8 }),
      ),
      { maxLength: 6 },
    ),
    { maxLength: 12 },
  )
  .map((rows) => ['Series,Date,Start,End,Minutes', ...rows.map((r) => r.join(','))].join('\n'));

test('torn, odd and hostile files: no crash, and what is taken is whole', () => {
  fc.assert(
    fc.property(fc.oneof(anyCalendar, anyTable, fc.string()), (text) => {
      const { series, bad, fault } = readTimetable(text, term);
      expect(series.length > 0 || bad.length > 0 || fault !== null).toBe(true);
      for (const s of series) {
        expect(MeetingPattern.safeParse(s.pattern).success).toBe(true);
        expect(s.sessions).toBe(sessionsOf(term, s.pattern).sessions.length);
      }
      const year = readAcademicYear(text, term);
      expect(Term.safeParse({ ...term, daysOff: year.daysOff.slice(0, 200) }).success).toBe(true);
    }),
    { numRuns: many(20_000) },
  );
}, 120_000);
