import { expect, test, type APIRequestContext } from '@playwright/test';
import type { CourseDetail, PlanChangeInfo, PlanOutcome } from '@nimble-bell/core/api';
import { account, addSeries, detailOf, makeCourse } from './support/course';
import { MAREN } from './support/people';

const weekly = (day: string, more: object = {}) => ({
  kind: 'weekly',
  days: [{ day, start: '10:00', minutes: 50 }],
  ends: { by: 'term' },
  ...more,
});

/** What a plan is, without what every change counts on. */
async function planOf(api: APIRequestContext, id: string) {
  const { series, sessions, standing } = await detailOf(api, id);
  const members = await (await api.get(`/api/courses/${id}/members`)).json();
  const groups = members.map((m: { id: string; group: string | null }) => [m.id, m.group]);
  return { series, sessions, standing, groups };
}

interface Ids {
  lecture: string;
  lab: string;
  draft: string;
  session: string;
  later: string;
  students: string[];
}

/** Every kind of edit of a plan. */
const EDITS: [string, (ids: Ids) => object][] = [
  [
    'several series are added',
    () => ({
      edit: 'add-series',
      series: [
        { title: 'A', pattern: weekly('friday') },
        { title: 'B', kind: 'open', pattern: null },
      ],
    }),
  ],
  [
    'a series meets on another day',
    ({ lecture }) => ({
      edit: 'change-series',
      id: lecture,
      series: { title: 'Talks', pattern: weekly('sunday') },
    }),
  ],
  [
    'a series ends early',
    ({ lecture }) => ({
      edit: 'change-series',
      id: lecture,
      series: {
        title: 'Lecture',
        expected: 9,
        pattern: weekly('tuesday', { ends: { by: 'count', count: 8 } }),
      },
    }),
  ],
  ['a series is removed', ({ lab }) => ({ edit: 'remove-series', id: lab })],
  ['a draft is published', ({ draft }) => ({ edit: 'publish', ids: [draft] })],
  [
    'one session is moved',
    ({ session }) => ({
      edit: 'change-session',
      id: session,
      scope: 'one',
      change: { do: 'move', date: '2026-10-14', start: '09:00' },
    }),
  ],
  [
    'this and later ones are moved',
    ({ session }) => ({
      edit: 'change-session',
      id: session,
      scope: 'later',
      change: { do: 'move', date: '2026-10-15', start: '12:00' },
    }),
  ],
  [
    'all are moved, by the rule',
    ({ session }) => ({
      edit: 'change-session',
      id: session,
      scope: 'all',
      change: { do: 'move', date: '2026-10-16', start: '12:30' },
    }),
  ],
  [
    'all are lengthened',
    ({ session }) => ({
      edit: 'change-session',
      id: session,
      scope: 'all',
      change: { do: 'lengthen', minutes: 95 },
    }),
  ],
  [
    'later ones are cancelled',
    ({ later }) => ({ edit: 'change-session', id: later, scope: 'later', change: { do: 'cancel' } }),
  ],
  [
    'one is named',
    ({ later }) => ({
      edit: 'change-session',
      id: later,
      scope: 'one',
      change: { do: 'rename', title: 'Guest evening' },
    }),
  ],
  [
    'one is not recorded',
    ({ later }) => ({
      edit: 'change-session',
      id: later,
      scope: 'one',
      change: { do: 'record', automatic: false },
    }),
  ],
  [
    'a session is added on a date that has one',
    ({ lecture }) => ({
      edit: 'add-session',
      seriesId: lecture,
      date: '2026-10-13',
      start: '08:00',
      minutes: 30,
    }),
  ],
  [
    'groups are made, with slots',
    ({ students }) => ({
      edit: 'groups',
      plan: {
        groups: [
          { name: 'X', people: students.slice(0, 2) },
          { name: 'Y', people: students.slice(2) },
        ],
        series: {
          title: 'Lab',
          every: 1,
          slots: [
            { day: 'friday', start: '17:00', minutes: 30 },
            { day: 'friday', start: '17:35', minutes: 30 },
          ],
        },
      },
    }),
  ],
  ['a student is moved', ({ students }) => ({ edit: 'move-to-group', member: students[0], group: 'Z' })],
];

