import { performance } from 'node:perf_hooks';
import type { APIRequestContext } from '@playwright/test';
import { sessionsOf } from '@nimble-bell/core/calendar';
import type { MeetingPattern, Term } from '@nimble-bell/core/api';
import { account, byLink } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { askStore } from '../../e2e/support/store';
import { ms, percentile, type Figure } from './table';

const COURSES = 40;
const STUDENTS = 300;
const PEOPLE = 3000;
const EVENTS = 200_000;
const CALLS = 5;

const TERM: Term = {
  name: 'A full college',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [],
  daySwaps: [],
};
const DAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'] as const;
const patternOf = (course: number, second: boolean): MeetingPattern => ({
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'count', count: 15 },
  days: [0, 2].map((d) => ({
    day: DAYS[(course + d + (second ? 1 : 0)) % 5]!,
    start: `${String(8 + (course % 10)).padStart(2, '0')}:${second ? '30' : '00'}`,
    minutes: 50,
  })),
});
const id = (kind: string, n: number) => `${kind}${String(n).padStart(11, 'x')}`;

async function insert(sql: string, rows: unknown[][]) {
  for (let i = 0; i < rows.length; i += 2000) await askStore(`${sql} VALUES ?`, [rows.slice(i, i + 2000)]);
}

/** 40 courses of 300 people and 60 sessions, and what happened in those that are over. */
async function layCollege(now: number) {
  const [maren] = await askStore<{ id: string }>('SELECT id FROM people WHERE email = ?', [MAREN]);
  await insert('INSERT INTO terms (id, body)', [[id('t', 1), JSON.stringify(TERM)]]);
  await insert(
    'INSERT INTO people (id, name, email, zone)',
    Array.from({ length: PEOPLE }, (_, i) => [
      id('p', i),
      `Tide Reader ${i}`,
      `college.${i}@saltmarsh.example`,
      'UTC',
    ]),
  );
  const courses = Array.from({ length: COURSES }, (_, c) => c);
  await insert(
    'INSERT INTO courses (id, term_id, code, title)',
    courses.map((c) => [id('c', c), id('t', 1), `COL-${c}`, `Course ${c} of the college`]),
  );
  await insert(
    'INSERT INTO enrolments (id, course_id, person_id, role, link_code, extra)',
    courses
      .flatMap((c) => [
        [`e${c}xteacher`.padEnd(12, 'x'), id('c', c), maren!.id, 'teacher', `teacher-${c}-college`, '{}'],
        ...Array.from({ length: STUDENTS }, (_, i) => {
          // Everybody is in four courses, spread over the college.
          const person = (c * 75 + i * 10 + (i % 7)) % PEOPLE;
          return [id('e', c * 1000 + i), id('c', c), id('p', person), 'student', `l${c}x${i}college`, '{}'];
        }),
      ])
      .filter(unlessDouble()),
  );
  const sessions = await laySessions(courses, now);
  const held = sessions.filter((s) => s.held).map((s) => s.id);
  const each = Math.floor(EVENTS / held.length);
  await insert(
    'INSERT INTO room_events (session_id, seq, at, version, body)',
    held.flatMap((session) =>
      Array.from({ length: each }, (_, n) => [
        session,
        n + 1,
        now,
        1,
        JSON.stringify({
          type: 'said',
          from: id('e', n % STUDENTS),
          addressee: { to: 'class' },
          text: `Word ${n}`,
          place: 'class',
        }),
      ]),
    ),
  );
  // Everyone was invited, as letters that were sent.
  await insert(
    'INSERT INTO jobs (kind, topic, job_key, course_id, member_id, payload, state, due_at, letter)',
    courses.flatMap((c) =>
      Array.from({ length: STUDENTS }, (_, i) => [
        ...['mail', 'invitation', `invitation/college/${c}/${i}`, id('c', c), id('e', c * 1000 + i)],
        ...['{}', 'done', now, '{}'],
      ]),
    ),
  );
}

/** A person is in a course once. */
function unlessDouble() {
  const seen = new Set<string>();
  return ([, course, person]: unknown[]) => {
    const key = `${course} ${person}`;
    return !seen.has(key) && Boolean(seen.add(key));
  };
}

