import { repliesIn, replyTo } from '@nimble-bell/core/mail';
import { requestOf } from '@nimble-bell/core/calendar';
import type { Context } from '../context';
import { entriesOf } from '../calendars/entries';
import { makePlan, memberRow, NOW } from '../testing/coursePlan';
import { take } from './inbox';
import type { GivenReply } from './replies';

const ana = memberRow({ calendarSecret: 'known2only2her' });
const kept: (GivenReply & { member: string })[] = [];
const written: { sql: string; values: unknown[] }[] = [];
let seen: string[] = [];
let bounces = 1;

jest.mock('../db/pool', () => ({
  transaction: async (_pool: unknown, work: (db: object) => Promise<unknown>) => work({}),
  one: async (_db: unknown, _sql: string, [uidl]: string[]) => (seen.includes(uidl!) ? { uidl } : null),
  run: async (_db: unknown, sql: string, values: unknown[]) => {
    written.push({ sql, values });
    return { affectedRows: sql.startsWith('UPDATE jobs') ? bounces : 1 };
  },
}));
jest.mock('../accounts/store', () => ({
  membersWhere: async (_db: unknown, _where: string, [email]: string[]) =>
    email === 'ana@saltmarsh.example' ? [ana] : [],
}));
jest.mock('../courses/store', () => ({
  courseById: async () => makePlan().course,
  sessionsOfCourse: async () => makePlan().sessions,
}));
jest.mock('./replies', () => ({
  copyOf: async () => ({ start: '18:30' }),
  keepReply: async (_db: unknown, member: { id: string }, reply: GivenReply) => {
    if (reply.seriesId !== 'Lecture') return false;
    kept.push({ ...reply, member: member.id });
    return true;
  },
}));

const ctx = { now: () => NOW, log: { warn: () => undefined } } as unknown as Context;
beforeEach(() => {
  kept.length = 0;
  written.length = 0;
  seen = [];
  bounces = 1;
});

const request = () => {
  const [{ entry }] = entriesOf(makePlan(), ana, 'http://127.0.0.1', NOW) as [
    ReturnType<typeof entriesOf>[0],
  ];
  return requestOf({ ...entry, attendee: { name: 'Ana', email: 'ana@saltmarsh.example' } });
};
const mail = (calendar: string, type = 'text/calendar; method=REPLY; charset=utf-8') =>
  [
    'From: Ana <ana@saltmarsh.example>',
    'To: classes@saltmarsh.example',
    'Subject: Accepted',
    'MIME-Version: 1.0',
    'Content-Type: multipart/alternative; boundary="b"',
    '',
    '--b',
    'Content-Type: text/plain',
    '',
    'Ana has accepted.',
    '--b',
    `Content-Type: ${type}`,
    '',
    calendar,
    '--b--',
    '',
  ].join('\r\n');
const outcomes = () => written.filter((w) => w.sql.includes('inbox_seen')).map((w) => w.values.at(-1));

test('an answer is kept for the person it names, and the letter is noted as read', async () => {
  const reply = replyTo(request(), 'ana@saltmarsh.example', 'accepted')!;
  expect(repliesIn(reply)).toHaveLength(1);
  expect(await take(ctx, 'u1', mail(reply))).toBe('ana@saltmarsh.example accepted');
  expect(kept).toEqual([
    {
      ...{ member: 'm1', seriesId: 'Lecture', session: null, answer: 'accepted' },
      ...{ sequence: 0, stamp: NOW, verified: true },
    },
  ]);
  expect(outcomes()).toEqual(['ana@saltmarsh.example accepted']);
});

test('an answer attached as a file is read as well', async () => {
  const reply = replyTo(request(), 'ana@saltmarsh.example', 'declined')!;
  await take(ctx, 'u2', mail(reply, 'application/ics; name="reply.ics"'));
  expect(kept).toMatchObject([{ answer: 'declined' }]);
});

test('a letter that was read before does nothing again', async () => {
  seen = ['u3'];
  expect(await take(ctx, 'u3', mail(replyTo(request(), 'ana@saltmarsh.example', 'accepted')!))).toBe(
    'read before',
  );
  expect([...kept, ...written]).toEqual([]);
});

test('an answer of somebody who is not invited, or to something else, changes nothing and is said', async () => {
  const stranger = replyTo(request(), 'eve@example.org', 'accepted')!;
  expect(await take(ctx, 'u4', mail(stranger))).toBe('eve@example.org is not invited to that');
  const other = replyTo(
    request().replace(/Lecture~\w+@nimble-bell/g, 'else@another.example'),
    'ana@saltmarsh.example',
    'accepted',
  )!;
  expect(await take(ctx, 'u5', mail(other))).toContain('is not invited to that');
  expect(kept).toEqual([]);
});

