import { expect, test, type APIRequestContext } from '@playwright/test';
import type { CollegeOutcome, CourseDetail, LetterAhead, MemberInfo } from '@nimble-bell/core/api';
import { Chance } from './support/chance';
import { account, addSeries, detailOf, makeCourse } from './support/course';
import { classRows, MAREN } from './support/people';
import { askStore } from './support/store';

const EDITS = Number(process.env.EDITS ?? 120);
const SEED = Number(process.env.SEED ?? Date.now() % 1e6);
const DAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'];

/** Every table that a plan is in, row by row and column by column. SEQUENCE alone only ever rises. */
async function tables(course: string) {
  const rows = async (sql: string) => askStore<Record<string, unknown>>(sql, [course]);
  const [courses, series, sessions, enrolments] = await Promise.all([
    rows('SELECT * FROM courses WHERE id = ?'),
    rows('SELECT * FROM series WHERE course_id = ? ORDER BY id'),
    rows('SELECT * FROM sessions WHERE course_id = ? ORDER BY id'),
    rows('SELECT * FROM enrolments WHERE course_id = ? ORDER BY id'),
  ]);
  return {
    ...{ courses, enrolments },
    series: series.map(({ sequence, ...s }) => s),
    // When nobody rang in is the clock's to say, whatever was planned meanwhile.
    sessions: sessions.map(({ missed_at, ...s }) => s),
  };
}

const weekly = (chance: Chance) => ({
  kind: 'weekly',
  every: chance.of([1, 1, 2]),
  days: [
    {
      day: chance.of(DAYS),
      start: `1${Math.floor(chance.between(0, 9))}:30`,
      minutes: chance.of([30, 50, 80]),
    },
  ],
  ends: chance.of([{ by: 'term' }, { by: 'count', count: 6 }]),
});
const date = (chance: Chance) =>
  `2026-1${chance.of(['0-1', '0-2', '1-0', '1-1'])}${Math.floor(chance.between(0, 10))}`;

type Maker = (chance: Chance, detail: CourseDetail, students: string[]) => object | null;

/** Every kind of edit of a plan, at random. */
const MAKERS: Maker[] = [
  (chance) => ({
    edit: 'add-series',
    series: [{ title: `Seminar ${date(chance)}`, pattern: weekly(chance) }],
  }),
  (chance, { series }) => {
    const s = chance.of(series.filter((x) => x.pattern));
    return (
      s && {
        edit: 'change-series',
        id: s.id,
        series: { title: s.title, kind: s.kind, group: s.group, pattern: weekly(chance) },
      }
    );
  },
  (chance, { series }) => {
    const s = series.length > 2 ? chance.of(series) : undefined;
    return s ? { edit: 'remove-series', id: s.id } : null;
  },
  (_chance, { series }) => {
    const drafts = series.filter((s) => s.publishedAt === null).map((s) => s.id);
    return drafts.length ? { edit: 'publish', ids: drafts } : null;
  },
  ...[0, 1, 2].map((): Maker => (chance, { sessions }) => {
    const s = chance.of(sessions);
    const change = chance.of([
      { do: 'cancel' },
      { do: 'cancel', reason: 'The ferry does not run' },
      { do: 'restore' },
      { do: 'rename', title: `Tides ${date(chance)}` },
      { do: 'rename', title: null },
      { do: 'lengthen', minutes: chance.of([45, 90]) },
      { do: 'move', date: date(chance), start: '20:00' },
      { do: 'record', automatic: false },
    ]);
    return (
      s && { edit: 'change-session', id: s.id, scope: chance.of(['one', 'one', 'later', 'all']), change }
    );
  }),
  (chance, { series }) => {
    const s = chance.of(series.filter((x) => x.pattern));
    return s && { edit: 'add-session', seriesId: s.id, date: date(chance), start: '08:15', minutes: 30 };
  },
  (chance) => {
    const [from, to] = [date(chance), date(chance)].sort();
    return { edit: 'cancel-days', from, to, reason: chance.of([null, 'The college is closed']) };
  },
  (chance, _detail, students) => {
    const names = chance.of([['A', 'B'], ['A', 'C'], ['D']]);
    const groups = names.map((name, i) => ({
      name,
      people: students.filter((_, k) => k % names.length === i),
    }));
    const slots = names.map((_, i) => ({ day: 'friday', start: `1${i}:00`, minutes: 20 }));
    return { edit: 'groups', plan: { groups, series: chance.of([null, { title: 'Lab', every: 1, slots }]) } };
  },
  (chance, _detail, students) => ({
    edit: 'move-to-group',
    member: chance.of(students),
    group: chance.of([null, 'A', 'Z']),
  }),
];

/** Columns that edits do not speak of hold something, so that it is missed where it is lost. */
async function fillColumns(course: string) {
  await askStore('UPDATE series SET listed = TRUE, settings = \'{"limits":{}}\' WHERE course_id = ?', [
    course,
  ]);
  await askStore(
    "UPDATE sessions SET listed = MOD(number, 2), posted_at = number, settings = JSON_OBJECT('n', number) WHERE course_id = ?",
    [course],
  );
}

const done = async (api: APIRequestContext, path: string, data: object) => {
  const answer = await api.post(path, { data });
  expect(answer.status(), `${JSON.stringify(data)}: ${await answer.text()}`).toBeLessThan(500);
  return answer.ok() ? ((await answer.json()).changeId as string) : null;
};