test('every kind of edit is previewed without a trace, done as it was previewed, and undone without one', async () => {
  const course = await makeCourse({ students: 4 });
  const api = await account(MAREN);
  const lab = await addSeries(api, course.id, {
    title: 'Lab',
    kind: 'group',
    group: 'X',
    pattern: weekly('thursday'),
  });
  const draft = await addSeries(
    api,
    course.id,
    { title: 'Draft', pattern: weekly('wednesday') },
    { draft: true },
  );
  const detail: CourseDetail = await detailOf(api, course.id);
  const ahead = detail.sessions.filter((s) => s.seriesTitle === 'Lecture' && s.date > '2026-10-08');
  const ids: Ids = {
    lecture: detail.series.find((s) => s.title === 'Lecture')!.id,
    lab,
    draft,
    session: ahead[0]!.id,
    later: ahead[2]!.id,
    students: course.students.map((s) => s.id),
  };
  const before = await planOf(api, course.id);
  for (const [name, edit] of EDITS) {
    const preview = await api.post(`/api/courses/${course.id}/plan/preview`, { data: edit(ids) });
    expect(preview.ok(), `${name}: ${await preview.text()}`).toBe(true);
    const seen: PlanOutcome = await preview.json();
    expect(seen.changeId, name).toBeNull();
    expect(await planOf(api, course.id), `${name}, previewed`).toEqual(before);
    const done: PlanOutcome = await (
      await api.post(`/api/courses/${course.id}/plan`, { data: edit(ids) })
    ).json();
    expect(done.words, name).toBe(seen.words);
    expect(
      done.sessions.map((s) => s.words),
      name,
    ).toEqual(seen.sessions.map((s) => s.words));
    expect(await planOf(api, course.id), `${name}, done`).not.toEqual(before);
    const undone = await api.post(`/api/courses/${course.id}/plan/undo`, { data: { change: done.changeId } });
    expect(undone.ok(), `${name}: ${await undone.text()}`).toBe(true);
    expect(await planOf(api, course.id), `${name}, undone`).toEqual(before);
  }
});

test('only the latest change is undone, and what was rung in since stays', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const edit = (data: object) => api.post(`/api/courses/${course.id}/plan`, { data });
  const undo = (change: string) => api.post(`/api/courses/${course.id}/plan/undo`, { data: { change } });
  const first = await (
    await edit({ edit: 'add-series', series: [{ title: 'A', pattern: weekly('friday') }] })
  ).json();
  const second = await (
    await edit({ edit: 'add-series', series: [{ title: 'B', pattern: weekly('friday') }] })
  ).json();
  expect((await undo(first.changeId)).status()).toBe(409);
  expect((await undo(second.changeId)).ok()).toBe(true);
  expect((await undo(second.changeId)).status()).toBe(409);
  expect((await undo(first.changeId)).ok()).toBe(true);
  const history = await (await api.get(`/api/courses/${course.id}/plan/history`)).json();
  expect(history.filter((h: { undoneAt: number | null }) => h.undoneAt !== null)).toHaveLength(2);
  expect(history[0]).toMatchObject({ by: 'Maren Oduya', words: 'Undone: A added' });
  // Words are only words: a title that begins like an undoing is taken back like any other.
  const odd = { title: 'Undone: C', pattern: weekly('friday') };
  const third = await (await edit({ edit: 'add-series', series: [odd] })).json();
  expect((await undo(third.changeId)).ok()).toBe(true);
});

