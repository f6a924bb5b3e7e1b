import fc from 'fast-check';
import type { MeetingPattern } from './plan';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { CalendarClient } from '../testing/calendarClient';
import {
  sessionsOf,
  toEpochDay,
  toInstant,
  toLocalDate,
  updateOf,
  withdrawalOf,
  type CalendarCopy,
  type CalendarEntry,
} from './index';
import { autumn } from '../testing/autumn';

const term = autumn({ daysOff: [] });
const pattern: MeetingPattern = {
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
};
type Session = { date: string; startsAt: number; minutes: number; state: string; title: string | null };
const planned = (): Session[] =>
  sessionsOf(term, pattern).sessions.map((s) => ({ ...s, state: 'planned', title: null }));
const entryOf = (sessions: Session[], more: Partial<CalendarEntry> = {}): CalendarEntry => ({
  uid: 'tides@nimble-bell',
  sequence: 0,
  stamp: Date.UTC(2026, 7, 1),
  title: 'TID-101 Lecture',
  url: 'http://127.0.0.1/in/abc',
  organizer: { name: 'Maren Oduya', email: 'classes@saltmarsh.example' },
  attendee: { name: 'Ana Lanyon', email: 'ana@saltmarsh.example' },
  term,
  pattern,
  sessions,
  ...more,
});
const first = () => updateOf(null, entryOf(planned()))!;
const change = (at: number, how: Partial<Session>) =>
  planned().map((s, i) => (i === at ? { ...s, ...how } : s));

test('the first message is the whole entry; a plan that did not change needs none', () => {
  const { messages, copy } = first();
  expect(messages.map((m) => m.method)).toEqual(['REQUEST']);
  expect(messages[0]!.content).toContain('RRULE');
  expect(copy.sequence).toBe(0);
  expect(updateOf(copy, entryOf(planned()))).toBeNull();
});

