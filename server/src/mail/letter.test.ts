import type { MeetingPattern, Term } from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import type { MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import type { CourseRow } from '../courses/store';
import { invitationFor } from './letter';

const NOW = Date.UTC(2026, 9, 6, 21, 0);
const term: Term = {
  name: 'Autumn',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [{ from: '2026-10-12', to: '2026-10-18', name: 'Reading week' }],
  daySwaps: [],
};
const weekly = (day: 'tuesday' | 'friday'): MeetingPattern => ({
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days: [{ day, start: '18:30', minutes: 80 }],
});
const series = [
  { id: 'lecture', title: 'Lecture', group: null, pattern: weekly('tuesday'), sequence: 0, publishedAt: 1 },
  { id: 'lab-a', title: 'Lab <A>', group: 'A', pattern: weekly('friday'), sequence: 3, publishedAt: 1 },
];
const sessions = series.flatMap((s) =>
  sessionsOf(term, s.pattern).sessions.map((p) => ({
    ...p,
    seriesId: s.id,
    group: s.group,
    published: true,
    state: p.number === 2 ? 'cancelled' : 'planned',
  })),
);

jest.mock('../courses/store', () => ({
  seriesOf: async () => series,
  sessionsOfCourse: async () => sessions,
  courseById: async () => course,
}));
jest.mock('../terms/store', () => ({ bellTimesOf: async () => [] }));
jest.mock('../db/pool', () => ({ rows: async () => [{ name: 'Maren Oduya' }] }));

const ctx = { config: { origin: 'http://127.0.0.1:8210' }, now: () => NOW } as unknown as Context;
const course = { id: 'c', code: 'TID-101', title: 'Tides & Streams', term } as CourseRow;
const member = (more: Partial<MemberRow>) =>
  ({
    id: 'm',
    name: 'Ana "Tide" Lanyon',
    email: 'ana@saltmarsh.example',
    zone: 'Atlantic/Azores',
    role: 'student',
    group: null,
    link: 'abcd2345efgh6789',
    ...more,
  }) as MemberRow & { link: string };

test('an invitation holds its own link, the series in words, and the next session in the person’s own time', async () => {
  const { subject, text } = await invitationFor(ctx, course, member({}));
  expect(subject).toBe('TID-101 Tides & Streams: your way in');
  expect(text).toContain('Maren Oduya invites you to TID-101');
  expect(text).toContain('http://127.0.0.1:8210/in/abcd2345efgh6789');
  expect(text).toContain('Lecture: Tue 18:30–19:50 (Halifax time), 13 sessions');
  expect(text).toContain('The next session begins Tue 6 Oct, 21:30, Azores time.');
});

test('only those of a group are invited to its sessions, an entry a series', async () => {
  const [out, inside] = [
    await invitationFor(ctx, course, member({})),
    await invitationFor(ctx, course, member({ group: 'A' })),
  ];
  expect(out.text).not.toContain('Lab');
  expect(out.calendars).toHaveLength(1);
  expect(inside.text).toContain('Lab <A>');
  expect(inside.calendars).toHaveLength(2);
  expect(inside.calendars[1]).toContain('UID:lab-a@nimble-bell');
  expect(inside.calendars[1]).toContain('SEQUENCE:3');
});

test('cancelled sessions and days off are exceptions of the entry', async () => {
  const [entry] = (await invitationFor(ctx, course, member({}))).calendars;
  expect(entry).toContain('EXDATE;TZID=America/Halifax:20260908T183000');
  expect(entry).toContain('EXDATE;TZID=America/Halifax:20261013T183000');
  expect(entry).toContain('mailto:ana@saltmarsh.example');
});

test('what people are called cannot break the letter', async () => {
  const { html } = await invitationFor(ctx, course, member({ group: 'A', name: '<script>x</script>' }));
  expect(html).toContain('Tides &amp; Streams');
  expect(html).toContain('Lab &lt;A&gt;');
  expect(html).not.toContain('<script>');
});