test('of several series all are written or none; another course’s things are refused', async () => {
  const course = await makeCourse({ students: 1 });
  const other = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const before = await planOf(api, course.id);
  const edit = (data: object) => api.post(`/api/courses/${course.id}/plan`, { data });
  const theirs = await detailOf(api, other.id);
  const foreign = theirs.series[0]!.id;
  const session = theirs.sessions.find((s) => s.date > '2026-10-08')!.id;
  for (const [data, status] of [
    [
      {
        edit: 'add-series',
        series: [
          { title: 'Good', pattern: weekly('friday') },
          { title: 'Empty', pattern: weekly('friday', { ends: { by: 'date', date: '2020-01-01' } }) },
        ],
      },
      422,
    ],
    [
      {
        edit: 'add-series',
        series: [{ title: 'Led by nobody', pattern: weekly('friday'), leads: ['nobody'] }],
      },
      422,
    ],
    [
      {
        edit: 'add-series',
        series: [
          { title: 'No bells', pattern: weekly('friday', { days: [{ day: 'friday', periods: ['P9'] }] }) },
        ],
      },
      422,
    ],
    [{ edit: 'change-series', id: foreign, series: { title: 'Mine', pattern: weekly('friday') } }, 404],
    [{ edit: 'remove-series', id: foreign }, 404],
    [{ edit: 'publish', ids: [foreign] }, 404],
    [{ edit: 'change-session', id: session, scope: 'one', change: { do: 'cancel' } }, 404],
    [{ edit: 'add-session', seriesId: foreign, date: '2026-11-02', start: '10:00', minutes: 30 }, 404],
    [
      {
        edit: 'add-session',
        seriesId: before.series[0]!.id,
        date: '2026-09-02',
        start: '10:00',
        minutes: 30,
      },
      422,
    ],
    [{ edit: 'move-to-group', member: other.students[0]!.id, group: 'A' }, 404],
    [
      { edit: 'groups', plan: { groups: [{ name: 'A', people: [other.students[0]!.id] }], series: null } },
      422,
    ],
    [
      {
        edit: 'groups',
        plan: {
          groups: [
            { name: 'A', people: [] },
            { name: 'A', people: [] },
          ],
          series: null,
        },
      },
      422,
    ],
    [
      {
        edit: 'change-session',
        id: before.sessions[0]!.id,
        scope: 'one',
        change: { do: 'lengthen', minutes: 0 },
      },
      422,
    ],
    [{ edit: 'rename-college' }, 422],
  ] as const)
    expect((await edit(data)).status(), JSON.stringify(data)).toBe(status);
  expect(await planOf(api, course.id)).toEqual(before);
});

test('an edit made on a plan that has moved on is refused, and says who changed what; looked at anew it is done', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const { sessions } = await detailOf(api, course.id);
  const [first, second] = sessions.filter((s) => s.startsAt > Date.parse('2026-10-20'));
  const cancel = (id: string) => ({ edit: 'change-session', id, scope: 'one', change: { do: 'cancel' } });
  const path = `/api/courses/${course.id}/plan`;
  const preview = async () =>
    (await (await api.post(`${path}/preview`, { data: cancel(first!.id) })).json()) as PlanOutcome;
  const save = (on: string) =>
    api.post(path, { data: cancel(first!.id), headers: { 'if-match': `"${on}"` } });
  const { on } = await preview();
  // Another window changes something else meanwhile.
  expect((await api.post(path, { data: cancel(second!.id) })).ok()).toBe(true);
  const refused = await save(on);
  expect(refused.status()).toBe(409);
  const { error } = await refused.json();
  expect(error.code).toBe('moved-on');
  expect(error.message).toContain('Maren Oduya');
  expect(error.message).toContain('cancelled');
  const stateOf = async () =>
    (await detailOf(api, course.id)).sessions.find((s) => s.id === first!.id)!.state;
  expect(await stateOf()).toBe('planned');
  expect((await save((await preview()).on)).status()).toBe(201);
  expect(await stateOf()).toBe('cancelled');
});

