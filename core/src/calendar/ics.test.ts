import ICAL from 'ical.js';
import type { WeeklyPattern } from './plan';
import fc from 'fast-check';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { calendarOf, readCalendar, requestOf, sessionsOf } from './index';
import { autumn, THURSDAY_TIMETABLE } from '../testing/autumn';

const term = autumn({ daySwaps: [THURSDAY_TIMETABLE] });

type Session = { date: string; startsAt: number; minutes: number; state: string };

function entry(pattern: WeeklyPattern, change: (s: Session) => Session = (s) => s) {
  const sessions = sessionsOf(term, pattern).sessions.map((s) => change({ ...s, state: 'planned' }));
  const text = requestOf({
    uid: 'tides@nimble-bell',
    sequence: 2,
    stamp: Date.UTC(2026, 7, 1),
    title: 'TID-101 Lecture; tides, and streams',
    description: 'Enter here: http://127.0.0.1/in/abc',
    url: 'http://127.0.0.1/in/abc',
    organizer: { name: 'Maren Oduya', email: 'classes@saltmarsh.example' },
    attendee: { name: 'Ana Lanyon', email: 'ana@saltmarsh.example' },
    term,
    pattern,
    sessions,
  });
  return { text, sessions };
}

/** The instants that a calendar program would show, by ical.js alone. */
function instantsIn(text: string): number[] {
  const root = new ICAL.Component(ICAL.parse(text) as unknown[] as never);
  const zone = new ICAL.Timezone(root.getFirstSubcomponent('vtimezone')!);
  ICAL.TimezoneService.reset();
  ICAL.TimezoneService.register(zone);
  const instants: number[] = [];
  const events = root.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
  for (const master of events.filter((e) => !e.isRecurrenceException())) {
    for (const other of events.filter((e) => e.isRecurrenceException() && e.uid === master.uid))
      master.relateException(other);
    if (!master.isRecurring()) instants.push(master.startDate.toJSDate().getTime());
    else {
      const iterator = master.iterator();
      for (let next = iterator.next(); next && instants.length < 500; next = iterator.next())
        instants.push(master.getOccurrenceDetails(next).startDate.toJSDate().getTime());
    }
  }
  return instants.sort((a, b) => a - b);
}

const lectures: WeeklyPattern = {
  kind: 'weekly',
  every: 1,
  lingerMinutes: 10,
  ends: { by: 'term' },
  days: [
    { day: 'tuesday', start: '18:30', minutes: 80 },
    { day: 'thursday', start: '18:30', minutes: 80 },
  ],
};

test('an invitation is a request with one rule, its exceptions, and the zone', () => {
  const { text } = entry(lectures);
  expect(text).toContain('METHOD:REQUEST');
  expect(text).toContain('RRULE:FREQ=WEEKLY;BYDAY=TU,TH;UNTIL=20261211T035959Z');
  expect(text).toContain('EXDATE;TZID=America/Halifax:20261013T183000');
  expect(text).toContain('RDATE;TZID=America/Halifax:20261118T183000');
  expect(text).toContain('BEGIN:VTIMEZONE');
  expect(text).toContain('SEQUENCE:2');
  expect(text).toContain('DURATION:PT1H20M');
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(1);
});

test('lines are folded at 75 octets and text is escaped (RFC 5545 §3.1, §3.3.11)', () => {
  const { text } = entry(lectures);
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  expect(text).toContain('TID-101 Lecture\\; tides\\, and streams');
});

test.each<[string, WeeklyPattern]>([
  ['two weekdays at one time', lectures],
  [
    'two weekdays at their own times',
    { ...lectures, days: [lectures.days[0]!, { day: 'friday', start: '09:15', minutes: 45 }] },
  ],
  ['every second teaching week', { ...lectures, every: 2 }],
  ['a first session on a swapped day', { ...lectures, firstDate: '2026-11-18', days: [lectures.days[1]!] }],
  ['a single session', { ...lectures, ends: { by: 'count', count: 1 } }],
])('read back it gives the same instants: %s', (_name, pattern) => {
  const { text, sessions } = entry(pattern);
  expect(instantsIn(text)).toEqual(sessions.map((s) => s.startsAt));
});

