import { CarryInput, SeriesInput } from '@nimble-bell/core/api';
import { autumn } from '@nimble-bell/core/testing';
import type { Db } from '../db/pool';
import { applyEdit } from '../planning/edit';
import { emptyPlan, plan } from '../testing/memoryPlan';
import { weekly } from '../testing/coursePlan';
import { carried, carrySeries, fitting, withoutDates } from './carry';

type Memory = typeof import('../testing/memoryPlan');
function mockMemory() {
  return jest.requireActual<Memory>('../testing/memoryPlan');
}
jest.mock('../planning/store', () => mockMemory().planningStore);
jest.mock('../planning/snapshot/store', () => mockMemory().planningStore);
jest.mock('../courses/store', () => mockMemory().coursesStore);
jest.mock('../terms/store', () => mockMemory().termsStore);
jest.mock('./store', () => mockMemory().reuseStore);

const from = autumn();
const to = autumn({
  name: 'Winter',
  firstDay: '2027-01-04',
  lastDay: '2027-04-11',
  daysOff: [{ from: '2027-02-02', to: '2027-02-02', name: 'Harbour Day' }],
});
const at = (courseId: string, term = to) => ({ db: {} as Db, courseId, term, now: 0 });
const lecture = SeriesInput.parse({
  title: 'Lecture',
  kind: 'class',
  pattern: weekly('tuesday'),
  expected: null,
  group: null,
  leads: [],
});
const datesOf = (course: string) =>
  [...plan.sessions.values()]
    .filter((s) => s.courseId === course && s.state !== 'cancelled')
    .map((s) => s.date)
    .sort();
const seriesOf = (course: string) => [...plan.series.values()].find((s) => s.courseId === course)!;
const carryOver = (settled: object[]) =>
  carrySeries(at('new'), 'old', from, CarryInput.parse({ term: 't', settled }));

beforeEach(async () => {
  emptyPlan();
  await applyEdit(at('old', from), { edit: 'add-series', series: [lecture] });
});

test('a series is carried by teaching week and weekday, as a draft of the new course', async () => {
  await carryOver([]);
  expect(seriesOf('new')).toMatchObject({ title: 'Lecture', publishedAt: null });
  expect(datesOf('new')[0]).toBe('2027-01-05');
  expect(datesOf('new')).not.toContain('2027-02-02');
  expect(datesOf('old')).toHaveLength(14);
});

test('a session that falls on a day off takes the proposed day where that is wanted, or none', async () => {
  await carryOver([]);
  const without = datesOf('new').length;
  emptyPlan();
  await applyEdit(at('old', from), { edit: 'add-series', series: [lecture] });
  const { carry } = jest.requireActual<typeof import('@nimble-bell/core/calendar')>(
    '@nimble-bell/core/calendar',
  );
  const moved = carry(from, to, lecture.pattern!, []).differences.find((d) => d.outcome === 'moved')!;
  const settled = [{ series: seriesOf('old').id, date: moved.was!.date, take: true }];
  await carryOver(settled);
  expect(datesOf('new')).toHaveLength(without + 1);
  expect(datesOf('new')).toContain(moved.date);
});

test('dates of one term are not kept in a template, and only what gives a session is laid', async () => {
  const dated = { ...weekly('monday'), firstDate: '2026-09-07', ends: { by: 'date', date: '2026-10-01' } };
  expect(withoutDates(dated as never)).toEqual(weekly('monday'));
  const gone = { ...lecture, pattern: { ...weekly('monday'), ends: { by: 'date', date: '2026-10-01' } } };
  expect(await fitting(at('new'), [lecture, gone as never])).toEqual([lecture]);
});

test('recordings are kept at least to the end of the new term', () => {
  const plan_ = { automatic: true, keepUntil: '2027-02-01', studentsWatch: true, studentsDownload: false };
  expect(carried(plan_, to)).toEqual({ recording: { ...plan_, keepUntil: '2027-04-11' } });
  expect(carried({ ...plan_, keepUntil: '2028-01-01' }, to)).toMatchObject({
    recording: { keepUntil: '2028-01-01' },
  });
  expect(carried(null, to)).toEqual({});
});
