import type { Request, Response } from 'express';
import pino from 'pino';
import { z } from 'zod';
import type { CourseDetail } from '@nimble-bell/core/api';
import { readConfig } from './config';
import { stagesOf } from './courses/stages';
import { demoCourses, demoTerm, inventedName } from './demo/scenario';
import { AppError, errorHandler, parse } from './errors';
import { isExpired } from './recordings/expire';
import { isFor } from './roster/store';
import { sessionsOf, termDays, toEpochDay, toWall, weekOf } from '@nimble-bell/core/calendar';

const environment = { DATABASE_URL: 'mysql://root@127.0.0.1:1/x', NB_DATA: '/data', NB_WEB: '/web' };

test('an incomplete environment ends the start with the name of what is missing', () => {
  expect(() => readConfig({})).toThrow(/DATABASE_URL/);
  expect(() => readConfig({ ...environment, NB_PORT: 'eighty' })).toThrow(/NB_PORT/);
});

test('mail goes to the stand-in mailbox unless an outside server is named', () => {
  expect(readConfig({ ...environment, NB_MAILBOX_PORT: '8213' })).toMatchObject({
    smtpUrl: 'smtp://127.0.0.1:8213',
    standinMailbox: true,
  });
  expect(readConfig({ ...environment, SMTP_URL: 'smtp://mail.saltmarsh.example' }).standinMailbox).toBe(
    false,
  );
});

function answerTo(error: unknown) {
  const said = { status: 0, body: {} as unknown };
  const res = {
    headersSent: false,
    status: (code: number) => ((said.status = code), res),
    json: (body: unknown) => ((said.body = body), res),
  } as unknown as Response;
  errorHandler(pino({ level: 'silent' }))(error, {} as Request, res, () => {});
  return said;
}

test('an error reaches a person as its status and its sentence, an unknown one without its inside', () => {
  expect(answerTo(new AppError('forbidden'))).toMatchObject({
    status: 403,
    body: { error: { code: 'forbidden' } },
  });
  const inside = answerTo(new Error('SELECT secret FROM people'));
  expect(inside.status).toBe(500);
  expect(JSON.stringify(inside.body)).not.toContain('secret');
  expect(answerTo(Object.assign(new Error(), { type: 'entity.too.large' })).status).toBe(413);
  expect(answerTo(Object.assign(new Error(), { type: 'entity.parse.failed' })).status).toBe(422);
});

test('a value that does not fit is refused with each field and its fault', () => {
  const schema = z.object({ code: z.string().min(2, 'Too short.'), minutes: z.number() });
  expect(parse(schema, { code: 'NAV', minutes: 5 })).toEqual({ code: 'NAV', minutes: 5 });
  try {
    parse(schema, { code: 'N', minutes: 'five' });
    throw new Error('It was taken.');
  } catch (error) {
    expect((error as AppError).fields?.map((f) => f.path)).toEqual(['code', 'minutes']);
    expect((error as AppError).message).toBe('Too short.');
  }
});

const now = Date.UTC(2026, 9, 6, 21, 0);
const session = (state: string, startsIn: number) => ({
  state,
  startsAt: now + startsIn * 60_000,
  endsAt: now + (startsIn + 80) * 60_000,
});
const course = (more: object) =>
  ({
    series: [],
    sessions: [],
    counts: { students: 0, invited: 0, recordings: 0 },
    limitsSet: null,
    recordingPlan: null,
    findings: [],
    ...more,
  }) as unknown as Omit<CourseDetail, 'stages'>;

test('the path says what is done, what needs the teacher and what cannot be done yet', () => {
  expect(stagesOf(course({}), now)).toEqual({
    plan: 'needs you',
    class: 'needs you',
    invite: 'not yet',
    limits: 'needs you',
    recording: 'needs you',
    teach: 'not yet',
    review: 'not yet',
  });
  const under = course({
    sessions: [session('held', -3000), session('planned', 30)],
    counts: { students: 30, invited: 29, recordings: 1 },
    limitsSet: { by: 'Maren', at: 1 },
  });
  expect(stagesOf(under, now)).toMatchObject({
    plan: 'done',
    class: 'done',
    invite: 'needs you',
    limits: 'done',
    teach: 'needs you',
    review: 'done',
  });
  expect(stagesOf(course({ sessions: [session('planned', 600)] }), now).teach).toBe('not yet');
  const stopped = { sessions: [session('planned', 600)], findings: [{ stage: 'plan', level: 'stops' }] };
  expect(stagesOf(course(stopped), now).plan).toBe('needs you');
  expect(stagesOf(course({ sessions: [session('held', -600)] }), now).teach).toBe('done');
});

test('a group session is for its group and for those who teach', () => {
  const lab = { group: 'A', published: true, seriesId: 'lab' };
  const all = { group: null, published: true, seriesId: 'lecture' };
  const draft = { ...all, published: false };
  expect(isFor(lab, { group: 'A', role: 'student' })).toBe(true);
  expect(isFor(lab, { group: 'B', role: 'student' })).toBe(false);
  expect(isFor(lab, { group: null, role: 'teacher' })).toBe(true);
  expect(isFor(all, { group: 'B', role: 'student' })).toBe(true);
  expect(isFor(draft, { group: 'B', role: 'student' })).toBe(false);
  expect(isFor(draft, { group: null, role: 'assistant' })).toBe(true);
});

test('whoever is here for some sessions has those and no other, whatever their role', () => {
  const session = { group: null, published: true, seriesId: 'lecture', sessionId: 's1' };
  for (const role of ['guest', 'assistant', 'teacher'] as const) {
    const one = { group: null, role, scope: { series: [], sessions: ['s1'] } };
    expect(isFor(session, one)).toBe(true);
    expect(isFor({ ...session, sessionId: 's2' }, one)).toBe(false);
    expect(
      isFor({ ...session, sessionId: 's2' }, { ...one, scope: { series: ['lecture'], sessions: [] } }),
    ).toBe(true);
  }
});

test('a recording is gone when its last day is over at home, not before', () => {
  const plan = { automatic: true, keepUntil: '2026-10-06', studentsWatch: true, studentsDownload: false };
  const at = (iso: string) => isExpired(plan, 'America/Halifax', Date.parse(iso));
  expect(at('2026-10-07T02:59:00Z')).toBe(false);
  expect(at('2026-10-07T03:00:00Z')).toBe(true);
  expect(isExpired(null, 'America/Halifax', now)).toBe(false);
});

const INSTANTS = [
  '2026-10-06T21:05:00Z',
  '2026-11-24T03:40:00Z',
  '2027-03-14T06:15:00Z',
  '2026-12-31T23:59:00Z',
  '2027-01-04T12:00:00Z',
];

test.each(INSTANTS)(
  'laid around %s, the demo is in teaching week 6 and a lecture starts within the hour',
  (iso) => {
    const instant = Date.parse(iso);
    const term = demoTerm(instant);
    const today = toWall(term.zone, instant).day;
    expect(weekOf(termDays(term), today)?.number).toBe(6);
    const lecture = demoCourses(instant)[0]!.series[0]!;
    const next = sessionsOf(term, lecture.pattern!).sessions.find((s) => s.startsAt > instant)!;
    expect(next.startsAt - instant).toBeLessThanOrEqual(60 * 60_000);
    expect(toEpochDay(next.date)).toBeGreaterThanOrEqual(today);
  },
);

test('invented people have names of their own', () => {
  const names = Array.from({ length: 130 }, (_, i) => inventedName(i));
  expect(new Set(names).size).toBe(names.length);
});