test('an answer that does not know what only her own letters say changes nothing', async () => {
  const reply = replyTo(request(), 'ana@saltmarsh.example', 'declined')!;
  for (const uid of ['Lecture@nimble-bell', 'Lecture~guessed@nimble-bell', '@nimble-bell', '~@nimble-bell'])
    expect(await take(ctx, uid, mail(reply.replace(/Lecture~\w+@nimble-bell/g, uid)))).toContain(
      'not invited',
    );
  expect(kept).toEqual([]);
});

test('an answer from another address is kept, and marked', async () => {
  const reply = replyTo(request(), 'ana@saltmarsh.example', 'declined')!;
  const other = mail(reply).replace('From: Ana <ana@saltmarsh.example>', 'From: Eve <eve@example.org>');
  expect(await take(ctx, 'from', other)).toBe('ana@saltmarsh.example declined, by another address');
  expect(kept).toMatchObject([{ verified: false }]);
});

test('an answer to one session in UTC is for the session of its own evening, in whatever encoding it comes', async () => {
  const reply = replyTo(request(), 'ana@saltmarsh.example', 'declined')!.replace(
    'SUMMARY:',
    'RECURRENCE-ID:20261020T213000Z\r\nSUMMARY:',
  );
  await take(ctx, 'utc', mail(reply));
  const wide = Buffer.from(`\uFEFF${reply}`, 'utf16le').toString('base64');
  const encoded = mail(wide).replace(
    'Content-Type: text/calendar; method=REPLY; charset=utf-8',
    'Content-Type: text/calendar; method=REPLY\r\nContent-Transfer-Encoding: base64',
  );
  await take(ctx, 'wide', encoded);
  const session = { date: '2026-10-20', take: 0 };
  expect(kept).toMatchObject([
    { session, answer: 'declined' },
    { session, answer: 'declined' },
  ]);
  const none = reply.replace('20261020T213000Z', '20261021T213000Z');
  expect(await take(ctx, 'none', mail(none))).toContain('not invited');
});

test('an absence that answers by itself is passed over', async () => {
  const away = ['From: ana@saltmarsh.example', 'Auto-Submitted: auto-replied', '', 'I am away.'].join('\r\n');
  expect(await take(ctx, 'away', away)).toBe('a letter that nobody wrote');
});

test('a delivery notice marks its letter; one that names none, or no failure, marks none', async () => {
  const notice = (action: string, id: string) =>
    [
      'Content-Type: multipart/report; report-type=delivery-status; boundary="b"',
      '',
      '--b',
      'Content-Type: message/delivery-status',
      '',
      'Final-Recipient: rfc822; ana@saltmarsh.example',
      `Action: ${action}`,
      'Status: 5.1.1',
      '--b',
      'Content-Type: text/rfc822-headers',
      '',
      id && `Message-ID: ${id}`,
      'Subject: x',
      '--b--',
    ].join('\r\n');
  expect(await take(ctx, 'd1', notice('failed', '<a@nimble-bell>'))).toBe('ana@saltmarsh.example bounced');
  expect(written.find((w) => w.sql.startsWith('UPDATE jobs'))!.values).toEqual([
    NOW,
    'The address does not take post. (5.1.1)',
    '<a@nimble-bell>',
  ]);
  expect(await take(ctx, 'd2', notice('delayed', '<a@nimble-bell>'))).toBe('a delivery notice of no failure');
  expect(await take(ctx, 'd3', notice('failed', ''))).toBe('a delivery notice that names no letter');
  bounces = 0;
  expect(await take(ctx, 'd4', notice('failed', '<b@nimble-bell>'))).toBe(
    'a delivery notice of an unknown letter',
  );
});

test.each([
  '',
  'no letter at all',
  'Content-Type: text/calendar; method=REPLY\r\n\r\nBEGIN:VCALENDAR',
  '\u0000\uFFFF',
])('anything else is noted and left: %j', async (raw) => {
  expect(await take(ctx, 'x', raw)).toMatch(/neither|not be read/);
  expect(kept).toEqual([]);
});

test('a letter too large to be an answer is not read', async () => {
  expect(await take(ctx, 'big', 'x'.repeat(2_000_001))).toBe('could not be read');
});
