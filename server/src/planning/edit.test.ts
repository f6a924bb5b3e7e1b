import { PlanEdit, type PlanEdit as Edit } from '@nimble-bell/core/api';
import { autumn, READING_WEEK } from '@nimble-bell/core/testing';
import type { Db } from '../db/pool';
import { emptyPlan, plan } from '../testing/memoryPlan';
import { weekly } from '../testing/coursePlan';
import { applyEdit } from './edit';

type Memory = typeof import('../testing/memoryPlan');
function mockMemory() {
  return jest.requireActual<Memory>('../testing/memoryPlan');
}
jest.mock('./store', () => mockMemory().planningStore);
jest.mock('./snapshot/store', () => mockMemory().planningStore);
jest.mock('../courses/store', () => mockMemory().coursesStore);
jest.mock('../terms/store', () => mockMemory().termsStore);

const term = autumn();
const START = Date.parse('2026-08-01T00:00Z');
/** In the middle of the term: a Wednesday. */
const MIDTERM = Date.parse('2026-10-21T12:00Z');

const edit = (draft: object, now = START) =>
  applyEdit({ db: {} as Db, courseId: 'c', term, now }, PlanEdit.parse(draft) as Edit);
const lecture = (more: object = {}) => ({
  title: 'Lecture',
  kind: 'class',
  pattern: weekly('tuesday'),
  expected: null,
  group: null,
  leads: [],
  ...more,
});
const sessions = () =>
  [...plan.sessions.values()].sort((a, b) => a.startsAt - b.startsAt || (a.seriesId < b.seriesId ? -1 : 1));
const seriesNamed = (title: string) => [...plan.series.values()].find((s) => s.title === title)!;
const on = (date: string) => sessions().find((s) => s.date === date)!;
const hold = (date: string) => void (on(date).state = 'held');

beforeEach(async () => {
  emptyPlan();
  plan.members.set('maren', { id: 'maren', name: 'Maren', role: 'teacher', group: null, courseId: 'c' });
  for (const id of ['ana', 'ben'])
    plan.members.set(id, { id, name: id, role: 'student', group: null, courseId: 'c' });
  expect(await edit({ edit: 'add-series', series: [lecture()] })).toBe('Lecture added');
});

test('a series is laid over the term, its days off left out', () => {
  expect(sessions()).toHaveLength(14);
  expect(sessions().map((s) => s.number)).toEqual(Array.from({ length: 14 }, (_, i) => i + 1));
  expect(sessions().some((s) => s.date >= READING_WEEK.from && s.date <= READING_WEEK.to)).toBe(false);
});

test('what the schema cannot know is refused: who does not teach, a pattern without a date', async () => {
  const leads = edit({ edit: 'add-series', series: [lecture({ title: 'B', leads: ['ana'] })] });
  await expect(leads).rejects.toMatchObject({ code: 'invalid', fields: [{ path: 'leads' }] });
  const pattern = { ...weekly('tuesday'), ends: { by: 'date', date: '2026-08-30' } };
  const none = edit({ edit: 'add-series', series: [lecture({ title: 'C', pattern })] });
  await expect(none).rejects.toMatchObject({ code: 'no-sessions' });
  expect(await edit({ edit: 'add-series', series: [lecture({ title: 'D', leads: ['maren'] })] })).toBe(
    'D added',
  );
});

test('a published series keeps its past when its pattern changes; a draft is laid anew', async () => {
  const { id } = seriesNamed('Lecture');
  await edit({ edit: 'publish', ids: [id] });
  await edit({ edit: 'change-series', id, series: lecture({ pattern: weekly('friday') }) }, MIDTERM);
  const past = sessions().filter((s) => s.startsAt < MIDTERM);
  expect(past.every((s) => new Date(s.date).getUTCDay() === 2)).toBe(true);
  expect(past.length).toBeGreaterThan(5);
  const ahead = sessions().filter((s) => s.startsAt > MIDTERM);
  expect(ahead.every((s) => new Date(s.date).getUTCDay() === 5)).toBe(true);
  await edit({ edit: 'add-series', series: [lecture({ title: 'Draft' })] });
  const draft = seriesNamed('Draft').id;
  await edit(
    { edit: 'change-series', id: draft, series: lecture({ title: 'Draft', pattern: weekly('monday') }) },
    MIDTERM,
  );
  const days = sessions()
    .filter((s) => s.seriesId === draft)
    .map((s) => new Date(s.date).getUTCDay());
  expect(new Set(days)).toEqual(new Set([1]));
});

test('a series that was taught stays; one that was not goes with its sessions', async () => {
  const { id } = seriesNamed('Lecture');
  hold('2026-09-08');
  await expect(edit({ edit: 'remove-series', id })).rejects.toMatchObject({ code: 'series-taught' });
  on('2026-09-08').state = 'planned';
  expect(await edit({ edit: 'remove-series', id })).toBe('Lecture removed');
  expect([plan.series.size, plan.sessions.size]).toEqual([0, 0]);
});

test('one session moves; all of them move by their rule', async () => {
  const change = { do: 'move', date: '2026-09-09', start: '19:00' };
  await edit({ edit: 'change-session', id: on('2026-09-08').id, scope: 'one', change });
  const gone = { edit: 'change-session', id: on('2026-09-08').id, scope: 'one', change: { do: 'cancel' } };
  expect(await edit(gone)).toBe('Lecture of Wed 9 Sep: cancelled');
  await edit({ ...gone, change: { do: 'restore' } });
  expect(on('2026-09-08')).toMatchObject({ state: 'moved', startsAt: Date.parse('2026-09-09T22:00Z') });
  const all = { do: 'move', date: '2026-09-16', start: '18:30' };
  await edit({ edit: 'change-session', id: on('2026-09-15').id, scope: 'all', change: all });
  expect(seriesNamed('Lecture').pattern).toMatchObject({ days: [{ day: 'wednesday', start: '18:30' }] });
  const rest = sessions().filter((s) => s.state === 'planned');
  expect(rest.every((s) => new Date(s.date).getUTCDay() === 3)).toBe(true);
});

