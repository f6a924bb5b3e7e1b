import type { CalendarCopy } from '@nimble-bell/core/calendar';
import type { Db } from '../db/pool';
import { makePlan, memberRow, NOW } from '../testing/coursePlan';
import { keepReply, Outdated, type GivenReply } from './replies';
import type { ReplyPlace } from './store';

type Row = ReplyPlace & { answer: string; sequence: number; stamp: number; outdated: boolean };
const rows = new Map<string, Row>();
let copy: Partial<CalendarCopy> | null = null;
const outdated: unknown[] = [];

const plan = makePlan();
jest.mock('../courses/store', () => ({
  seriesOf: async () => plan.series,
  sessionsOfCourse: async () => plan.sessions,
}));
jest.mock('./store', () => ({
  copiesOf: async () => (copy ? [{ key: 'Lecture', body: JSON.stringify(copy) }] : []),
  latestReply: async (_db: Db, p: ReplyPlace) => rows.get(`${p.series} ${p.date}.${p.take}`) ?? null,
  keepReplyRow: async (_db: Db, p: ReplyPlace, given: object) =>
    void rows.set(`${p.series} ${p.date}.${p.take}`, { ...p, ...given } as Row),
  outdateReplies: async (_db: Db, what: object) => void outdated.push(what),
}));

const db = {} as Db;
const give = (more: Partial<GivenReply> = {}) =>
  keepReply(
    db,
    memberRow(),
    {
      seriesId: 'Lecture',
      session: null,
      answer: 'accepted',
      sequence: null,
      stamp: null,
      verified: true,
      ...more,
    },
    NOW,
  );
const given = (place = 'Lecture .0') => rows.get(place)!;
const session = { date: '2026-10-20', take: 0 };

beforeEach(() => {
  rows.clear();
  copy = { sequence: 4, sessions: [] };
});

test.each<[string, Partial<GivenReply>, Partial<GivenReply>, string]>([
  ['a later message answered', { sequence: 3 }, { sequence: 4, answer: 'declined' }, 'declined'],
  ['an older message answered afterwards', { sequence: 4 }, { sequence: 3, answer: 'declined' }, 'accepted'],
  [
    'the same one answered again',
    { sequence: 4, stamp: 5 },
    { sequence: 4, stamp: 6, answer: 'declined' },
    'declined',
  ],
  [
    'an earlier answer to it, overtaken',
    { sequence: 4, stamp: 6 },
    { sequence: 4, stamp: 5, answer: 'declined' },
    'accepted',
  ],
  ['no number: the last that was sent', { sequence: 4 }, { answer: 'declined' }, 'declined'],
  [
    'a number that was never sent is the last one',
    { sequence: 900 },
    { sequence: 4, answer: 'declined' },
    'declined',
  ],
  ['an answer from the future is of now', { stamp: NOW * 2 }, { stamp: NOW, answer: 'declined' }, 'declined'],
])('%s', async (_name, first, second, stands) => {
  await give(first);
  await give(second);
  expect(given().answer).toBe(stands);
});

test('what is answered before it was moved says so', async () => {
  const held = { date: session.date, startsAt: 1, minutes: 1, title: null, since: 4 };
  copy = { sequence: 5, sessions: [held, { ...held, date: '2026-10-27', since: 0 }] };
  await give({ session, sequence: 3 });
  await give({ session: { ...session, date: '2026-10-27' }, sequence: 3 });
  await give({ sequence: 3 });
  const of = (place: string) => given(place).outdated;
  expect([of('Lecture 2026-10-20.0'), of('Lecture 2026-10-27.0'), of('Lecture .0')]).toEqual([
    true,
    false,
    true,
  ]);
  await give({ session, sequence: 4 });
  expect(of('Lecture 2026-10-20.0')).toBe(false);
});

test('what is not in somebody’s plan is not answered', async () => {
  expect(await give({ session: { ...session, take: 1 } })).toBe(false);
  expect(await give({ session: { date: '2026-10-14', take: 0 } })).toBe(false);
  expect(await give({ seriesId: 'Lab A' })).toBe(false);
  expect(await give({ seriesId: 'gone' })).toBe(false);
  expect(rows.size).toBe(0);
});

test('those to whom the same change is told are written together', async () => {
  const news = new Outdated();
  news.add('Lecture', ['2026-10-20'], 'ana');
  news.add('Lecture', ['2026-10-20'], 'ben');
  news.add('Lecture.2026-10-20.1', ['2026-10-20'], 'ana');
  await news.write(db);
  expect(outdated).toEqual([
    { members: ['ana', 'ben'], series: 'Lecture', dates: ['2026-10-20'], take: 0 },
    { members: ['ana'], series: 'Lecture', dates: ['2026-10-20'], take: 1 },
  ]);
});
