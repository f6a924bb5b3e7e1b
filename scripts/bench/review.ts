import { performance } from 'node:perf_hooks';
import type { APIRequestContext } from '@playwright/test';
import { account, byLink, makeCourse, type MadeCourse } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { askStore } from '../../e2e/support/store';
import { ms, percentile, type Figure } from './table';

const STUDENTS = 300;
const SESSIONS = 60;
/** Of an hour each. */
const RECORDINGS = 1000;
const WORDS_AN_HOUR = 600;
const HOUR = 3_600_000;
const CALLS = 20;
const id = (kind: string, n: number) => `${kind}${String(n).padStart(11, 'r')}`;

async function insert(sql: string, rows: unknown[][]) {
  for (let i = 0; i < rows.length; i += 4000) await askStore(`${sql} VALUES ?`, [rows.slice(i, i + 4000)]);
}

/** Sessions of a course that are over, an hour each, one after another. */
async function laySessions(course: string, kind: string, count: number, now: number) {
  const [series] = await askStore<{ id: string }>('SELECT id FROM series WHERE course_id = ? LIMIT 1', [
    course,
  ]);
  await insert(
    'INSERT INTO sessions (id, series_id, course_id, local_date, take, number, starts_at, ends_at, linger_minutes, state)',
    Array.from({ length: count }, (_, i) => {
      const at = now - (count - i) * 2 * HOUR;
      return [id(kind, i), series!.id, course, '2020-01-01', i + 1, i + 1, at, at + HOUR, 0, 'held'];
    }),
  );
}

async function layRolls(course: MadeCourse) {
  await insert(
    'INSERT INTO roll_lines (session_id, member_id, role, arrived_at, left_at, minutes, late, left_early, stays)',
    Array.from({ length: SESSIONS }, (_, s) =>
      course.students.map((m, i) => {
        const there = (i * 7 + s * 3) % 11 !== 0;
        return [
          id('b', s),
          m.id,
          'student',
          there ? 1 : null,
          there ? 2 : null,
          there ? 58 : 0,
          i % 9 === 0,
          0,
          '[]',
        ];
      }),
    ).flat(),
  );
}

const SPOKEN = ['tide', 'chart', 'buoy', 'current', 'anchor', 'harbour', 'bearing', 'squall', 'ebb', 'flood'];

/** A thousand hours of captions, and one word that is said once. */
async function layWords() {
  await insert(
    'INSERT INTO recordings (id, session_id, state, progress, length_ms, bytes, file, finished_at, words_at)',
    Array.from({ length: RECORDINGS }, (_, i) => [
      id('v', i),
      id('s', i),
      'ready',
      1,
      HOUR,
      1,
      `${i}.webm`,
      1,
      1,
    ]),
  );
  for (let from = 0; from < RECORDINGS; from += 20)
    await insert(
      'INSERT INTO recording_words (recording_id, position_ms, kind, text)',
      Array.from({ length: 20 * WORDS_AN_HOUR }, (_, n) => {
        const i = from + Math.floor(n / WORDS_AN_HOUR);
        const said = [1, 3, 7, 11, 13].map((k) => SPOKEN[(n * k + i) % SPOKEN.length]).join(' ');
        const rare = n === 7 && from === 500 ? ' kittiwake' : '';
        return [id('v', i), (n % WORDS_AN_HOUR) * 6000, 'said', `The ${said} of part ${n % 97}${rare}`];
      }),
    );
  await insert(
    'INSERT INTO recording_vocabulary (recording_id, words)',
    Array.from({ length: RECORDINGS }, (_, i) => [id('v', i), vocabulary(i)]),
  );
}

/** What is said in an hour, each word once: those of its captions, and 1,500 others as a lesson has them. */
function vocabulary(recording: number): string {
  const others = Array.from(
    { length: 1500 },
    (_, n) => `x${((recording * 31 + n * n * 7) % 20_000).toString(36)}`,
  );
  const said = [
    'the',
    'of',
    'part',
    ...Array.from({ length: 97 }, (_, n) => String(n)).filter((n) => n.length > 1),
  ];
  const all = [...SPOKEN, ...said, ...others, ...(recording === 500 ? ['kittiwake'] : [])];
  return [...new Set(all)].map((w) => `q${w}`).join(' ');
}

async function timed(
  ask: () => Promise<{ ok: () => boolean; text: () => Promise<string> }>,
): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < CALLS; i++) {
    const began = performance.now();
    const answer = await ask();
    if (!answer.ok()) throw new Error(await answer.text());
    times.push(performance.now() - began);
  }
  return times;
}

const figure = (what: string, times: number[], theirs: number, peer: string, wanted: string): Figure => ({
  ...{ what, peer, wanted },
  ours: ms(percentile(times, 0.5)),
  theirs: ms(theirs),
  ratio: `${(percentile(times, 0.5) / theirs).toFixed(2)} to 1`,
});

async function plainly(sql: string, values: unknown[]): Promise<number> {
  const began = performance.now();
  await askStore(sql, values);
  return performance.now() - began;
}

async function searching(student: APIRequestContext, course: string): Promise<Figure[]> {
  const recordings = Array.from({ length: RECORDINGS }, (_, i) => id('v', i));
  const scan = await plainly(
    'SELECT COUNT(*) FROM recording_words WHERE recording_id IN (?) AND text LIKE ?',
    [recordings, '%kittiwake%'],
  );
  const found = (q: string) => timed(() => student.get(`/api/courses/${course}/search`, { params: { q } }));
  const [rare, common] = [await found('kittiwake'), await found('tide harbour')];
  const peer = 'reading every line of them';
  return [
    figure(`a word that was said once in ${RECORDINGS} hours`, rare, scan, peer, 'at most 100 ms'),
    figure(
      `two words that are said all the time in ${RECORDINGS} hours`,
      common,
      scan,
      peer,
      'at most 100 ms',
    ),
  ];
}

/** What comes after class, of a large class and of many years: the roll book, and the search. */
export async function review(): Promise<Figure[]> {
  const api = await account(MAREN);
  const { now } = await (await api.get('/api/me')).json();
  const large = await makeCourse({ students: STUDENTS });
  await laySessions(large.id, 'b', SESSIONS, now);
  await layRolls(large);
  const book = await timed(() => api.get(`/api/courses/${large.id}/roll-book`));
  const rows = await plainly(
    "SELECT session_id, member_id, minutes FROM roll_lines WHERE session_id LIKE 'br%'",
    [],
  );
  const old = await makeCourse({ students: 1, record: true });
  await laySessions(old.id, 's', RECORDINGS, now);
  await layWords();
  const student = await byLink(old.students[0]!.link);
  const figures = [
    figure(
      `roll book of ${STUDENTS} by ${SESSIONS}, with who is slipping`,
      book,
      rows,
      'its lines read plainly',
      '',
    ),
    ...(await searching(student, old.id)),
  ];
  await Promise.all([api.dispose(), student.dispose()]);
  return figures;
}