test('what was held keeps its time, and may still be named', async () => {
  const { id } = on('2026-09-08');
  hold('2026-09-08');
  const cancel = edit({ edit: 'change-session', id, scope: 'one', change: { do: 'cancel' } });
  await expect(cancel).rejects.toMatchObject({ code: 'session-over' });
  const change = { do: 'rename', title: 'Tides' };
  expect(await edit({ edit: 'change-session', id, scope: 'one', change })).toContain('called "Tides"');
  expect(on('2026-09-08')).toMatchObject({ title: 'Tides', state: 'held' });
});

test('another course’s series and sessions are not there', async () => {
  for (const s of plan.series.values()) s.courseId = 'other';
  for (const s of plan.sessions.values()) s.courseId = 'other';
  const { id } = seriesNamed('Lecture');
  for (const draft of [
    { edit: 'remove-series', id },
    { edit: 'publish', ids: [id] },
    { edit: 'change-session', id: on('2026-09-08').id, scope: 'one', change: { do: 'cancel' } },
    { edit: 'move-to-group', member: 'nobody', group: 'A' },
  ])
    await expect(edit(draft)).rejects.toMatchObject({ code: 'not-found' });
});

test('a session is added: ahead, once for a lost one, twice on a date where that is wanted', async () => {
  const { id: seriesId } = seriesNamed('Lecture');
  const add = { edit: 'add-session', seriesId, date: '2026-09-08', start: '10:00', minutes: 60 };
  await expect(edit(add, MIDTERM)).rejects.toMatchObject({ code: 'invalid', fields: [{ path: 'date' }] });
  await edit(add);
  const replaces = on('2026-09-22').id;
  expect(await edit({ ...add, date: '2026-09-24', replaces })).toContain('make-up');
  const again = edit({ ...add, date: '2026-09-25', replaces });
  await expect(again).rejects.toThrow('This session is made up for already.');
  expect(sessions().filter((s) => s.date === '2026-09-08')).toHaveLength(2);
});

test('a pattern comes to a date on which a session was added: both stand there', async () => {
  const { id } = seriesNamed('Lecture');
  await edit({ edit: 'add-session', seriesId: id, date: '2026-09-11', start: '10:00', minutes: 60 });
  await edit({ edit: 'change-series', id, series: lecture({ pattern: weekly('friday') }) });
  const both = sessions().filter((s) => s.date === '2026-09-11');
  expect(both.map((s) => [s.take, s.own])).toEqual([
    [0, ['added']],
    [1, []],
  ]);
  // And with what is on its way to another date of the same week.
  await edit({ edit: 'change-series', id, series: lecture({ pattern: weekly('tuesday', 'friday') }) });
  expect(sessions().filter((s) => s.date === '2026-09-11')).toHaveLength(2);
  expect(sessions().filter((s) => s.date === '2026-09-08')).toHaveLength(1);
});

const slots = (...days: string[]) => days.map((day, i) => ({ day, start: `1${i}:00`, minutes: 30 }));
const groups = (names: string[], people: string[][]) =>
  names.map((name, i) => ({ name, people: people[i] ?? [] }));

test('the class is split into groups with a slot each; names and people are each there once', async () => {
  const of = (plan_: object) => edit({ edit: 'groups', plan: plan_ });
  await expect(of({ groups: groups(['A', 'A'], []), series: null })).rejects.toThrow('name of its own');
  await expect(of({ groups: groups(['A', 'B'], [['ana'], ['ana']]), series: null })).rejects.toThrow(
    'can be in one group',
  );
  const series = { title: 'Lab', every: 2, slots: slots('friday', 'friday') };
  await of({ groups: groups(['A', 'B'], [['ana'], ['ben']]), series });
  expect([plan.members.get('ana')!.group, plan.members.get('ben')!.group]).toEqual(['A', 'B']);
  expect(seriesNamed('Lab A')).toMatchObject({ group: 'A', kind: 'group', publishedAt: null });
  const labs = sessions().filter((s) => s.seriesId === seriesNamed('Lab B').id);
  expect(labs.length).toBeGreaterThan(4);
  await of({ groups: groups(['A'], [['ana', 'ben']]), series: { ...series, slots: slots('monday') } });
  expect([...plan.series.values()].map((s) => s.title).sort()).toEqual(['Lab A', 'Lecture']);
  await edit({ edit: 'move-to-group', member: 'ben', group: null });
  expect(plan.members.get('ben')!.group).toBeNull();
});

test('a group that is gone does not come back: its series ends with what was before', async () => {
  const of = (plan_: object, now = START) => edit({ edit: 'groups', plan: plan_ }, now);
  const series = { title: 'Lab', every: 1, slots: slots('friday', 'friday') };
  await of({ groups: groups(['A', 'B'], [['ana'], ['ben']]), series });
  hold('2026-09-04');
  const labs = () => sessions().filter((s) => s.seriesId === seriesNamed('Lab A')?.id);
  labs().find((s) => s.date === '2026-09-04')!.state = 'held';
  await of({ groups: groups(['C'], [['ana', 'ben']]), series: null }, Date.parse('2026-09-05T12:00Z'));
  expect(seriesNamed('Lab B').pattern).toMatchObject({ ends: { by: 'date', date: '2026-09-04' } });
  expect(labs().map((s) => s.date)).toEqual(['2026-09-04']);
  expect(seriesNamed('Lab A').pattern).toMatchObject({ ends: { by: 'date', date: '2026-09-04' } });
});