test('a cancelled session is an exception and a moved one an override', () => {
  const { text, sessions } = entry(lectures, (s) =>
    s.date === '2026-09-08'
      ? { ...s, state: 'cancelled' }
      : s.date === '2026-09-15'
        ? { ...s, state: 'moved', startsAt: s.startsAt + 86_400_000 }
        : s,
  );
  expect(text).toContain('RECURRENCE-ID;TZID=America/Halifax:20260915T183000');
  const expected = sessions.filter((s) => s.state !== 'cancelled').map((s) => s.startsAt);
  expect(instantsIn(text)).toEqual(expected.sort((a, b) => a - b));
});

test('a last session in the hour that clocks have twice stays within its rule', () => {
  const t = autumn({ zone: 'Asia/Beirut', firstDay: '2026-06-20', lastDay: '2026-10-24', daysOff: [] });
  const plain = { lingerMinutes: 0, ends: { by: 'term' as const }, start: '23:00', minutes: 1 };
  const pattern = { kind: 'daily' as const, every: 3, firstDate: '2026-10-21', ...plain };
  const sessions = sessionsOf(t, pattern).sessions.map((s) => ({ ...s, state: 'planned' as const }));
  expect(sessions.at(-1)!.date).toBe('2026-10-24');
  const base = { uid: 'a@b', sequence: 0, stamp: 0, title: 'Any', term: t, pattern, periods: [] };
  expect(instantsIn(calendarOf([{ ...base, sessions }], null))).toEqual(sessions.map((s) => s.startsAt));
});

test('whatever the pattern, ical.js and our own reader read back the instants that were planned', () => {
  fc.assert(
    fc.property(
      anyTerm,
      anyPattern,
      anyPeriods,
      fc.array(fc.nat(30), { maxLength: 4 }),
      (t, p, periods, touched) => {
        const sessions = sessionsOf(t, p, undefined, periods).sessions.map((s, i) =>
          touched[0] === i
            ? { ...s, state: 'cancelled' }
            : touched[1] === i
              ? { ...s, state: 'moved', startsAt: s.startsAt + 26 * 3_600_000 }
              : { ...s, state: 'planned' },
        );
        const live = sessions.filter((s) => s.state !== 'cancelled').map((s) => s.startsAt);
        if (live.length === 0) return;
        const base = { uid: 'a@b', sequence: 0, stamp: 0, title: 'Any', term: t, pattern: p, periods };
        const text = calendarOf([{ ...base, sessions }], null);
        live.sort((a, b) => a - b);
        expect(instantsIn(text)).toEqual(live);
        const read = readCalendar(text, t.zone, t.firstDay, '2029-01-01');
        expect(read.bad).toEqual([]);
        expect([...new Set(read.events[0]!.meetings.map((m) => m.startsAt))]).toEqual([...new Set(live)]);
      },
    ),
    { numRuns: 600 },
  );
});

test('no line is longer than 75 octets, the space of a folded one counted; controls and line ends stand in no text', () => {
  const title = `Gezeiten\u0000 🌊${'ä'.repeat(90)}\r\nBEGIN:VEVENT`;
  const sessions = sessionsOf(term, lectures).sessions.map((s) => ({ ...s, state: 'planned' }));
  const base = { uid: 'a', sequence: 0, stamp: 0, term, pattern: lectures, sessions };
  const text = calendarOf(
    [{ ...base, title, description: title }],
    null,
    'Tides, streams; and\r\nMETHOD:CANCEL',
  );
  const lines = text.split('\r\n');
  expect(lines.filter((l) => Buffer.byteLength(l) > 75)).toEqual([]);
  expect(lines.filter((l) => Buffer.byteLength(l) === 75).length).toBeGreaterThan(0);

  expect(text.replaceAll('\r\n', '')).not.toMatch(/[\u0000-\u001f\u007f]/);
  expect(lines.filter((l) => l === 'BEGIN:VEVENT')).toHaveLength(1);
  expect(text).not.toMatch(/^METHOD/m);
  expect(text).toContain('X-WR-CALNAME:Tides\\, streams\\; and\\nMETHOD:CANCEL');
});
