import { expect, test, type APIRequestContext, type APIResponse } from '@playwright/test';
import type { CourseDetail, LetterDetail, MemberInfo, MyCourse } from '@nimble-bell/core/api';
import { CalendarClient } from '@nimble-bell/core/testing';
import { Chance } from './support/chance';
import { account, byLink, detailOf } from './support/course';
import { classRows, INES } from './support/people';
import { pidOf } from './support/product';
import { askStore } from './support/store';

/** How long it storms, and by how many hands. */
const STORM_MS = Number(process.env.STORM_MS ?? 20_000);
const WRITERS = 8;
const CUT = 0.05;
/** The long way: app and database are killed meanwhile, and what is not answered is sent again (see `npm run soak`). */
const SOAK = Boolean(process.env.SOAK);
const TRIES = 120;

const TERM = {
  name: 'Autumn of the storm',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daySwaps: [],
};
const dayOff = (n: number) => ({
  from: `2026-11-${String(2 + (n % 25)).padStart(2, '0')}`,
  to: `2026-11-${String(2 + (n % 25)).padStart(2, '0')}`,
  name: 'Harbour Day',
});
const DAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'];

/** What was answered with 2xx, by the history that it must stand in. */
interface Acknowledged {
  plan: string[];
  list: string[];
}

interface Storm {
  api: APIRequestContext;
  term: string;
  course: string;
  chance: Chance;
  until: number;
  done: Acknowledged;
  statuses: Map<number, number>;
  faults: string[];
}

/** One request under an id of its own; some are cut off on the way, some pressed twice. */
async function send(storm: Storm, path: string, data: object, method: 'POST' | 'PUT' = 'POST') {
  const { api, chance, statuses, faults } = storm;
  const headers = { 'idempotency-key': crypto.randomUUID() };
  const cut = chance.next() < CUT;
  const once = () =>
    api.fetch(path, { method, data, headers, timeout: cut ? 1 + chance.next() * 60 : 30_000 });
  const ask = SOAK && !cut ? () => untilAnswered(once) : once;
  const answers = await Promise.all(
    (chance.next() < 0.1 ? [ask, ask] : [ask]).map((a) => a().catch(() => null)),
  );
  for (const answer of answers) {
    if (!answer) continue;
    statuses.set(answer.status(), (statuses.get(answer.status()) ?? 0) + 1);
    // Killed, the product says that it is away, and nothing else.
    if (answer.status() >= 500 && !(SOAK && answer.status() === 503))
      faults.push(`${method} ${path} ${JSON.stringify(data)}: ${await answer.text()}`);
  }
  const [first, second] = answers;
  if (first?.ok() && second?.ok()) expect(await second.json()).toEqual(await first.json());
  return first ?? second ?? null;
}