test('a request sent again under its id happens once, and gets the same answer', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const [series] = (await detailOf(api, course.id)).series;
  const data = { edit: 'add-session', seriesId: series!.id, date: '2026-11-20', start: '09:00', minutes: 30 };
  const headers = { 'idempotency-key': 'added-once-and-no-more' };
  const send = () => api.post(`/api/courses/${course.id}/plan`, { data, headers });
  const answers = await Promise.all([send(), send(), send()]);
  const said = await Promise.all(answers.map(async (a) => [a.status(), await a.json()]));
  expect(said[1]).toEqual(said[0]);
  expect(said[2]).toEqual(said[0]);
  const added = (await detailOf(api, course.id)).sessions.filter((s) => s.date === '2026-11-20');
  expect(added).toHaveLength(1);
});

test('told is who has the letter: news that is taken back before it leaves was told to nobody', async () => {
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const path = `/api/courses/${course.id}`;
  const history = async (): Promise<PlanChangeInfo[]> => (await api.get(`${path}/plan/history`)).json();
  const edit = async (data: object): Promise<PlanOutcome> =>
    (await api.post(`${path}/plan`, { data })).json();
  const undo = async (change: string | null): Promise<PlanOutcome> =>
    (await api.post(`${path}/plan/undo`, { data: { change } })).json();
  const queued = async () => {
    const found: { state: string }[] = await (await api.get(`${path}/deliveries`)).json();
    return found.filter((d) => d.state === 'queued').length;
  };
  expect((await api.post(`${path}/invitations`, { data: {} })).ok()).toBe(true);
  await expect.poll(queued, { timeout: 20_000 }).toBe(0);
  const { sessions } = await detailOf(api, course.id);
  const [next, later] = sessions.filter((s) => s.startsAt > Date.parse('2026-10-20'));
  const cancel = (id: string) => ({ edit: 'change-session', id, scope: 'one', change: { do: 'cancel' } });

  const first = await edit(cancel(next!.id));
  expect(first.told).toHaveLength(2);
  expect((await history())[0]).toMatchObject({ told: 0, waiting: 2 });
  expect((await undo(first.changeId)).told).toEqual([]);
  await expect.poll(queued, { timeout: 20_000 }).toBe(0);
  expect((await history()).slice(0, 2)).toMatchObject([
    { told: 0, waiting: 0, words: expect.stringMatching(/^Undone/) },
    { told: 0, waiting: 0 },
  ]);

  const second = await edit(cancel(later!.id));
  await expect.poll(queued, { timeout: 20_000 }).toBe(0);
  expect((await history())[0]).toMatchObject({ told: 2, waiting: 0 });
  expect((await undo(second.changeId)).told).toHaveLength(2);
});

test('a change of which nothing is left to take back is marked so, and the one before it is next', async () => {
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const path = `/api/courses/${course.id}`;
  const ok = async (to: string, data: object) => {
    const answer = await api.post(`${path}${to}`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json();
  };
  const [ana] = course.students;
  const first = await ok('/plan', {
    edit: 'add-series',
    series: [{ title: 'Talks', pattern: weekly('friday') }],
  });
  const moved = await ok('/plan', { edit: 'move-to-group', member: ana!.id, group: 'Z' });
  // The class list puts her elsewhere since.
  await ok('/members', { edit: 'change', members: [ana!.id], fields: { group: 'Y' } });
  const history: PlanChangeInfo[] = await (await api.get(`${path}/plan/history`)).json();
  expect(history.slice(0, 2)).toMatchObject([
    { id: moved.changeId, spent: true, undoable: false },
    { id: first.changeId, spent: false, undoable: true },
  ]);
  const refused = await api.post(`${path}/plan/undo`, { data: { change: moved.changeId } });
  expect([refused.status(), (await refused.json()).error.code]).toEqual([409, 'spent']);
  await ok('/plan/undo', { change: first.changeId });
  const after: PlanChangeInfo[] = await (await api.get(`${path}/plan/history`)).json();
  expect(after.find((c) => c.id === moved.changeId)!.undoneAt).not.toBeNull();
});
