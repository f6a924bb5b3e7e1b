import { deltasOf } from './change';
import { peopleOf } from './clashes';
import { diffOf, isEmpty, isSpent, reversed } from './snapshot/diff';
import { autumn } from '@nimble-bell/core/testing';
import type { SeriesRecord, SessionRecord, Snapshot } from './snapshot/store';

const term = autumn({ daysOff: [] });
const lecture: SeriesRecord = {
  id: 's',
  title: 'Lecture',
  kind: 'class',
  pattern: null,
  group: null,
  expected: null,
  leads: [],
  publishedAt: 1,
};
const at = (iso: string) => Date.parse(iso);
const session = (more: Partial<SessionRecord> = {}): SessionRecord => ({
  id: 'x',
  seriesId: 's',
  date: '2026-10-06',
  take: 0,
  number: 1,
  startsAt: at('2026-10-06T21:30Z'),
  endsAt: at('2026-10-06T22:50Z'),
  lingerMinutes: 0,
  state: 'planned',
  title: null,
  own: [],
  replaces: null,
  record: null,
  ...more,
});
const plan = (
  sessions: SessionRecord[],
  series: SeriesRecord[] = [lecture],
  groups: [string, string | null][] = [],
): Snapshot => ({
  series: new Map(series.map((s) => [s.id, s])),
  sessions: new Map(sessions.map((s) => [s.id, s])),
  groups: new Map(groups),
});
const words = (before: SessionRecord[], after: SessionRecord[]) =>
  deltasOf(diffOf(plan(before), plan(after)), plan(before), plan(after), term).map((d) => d.words);

test('a pattern written in another order is the same pattern', () => {
  const one = plan([], [{ ...lecture, pattern: { kind: 'weekly', days: [{ day: 'friday', minutes: 50 }] } }]);
  const other = plan(
    [],
    [{ ...lecture, pattern: { days: [{ minutes: 50, day: 'friday' }], kind: 'weekly' } }],
  );
  expect(isEmpty(diffOf(one, other))).toBe(true);
});

test('nothing changed is an empty difference; a difference backwards is its own way back', () => {
  const before = plan([session()], [lecture], [['ana', 'A']]);
  const after = plan([session({ id: 'y' })], [{ ...lecture, title: 'Talks' }], [['ana', 'B']]);
  expect(isEmpty(diffOf(before, before))).toBe(true);
  const diff = diffOf(before, after);
  expect([diff.series.length, diff.sessions.length, diff.groups]).toEqual([
    1,
    2,
    [{ member: 'ana', before: 'A', after: 'B' }],
  ]);
  const back = diffOf(after, before);
  const sorted = (d: typeof diff) => [...d.sessions].map((s) => JSON.stringify(s)).sort();
  expect(sorted(reversed(diff))).toEqual(sorted(back));
  expect(reversed(diff).groups).toEqual(back.groups);
});

test.each<[string, Partial<SessionRecord>, string]>([
  [
    'moved',
    { startsAt: at('2026-10-07T15:00Z'), endsAt: at('2026-10-07T16:20Z') },
    'Tue 6 Oct, 18:30 moves to Wed 7 Oct, 12:00',
  ],
  ['cancelled', { state: 'cancelled' }, 'Tue 6 Oct, 18:30 is cancelled'],
  ['lengthened', { endsAt: at('2026-10-06T23:30Z') }, 'Tue 6 Oct, 18:30 lasts 2 h instead of 1 h 20 min'],
  ['named', { title: 'Guest' }, 'Tue 6 Oct, 18:30 is called "Guest"'],
  ['not recorded', { record: false }, 'Tue 6 Oct, 18:30 is not recorded'],
  ['left open longer', { lingerMinutes: 10 }, 'Tue 6 Oct, 18:30 lingers 10 minutes'],
])('a session that is %s is told in words', (_name, more, text) => {
  expect(words([session()], [session(more)])).toEqual([text]);
});

test('what is new, what is gone and what takes place again are told; a number that counts on is no news', () => {
  expect(words([], [session()])).toEqual(['Tue 6 Oct, 18:30 is new']);
  expect(words([], [session({ replaces: 'z' })])).toEqual(['Tue 6 Oct, 18:30 is new, as a make-up']);
  expect(words([session()], [])).toEqual(['Tue 6 Oct, 18:30 is gone']);
  expect(words([session({ state: 'cancelled' })], [session()])).toEqual([
    'Tue 6 Oct, 18:30 takes place again',
  ]);
  expect(words([session()], [session({ number: 2 })])).toEqual([]);
});

test('rooms without dates are not told of, and sessions come by their time', () => {
  const open = { ...lecture, id: 'o', kind: 'open' };
  const before = plan([], [lecture, open]);
  const after = plan(
    [
      session({ id: 'late', startsAt: at('2026-10-09T21:30Z') }),
      session(),
      session({ id: 'o1', seriesId: 'o' }),
    ],
    [lecture, open],
  );
  expect(deltasOf(diffOf(before, after), before, after, term).map((d) => d.sessionId)).toEqual(['x', 'late']);
});

test('who must be at a series: its leads or the teachers, and the students it is for', () => {
  const person = (personId: string, role: string, group: string | null = null) => ({
    courseId: 'c',
    memberId: `m-${personId}`,
    personId,
    name: personId,
    role,
    group,
  });
  const course = [
    person('maren', 'teacher'),
    person('teo', 'assistant'),
    person('ana', 'student', 'A'),
    person('ben', 'student', 'B'),
  ];
  expect(peopleOf({ group: null, leads: [] }, course)).toEqual(['maren', 'ana', 'ben']);
  expect(peopleOf({ group: 'A', leads: ['m-teo'] }, course)).toEqual(['teo', 'ana']);
});

test('a change is spent once it stands as before it, or was taught: then there is nothing to take back', () => {
  const before = plan([session()], [lecture], [['ana', 'A']]);
  const after = plan([session({ state: 'cancelled' }), session({ id: 'new' })], [lecture], [['ana', 'B']]);
  const diff = diffOf(before, after);
  expect(isSpent(diff, after)).toBe(false);
  expect(isSpent(diff, before)).toBe(true);
  // Of one of the three things something is left.
  expect(isSpent(diff, plan([session()], [lecture], [['ana', 'B']]))).toBe(false);
  expect(isSpent(diff, plan([session(), session({ id: 'new' })], [lecture], [['ana', 'C']]))).toBe(false);
  const held = { state: 'held' } as const;
  expect(
    isSpent(diff, plan([session(held), session({ id: 'new', ...held })], [lecture], [['ana', 'C']])),
  ).toBe(true);
  // What a held session is called is still taken back.
  const named = diffOf(before, plan([session({ title: 'Tides' })], [lecture], [['ana', 'A']]));
  expect(isSpent(named, plan([session({ title: 'Tides', ...held })], [lecture], [['ana', 'A']]))).toBe(false);
});