test('one session moved is one override, one cancelled is one cancellation, each with a higher sequence', () => {
  const { copy } = first();
  const moved = updateOf(copy, entryOf(change(3, { startsAt: planned()[3]!.startsAt + 3_600_000 })))!;
  expect(moved.messages.map((m) => m.method)).toEqual(['REQUEST']);
  expect(moved.messages[0]!.content.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  expect(moved.messages[0]!.content).toContain('RECURRENCE-ID;TZID=America/Halifax:20260922T183000');
  expect(moved.messages[0]!.content).toContain('SEQUENCE:1');
  const cancelled = updateOf(moved.copy, entryOf(change(3, { state: 'cancelled' })))!;
  expect(cancelled.messages.map((m) => m.method)).toEqual(['CANCEL']);
  expect(cancelled.messages[0]!.content).toContain('STATUS:CANCELLED');
  expect(cancelled.messages[0]!.content).toContain('SEQUENCE:2');
});

test('a session is said again though nothing changed: alone where the entry lists it, else with the entry', () => {
  const { copy } = first();
  const [a, b] = [planned()[3]!, { ...planned()[0]!, date: '2026-09-03' }];
  const again = updateOf(copy, entryOf(planned()), { date: a.date })!;
  expect(again.whole).toBe(false);
  expect(again.messages[0]!.content.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  expect(again.messages[0]!.content).toContain('RECURRENCE-ID;TZID=America/Halifax:20260922T183000');
  expect(again.messages[0]!.content).toContain('SEQUENCE:1');
  expect(again.changes).toEqual([]);
  expect(updateOf(copy, entryOf(change(3, { state: 'cancelled' })), { date: a.date })!.messages).toHaveLength(
    1,
  );
  expect(updateOf(copy, entryOf([...planned(), b]), { date: b.date })!.whole).toBe(true);
  expect(updateOf(copy, entryOf(planned()), { date: '2026-01-01' })).toBeNull();
  expect(updateOf(copy, entryOf(planned()), 'whole')!.whole).toBe(true);
});

test('another way in by telephone is news; an entry from before it was kept is taken as right', () => {
  const { copy } = first();
  const calls = entryOf(planned(), { description: 'By telephone: +1 902 555 0140' });
  expect(updateOf(copy, calls)!.messages[0]!.content).toContain('555 0140');
  const { description: _, ...older } = copy;
  expect(updateOf(older, calls)).toBeNull();
});

test('another link or name, a date that the entry does not list, and a change of most sessions send it whole', () => {
  const { copy } = first();
  const whole = (entry: CalendarEntry) => updateOf(copy, entry)!.messages[0]!.content.includes('RRULE');
  expect(whole(entryOf(planned(), { url: 'http://127.0.0.1/in/new' }))).toBe(true);
  expect(whole(entryOf(planned(), { title: 'TID-101 Tides' }))).toBe(true);
  const extra = { ...planned()[0]!, date: '2026-09-03', startsAt: Date.UTC(2026, 8, 3, 22) };
  expect(whole(entryOf([...planned(), extra]))).toBe(true);
  expect(whole(entryOf(planned().map((s) => ({ ...s, minutes: 90 }))))).toBe(true);
});

test('a series that is no longer for this person is withdrawn once', () => {
  const { copy } = first();
  const entry = entryOf([]);
  const gone = withdrawalOf(copy, entry)!;
  expect(gone.messages[0]).toMatchObject({ method: 'CANCEL' });
  expect(gone.messages[0]!.content).not.toContain('RECURRENCE-ID');
  expect(withdrawalOf(gone.copy, entry)).toBeNull();
  expect(updateOf(gone.copy, entryOf(planned()))!.copy.sequence).toBe(2);
});

/** One change of a plan: a session moved, cancelled, restored, lengthened, named, added; the link; in the series or out. */
const anyChange = fc.record({
  what: fc.constantFrom(
    'move',
    'move',
    'cancel',
    'restore',
    'lengthen',
    'name',
    'again',
    'add',
    'link',
    'out',
    'back',
  ),
  at: fc.nat(400),
  by: fc.integer({ min: -3000, max: 3000 }),
});

test('a session that ends where the clocks go forward keeps its length', () => {
  const night: MeetingPattern = { ...pattern, days: [{ day: 'sunday', start: '00:01', minutes: 119 }] };
  const spring = autumn({ firstDay: '2026-03-02', lastDay: '2026-03-22', daysOff: [] });
  const sessions = sessionsOf(spring, night).sessions.map((s) => ({ ...s, state: 'planned', title: null }));
  const client = new CalendarClient();
  for (const { content } of updateOf(null, entryOf(sessions, { term: spring, pattern: night }))!.messages)
    client.receive(content);
  expect(client.sessions().map(({ startsAt, minutes }) => ({ startsAt, minutes }))).toEqual(
    sessions.map(({ startsAt, minutes }) => ({ startsAt, minutes })),
  );
});

test('a calendar that got all messages of a term, in order or not, shows exactly the plan', () => {
  fc.assert(
    fc.property(
      anyTerm,
      anyPattern,
      anyPeriods,
      fc.array(anyChange, { minLength: 1, maxLength: 40 }),
      fc.integer({ min: 1, max: 4 }),
      fc.infiniteStream(fc.nat()),
      (ownTerm, ownPattern, periods, changes, gathered, order) => {
        let sessions: Session[] = sessionsOf(ownTerm, ownPattern, undefined, periods).sessions.map((s) => ({
          ...s,
          state: 'planned',
          title: null,
        }));
        let url = 'http://127.0.0.1/in/a';
        let mine = true;
        let again: { date: string } | null = null;
        let copy: CalendarCopy | null = null;
        const sent: string[] = [];
        const tell = () => {
          const entry = entryOf(sessions, { term: ownTerm, pattern: ownPattern, periods, url });
          const update = mine ? updateOf(copy, entry, again) : copy && withdrawalOf(copy, entry);
          again = null;
          if (!update) return;
          copy = update.copy;
          sent.push(...update.messages.map((m) => m.content));
        };
        tell();
        for (const [i, { what, at, by }] of changes.entries()) {
          const k = sessions.length ? at % sessions.length : 0;
          const own = sessions[k];
          const put = (how: Partial<Session>) => {
            sessions = sessions.map((s, j) => (j === k ? { ...s, ...how } : s));
          };
          if (what === 'link') url += '.';
          else if (what === 'out' || what === 'back') mine = what === 'back';
          else if (!own) continue;
          else if (what === 'move') put({ startsAt: own.startsAt + by * 60_000 });
          else if (what === 'cancel') put({ state: 'cancelled' });
          else if (what === 'restore') put({ state: 'planned' });
          else if (what === 'lengthen') put({ minutes: 10 + (at % 200) });
          else if (what === 'again') again = { date: own.date };
          else if (what === 'name') put({ title: at % 2 ? `No. ${at}` : null });
          else {
            const day = toEpochDay(ownTerm.firstDay) + (at % 200);
            const added = { ...own, date: toLocalDate(day), startsAt: toInstant(ownTerm.zone, day, 1080) };
            if (!sessions.some((s) => s.date === added.date)) sessions = [...sessions, added];
          }
          if (i % gathered === 0) tell();
        }
        tell();
        const wanted = mine
          ? sessions
              .filter((s) => s.state !== 'cancelled')
              .map((s) => ({
                startsAt: s.startsAt,
                minutes: s.minutes,
                summary: s.title ? `TID-101 Lecture: ${s.title}` : 'TID-101 Lecture',
              }))
              .sort((a, b) => a.startsAt - b.startsAt || (a.summary < b.summary ? -1 : 1))
          : [];
        const shuffled = sent
          .map((content) => ({ content, place: order.next().value! }))
          .sort((a, b) => a.place - b.place)
          .map((s) => s.content);
        for (const way of [sent, shuffled]) {
          const client = new CalendarClient();
          for (const content of way) client.receive(content);
          expect(client.sessions()).toEqual(wanted);
        }
      },
    ),
    { numRuns: 150 },
  );
});

test('somebody who comes back gets entries with higher numbers than those that were taken back', () => {
  const sent = first();
  const gone = withdrawalOf(sent.copy, entryOf([]))!;
  const empty = { ...gone.copy, sessions: [], listed: [] };
  const back = updateOf(empty, entryOf(planned()), 'whole')!;
  expect([sent, gone, back].map((u) => u.copy.sequence)).toEqual([0, 1, 2]);
  const calendar = new CalendarClient();
  for (const { messages } of [sent, gone, back])
    for (const { content } of messages) calendar.receive(content);
  expect(calendar.sessions()).toHaveLength(planned().length);
  expect(updateOf(empty, entryOf([], { url: 'http://127.0.0.1/in/other' }))).toBeNull();
});

test('no SEQUENCE is used twice for an entry, whichever way it went out; each session knows the one that told of it', () => {
  // The plan was changed three times before the first letter: a feed said so by the series' number.
  const { copy } = updateOf(null, entryOf(planned(), { sequence: 3 }))!;
  expect(copy.sequence).toBe(3);
  const moved = updateOf(
    copy,
    entryOf(change(1, { startsAt: planned()[1]!.startsAt + 3_600_000 }), { sequence: 4 }),
  )!;
  expect(moved.copy.sequence).toBe(4);
  expect(moved.copy.sessions.slice(0, 3).map((s) => s.since)).toEqual([3, 4, 3]);
  // Said again without a change of the plan: a number of its own.
  const again = updateOf(
    moved.copy,
    entryOf(change(1, { startsAt: planned()[1]!.startsAt + 3_600_000 }), { sequence: 4 }),
    'whole',
  )!;
  expect(again.copy.sequence).toBe(5);
  expect(again.copy.sessions[1]!.since).toBe(4);
});