test(`${EDITS} random edits of a plan: each is taken back to the last column of every table, at once and all in a row`, async () => {
  test.setTimeout(60_000 + EDITS * 900);
  console.log(`seed ${SEED}`);
  const chance = new Chance(SEED);
  const course = await makeCourse({ students: 5, apart: true });
  const api = await account(MAREN);
  const path = `/api/courses/${course.id}/plan`;
  await addSeries(api, course.id, { title: 'Talks', pattern: weekly(chance) });
  await fillColumns(course.id);
  const members: MemberInfo[] = await (await api.get(`/api/courses/${course.id}/members`)).json();
  const students = members.filter((m) => m.role === 'student').map((m) => m.id);
  const kept: { change: string; before: Awaited<ReturnType<typeof tables>> }[] = [];
  const counts = { done: 0, refused: 0 };
  const back = async ({ change, before }: (typeof kept)[0], what: string) => {
    expect(await done(api, `${path}/undo`, { change }), what).not.toBeNull();
    expect(await tables(course.id), what).toEqual(before);
  };
  while (counts.done < EDITS) {
    const detail = await detailOf(api, course.id);
    const edit = chance.of(MAKERS)(chance, detail, students);
    if (!edit) continue;
    const before = await tables(course.id);
    const change = await done(api, path, edit);
    if (!change) {
      counts.refused++;
      expect(await tables(course.id), `refused: ${JSON.stringify(edit)}`).toEqual(before);
      continue;
    }
    counts.done++;
    if (chance.next() < 0.5 || detail.series.length > 8) await back({ change, before }, JSON.stringify(edit));
    else kept.push({ change, before });
    // What is kept is taken back in a row now and then: the latest first.
    if (kept.length >= 12) while (kept.length) await back(kept.pop()!, 'in a row');
  }
  while (kept.length) await back(kept.pop()!, 'in a row');
  console.log(`${counts.done} edits taken back, ${counts.refused} refused without a trace`);
});

test('a term changes over several courses at once: as it was foreseen, kept and told in each, and laid anew nothing changes', async () => {
  const api = await account(MAREN);
  const term = {
    ...{ name: `Term of three ${Date.now() % 1e7}`, zone: 'America/Halifax', daySwaps: [] },
    ...{ firstDay: '2026-08-31', lastDay: '2026-12-13' },
  };
  const post = async (path: string, data: object, method: 'post' | 'put' = 'post') => {
    const answer = await api[method](path, { data });
    expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true);
    return answer.json();
  };
  const { id } = await post('/api/terms', { ...term, daysOff: [] });
  const courses: string[] = [];
  for (const [i, day] of ['monday', 'tuesday', 'friday'].entries()) {
    const made = await post('/api/courses', {
      code: `TC${i}-${Date.now() % 1e6}`,
      title: 'One of three',
      term: id,
    });
    courses.push(made.id);
    const pattern = {
      kind: 'weekly',
      days: [{ day, start: '07:10', minutes: 20 }],
      ends: { by: 'count', count: 12 },
    };
    await addSeries(api, made.id, { title: 'Lecture', pattern });
    await addSeries(api, made.id, { title: 'Open room', kind: 'open', pattern: null });
    await post(`/api/courses/${made.id}/members`, { edit: 'import', rows: classRows(2, `.${made.id}`) });
    await post(`/api/courses/${made.id}/invitations`, {});
  }
  const daysOff = [{ from: '2026-10-12', to: '2026-10-16', name: 'Harbour Days' }];
  const longer = { ...term, lastDay: '2026-12-20', daysOff };
  const before = await Promise.all(courses.map(tables));
  const seen: CollegeOutcome = await post(`/api/terms/${id}/preview`, longer);
  expect(await Promise.all(courses.map(tables))).toEqual(before);
  const letters: LetterAhead[] = await post(`/api/terms/${id}/letters`, longer);
  expect(new Set(letters.flatMap((l) => l.names)).size).toBe(2);
  expect(await Promise.all(courses.map(tables))).toEqual(before);
  const done: CollegeOutcome = await post(`/api/terms/${id}`, longer, 'put');
  const words = (o: CollegeOutcome) =>
    o.courses.map((c) => [c.id, c.sessions.map((s) => s.words), c.told.length]);
  expect(words(done)).toEqual(words(seen));
  expect(done.courses.map((c) => c.told.length)).toEqual([2, 2, 2]);
  for (const course of courses) {
    const detail = await detailOf(api, course);
    expect(detail.sessions.filter((s) => s.date >= '2026-10-12' && s.date <= '2026-10-16')).toEqual([]);
    expect(detail.sessions).toHaveLength(12);
    expect(new Date(detail.standing[0]!.endsAt).toISOString()).toBe('2026-12-21T03:59:00.000Z');
    const [entry] = await (await api.get(`/api/courses/${course}/plan/history`)).json();
    expect(entry).toMatchObject({ words: `${term.name} changed`, undoable: true });
    for (const { id: series, title, kind, pattern } of detail.series) {
      const again = await api.post(`/api/courses/${course}/plan/preview`, {
        data: { edit: 'change-series', id: series, series: { title, kind, pattern } },
      });
      expect([again.status(), title]).toEqual([422, title]);
    }
  }
});