/** Asks under the same id until the product is there again and answers. */
async function untilAnswered(ask: () => Promise<APIResponse>): Promise<APIResponse | null> {
  for (let i = 0; i < TRIES; i++) {
    const answer = await ask().catch(() => null);
    if (answer && answer.status() < 500) return answer;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  return null;
}

/** Kills the app or the database now and then; whoever watches over them starts them again. */
async function kill(chance: Chance, until: number, killed: Record<string, number>) {
  while (Date.now() < until) {
    await new Promise((resolve) => setTimeout(resolve, chance.between(4000, 14_000)));
    const part = chance.of(['app', 'app', 'database']);
    try {
      process.kill(pidOf(part), 'SIGKILL');
      killed[part] = (killed[part] ?? 0) + 1;
    } catch {
      // It is between two lives.
    }
  }
}

const noted = async (answer: APIResponse | null, into: string[]) => {
  if (!answer?.ok()) return;
  const { changeId } = await answer.json();
  if (changeId) into.push(changeId);
};

/** Everything that somebody does to a course, by its name. */
const DEEDS: Record<string, (storm: Storm, detail: CourseDetail, people: MemberInfo[]) => Promise<void>> = {
  'a series': async (storm, { series }) => {
    const known = storm.chance.of(series.filter((s) => s.pattern));
    if (!known) return;
    const days = [
      { day: storm.chance.of(DAYS), start: `1${Math.floor(storm.chance.between(0, 9))}:00`, minutes: 60 },
    ];
    const changed = {
      title: known.title,
      kind: known.kind,
      pattern: { kind: 'weekly', days, ends: { by: 'term' } },
    };
    await plan(storm, { edit: 'change-series', id: known.id, series: { ...changed, group: known.group } });
  },
  'a session': async (storm, { sessions }) => {
    const session = storm.chance.of(sessions.filter((s) => s.state !== 'held'));
    if (!session) return;
    const change = storm.chance.of([
      { do: 'cancel' },
      { do: 'restore' },
      { do: 'rename', title: `Tides ${Math.floor(storm.chance.between(0, 99))}` },
      { do: 'lengthen', minutes: 45 + 5 * Math.floor(storm.chance.between(0, 9)) },
      { do: 'move', date: dayOff(Math.floor(storm.chance.between(0, 25))).from, start: '20:00' },
    ]);
    const scope = storm.chance.of(['one', 'one', 'later']);
    await plan(storm, { edit: 'change-session', id: session.id, scope, change });
  },
  'one more session': async (storm, { series }) => {
    const known = storm.chance.of(series.filter((s) => s.pattern));
    const { from: date } = dayOff(Math.floor(storm.chance.between(0, 25)));
    if (known)
      await plan(storm, { edit: 'add-session', seriesId: known.id, date, start: '09:00', minutes: 30 });
  },
  'one more series': async (storm, { series }) => {
    if (series.length > 6) return;
    const days = [{ day: storm.chance.of(DAYS), start: '08:00', minutes: 30 }];
    const added = {
      title: `Seminar ${series.length}`,
      pattern: { kind: 'weekly', days, ends: { by: 'term' } },
    };
    await plan(storm, { edit: 'add-series', series: [added] });
  },
  publishing: async (storm, { series }) => {
    const drafts = series.filter((s) => s.publishedAt === null).map((s) => s.id);
    if (drafts.length) await plan(storm, { edit: 'publish', ids: drafts });
  },
  groups: async (storm, _detail, people) => {
    const students = people.filter((p) => p.role === 'student').map((p) => p.id);
    const names = storm.chance.of([['A', 'B'], ['A', 'C'], ['D']]);
    const groups = names.map((name, i) => ({
      name,
      people: students.filter((_, k) => k % names.length === i),
    }));
    const slots = names.map((_, i) => ({ day: 'friday', start: `1${i}:30`, minutes: 20 }));
    const series = storm.chance.next() < 0.5 ? { title: 'Lab', every: 1, slots } : null;
    await plan(storm, { edit: 'groups', plan: { groups, series } });
  },
  'somebody on the list': async (storm, _detail, people) => {
    const one = storm.chance.of(people.filter((p) => p.role === 'student'));
    if (!one) return;
    const fields = storm.chance.of([
      { group: 'A' },
      { group: null },
      { name: `${one.name.split(' ')[0]} Storm` },
    ]);
    const edit = storm.chance.of([
      { edit: 'change', members: [one.id], fields },
      { edit: 'replace-links', members: [one.id] },
      { edit: 'drop', members: [one.id] },
    ]);
    await list(storm, edit);
  },
  'a list read in': async (storm) => {
    await list(storm, { edit: 'import', rows: classRows(12, `.${storm.course}`), invite: true });
  },
  'a day off': async (storm) => {
    const daysOff = storm.chance.next() < 0.3 ? [] : [dayOff(Math.floor(storm.chance.between(0, 25)))];
    await send(storm, `/api/terms/${storm.term}`, { ...TERM, daysOff }, 'PUT');
  },
  'a change taken back': async (storm) => {
    const part = storm.chance.of(['plan', 'members'] as const);
    const history = await (await storm.api.get(`/api/courses/${storm.course}/${part}/history`)).json();
    const latest = history.find((c: { undoable: boolean }) => c.undoable);
    if (!latest) return;
    const answer = await send(storm, `/api/courses/${storm.course}/${part}/undo`, { change: latest.id });
    await noted(answer, part === 'plan' ? storm.done.plan : storm.done.list);
  },
  invitations: async (storm) => {
    await send(storm, `/api/courses/${storm.course}/invitations`, {});
  },
};

const plan = async (storm: Storm, edit: object) =>
  noted(await send(storm, `/api/courses/${storm.course}/plan`, edit), storm.done.plan);
const list = async (storm: Storm, edit: object) =>
  noted(await send(storm, `/api/courses/${storm.course}/members`, edit), storm.done.list);

async function write(storm: Storm) {
  while (Date.now() < storm.until) {
    try {
      const detail = await detailOf(storm.api, storm.course);
      const people: MemberInfo[] = await (await storm.api.get(`/api/courses/${storm.course}/members`)).json();
      await storm.chance.of(Object.values(DEEDS))(storm, detail, people);
    } catch (error) {
      // What it looks at first may be asked while the product is away.
      if (!SOAK) throw error;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  }
}

/** What an edit changes, field by field: it is done, for the history to say. */
async function changesOf(api: APIRequestContext, course: string, edit: object): Promise<string> {
  await api.post(`/api/courses/${course}/plan`, { data: edit });
  const [latest] = await askStore<{ body: unknown }>(
    'SELECT body FROM plan_changes WHERE course_id = ? ORDER BY place DESC LIMIT 1',
    [course],
  );
  const body = (typeof latest!.body === 'string' ? JSON.parse(latest!.body) : latest!.body) as Record<
    string,
    { before: Record<string, unknown> | null; after: Record<string, unknown> | null }[]
  >;
  const lines = [...body.series!, ...body.sessions!].map(({ before, after }) => {
    const fields = Object.keys({ ...before, ...after }).filter(
      (f) => JSON.stringify(before?.[f]) !== JSON.stringify(after?.[f]),
    );
    const of = after ?? before!;
    return `${of.date ?? of.title} ${of.state ?? ''}: ${fields.map((f) => `${f} ${JSON.stringify(before?.[f])} ${JSON.stringify(after?.[f])}`).join(', ')}`;
  });
  return lines.join('\n');
}

test('eight hands at one course: nothing is lost, doubled or half done, and letters say what is so', async () => {
  test.setTimeout(STORM_MS + 120_000);
  // By the other teacher: the first one's clashes are told in tests of their own.
  const api = await account(INES);
  const post = async (path: string, data: object) => {
    const answer = await api.post(path, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json();
  };
  const { id: term } = await post('/api/terms', { ...TERM, name: `Storm ${Date.now() % 1e6}`, daysOff: [] });
  const code = `ST-${Date.now() % 1e6}`;
  const { id: course } = await post('/api/courses', { code, title: 'In the storm', term });
  const days = [{ day: 'tuesday', start: '18:30', minutes: 80 }];
  const lecture = { title: 'Lecture', pattern: { kind: 'weekly', days, ends: { by: 'term' } } };
  const { made } = await post(`/api/courses/${course}/plan`, { edit: 'add-series', series: [lecture] });
  await post(`/api/courses/${course}/plan`, { edit: 'publish', ids: made });
  await post(`/api/courses/${course}/members`, { edit: 'import', rows: classRows(12, `.${course}`) });
  await post(`/api/courses/${course}/invitations`, {});

  const seed = Number(process.env.SEED ?? Date.now() % 1e6);
  const shared = {
    api,
    term,
    course,
    until: Date.now() + STORM_MS,
    done: { plan: [], list: [] } as Acknowledged,
    statuses: new Map<number, number>(),
    faults: [] as string[],
  };
  const killed: Record<string, number> = {};
  await Promise.all([
    ...Array.from({ length: WRITERS }, (_, i) => write({ ...shared, chance: new Chance(seed + i) })),
    ...(SOAK ? [kill(new Chance(seed - 1), shared.until, killed)] : []),
  ]);
  if (SOAK) process.stdout.write(`Killed: ${JSON.stringify(killed)}.\n`);
  // What was cut off on this side may still be at work on the other.
  let quiet = '';
  await expect
    .poll(
      async () => {
        const before = quiet;
        quiet = await detailOf(api, course).then(JSON.stringify, () => '');
        return quiet !== '' && quiet === before;
      },
      { intervals: [1500], timeout: 30_000 },
    )
    .toBe(true);
  const { done, statuses, faults } = shared;
  const told = [...statuses].map(([status, count]) => `${count} of ${status}`).join(', ');
  process.stdout.write(`Storm ${seed}: ${done.plan.length + done.list.length} changes; answers ${told}.\n`);
  expect(faults).toEqual([]);
  expect(done.plan.length + done.list.length).toBeGreaterThan(20);

  // Every acknowledged change stands in its history, once.
  for (const [table, acknowledged] of Object.entries({ plan_changes: done.plan, list_changes: done.list })) {
    const kept = await askStore<{ id: string }>(`SELECT id FROM ${table} WHERE course_id = ?`, [course]);
    const ids = kept.map((k) => k.id);
    expect(acknowledged.filter((id) => ids.filter((k) => k === id).length !== 1)).toEqual([]);
  }
  // Sessions are what pattern, term and their own changes make them: laid anew, nothing changes.
  const detail = await detailOf(api, course);
  for (const { id, title, kind, pattern, group, expected, leads } of detail.series) {
    const series = { title, kind, pattern, group, expected, leads };
    const edit = { edit: 'change-series', id, series };
    const again = await api.post(`/api/courses/${course}/plan/preview`, { data: edit });
    const said = await again.json();
    const wouldChange = again.status() === 422 ? '' : await changesOf(api, course, edit);
    expect([again.status(), said.error?.code], `${title} would change: ${wouldChange}`).toEqual([
      422,
      'no-change',
    ]);
  }
  // What each calendar holds by the letters that came is each one's plan.
  const queued = async () => {
    const found = await (await api.get(`/api/courses/${course}/deliveries`)).json();
    return found.filter((d: { state: string }) => d.state === 'queued').length;
  };
  await expect.poll(queued, { timeout: 60_000 }).toBe(0);
  const { now } = await (await api.get('/api/me')).json();
  const people: MemberInfo[] = await (await api.get(`/api/courses/${course}/members`)).json();
  for (const one of people.filter((p) => p.role === 'student' && p.invitation !== 'none').slice(0, 4)) {
    const calendar = new CalendarClient();
    const post = await askStore<{ id: number }>(
      'SELECT id FROM standin_mail WHERE recipient = ? AND subject LIKE ? ORDER BY id',
      [one.email, `${code}%`],
    );
    for (const { id } of post) {
      const letter: LetterDetail = await (await api.get(`/api/mailbox/${id}`)).json();
      for (const { content } of letter.calendars) calendar.receive(content);
    }
    const mine: MyCourse = await (await (await byLink(one.link!)).get('/api/my-course')).json();
    // What is over is news to nobody.
    const lines = (all: { startsAt: number; minutes: number }[]) =>
      all
        .filter((s) => s.startsAt > now)
        .map((s) => `${new Date(s.startsAt).toISOString()} ${s.minutes}`)
        .sort();
    const wanted = lines(mine.sessions.filter((s) => s.state !== 'cancelled'));
    expect(lines(calendar.sessions()), one.name).toEqual(wanted);
  }
});