async function laySessions(courses: number[], now: number) {
  const series: unknown[][] = [];
  const rows: unknown[][] = [];
  const sessions: { id: string; held: boolean }[] = [];
  for (const c of courses)
    for (const second of [false, true]) {
      const pattern = patternOf(c, second);
      const of = id('s', c * 2 + Number(second));
      const title = second ? 'Seminar' : 'Lecture';
      series.push([of, id('c', c), title, 'class', JSON.stringify(pattern), '[]', 1]);
      for (const p of sessionsOf(TERM, { ...pattern, ends: { by: 'term' } }).sessions) {
        const own = id('x', rows.length);
        const held = p.endsAt < now;
        sessions.push({ id: own, held });
        rows.push([
          own,
          of,
          id('c', c),
          p.date,
          p.number,
          p.startsAt,
          p.endsAt,
          0,
          held ? 'held' : 'planned',
        ]);
      }
    }
  await insert('INSERT INTO series (id, course_id, title, kind, pattern, leads, published_at)', series);
  await insert(
    'INSERT INTO sessions (id, series_id, course_id, local_date, number, starts_at, ends_at, linger_minutes, state)',
    rows,
  );
  return sessions;
}

const asked = async (): Promise<number> => {
  const [row] = await askStore<{ Value: string }>("SHOW GLOBAL STATUS LIKE 'Questions'");
  return Number(row!.Value);
};

/** Median of a few calls alone, and how many questions one of them asks the database. */
async function measure(call: () => Promise<{ status(): number; text(): Promise<string> }>) {
  const times: number[] = [];
  let questions = Infinity;
  for (let i = 0; i < CALLS; i++) {
    const before = await asked();
    const began = performance.now();
    const answer = await call();
    await answer.text();
    times.push(performance.now() - began);
    if (answer.status() >= 400) throw new Error(`${answer.status()}: ${await answer.text()}`);
    // Connecting and asking for the count are themselves counted; the least of them has the fewest of others in it.
    questions = Math.min(questions, (await asked()) - before - 1);
  }
  return { p50: percentile(times, 0.5), questions };
}

/** What a full college waits for: each request alone, its median beside the limit, and the questions it asks. */
export async function college(): Promise<Figure[]> {
  const api: APIRequestContext = await account(MAREN);
  const { now } = await (await api.get('/api/me')).json();
  await layCollege(now);
  const course = id('c', 7);
  const student = await byLink('/in/l7x5college');
  const [ahead] = await askStore<{ id: string }>(
    "SELECT id FROM sessions WHERE course_id = ? AND state = 'planned' ORDER BY starts_at LIMIT 1",
    [course],
  );
  const [past] = await askStore<{ id: string }>(
    "SELECT id FROM sessions WHERE course_id = ? AND state = 'held' LIMIT 1",
    [course],
  );
  const cancel = { edit: 'change-session', id: ahead!.id, scope: 'one', change: { do: 'cancel' } };
  const off = { from: '2026-11-18', to: '2026-11-18', name: 'Harbour Day' };
  const { path } = await (await api.post('/api/feeds', { data: { course: null } })).json();
  const calls: [string, number, () => ReturnType<APIRequestContext['get']>][] = [
    ['GET all courses of a teacher of 40', 100, () => api.get('/api/courses')],
    ['GET a course', 150, () => api.get(`/api/courses/${course}`)],
    ['GET its class list of 300', 100, () => api.get(`/api/courses/${course}/members`)],
    ["GET its plan's history", 100, () => api.get(`/api/courses/${course}/plan/history`)],
    ['GET its letters', 100, () => api.get(`/api/courses/${course}/deliveries`)],
    ['GET a session ahead', 100, () => api.get(`/api/sessions/${ahead!.id}`)],
    ['GET a session that was held', 100, () => api.get(`/api/sessions/${past!.id}`)],
    ["GET a student's page", 100, () => student.get('/api/my-course')],
    ["GET a teacher's feed of 40 courses", 100, () => api.get(path)],
    ['preview of an edit', 200, () => api.post(`/api/courses/${course}/plan/preview`, { data: cancel })],
    [
      'letters ahead of an edit',
      500,
      () => api.post(`/api/courses/${course}/plan/letters`, { data: cancel }),
    ],
    [
      'preview of a term',
      2000,
      () => api.post(`/api/terms/${id('t', 1)}/preview`, { data: { ...TERM, daysOff: [off] } }),
    ],
  ];
  const figures: Figure[] = [];
  for (const [what, limit, call] of calls) {
    const { p50, questions } = await measure(call);
    figures.push({
      what: `a college of 40 × 300 × 60: ${what}, p50 of ${CALLS}, ${questions} questions`,
      ours: ms(p50),
      peer: 'wanted',
      theirs: ms(limit),
      ratio: `${(p50 / limit).toFixed(2)} to 1`,
      wanted: 'at most 1 to 1',
    });
  }
  return figures;
}
