import fc from 'fast-check';
import type { MeetingPattern } from '../calendar/plan';
import { requestOf, sessionsOf, toEpochDay, toInstant } from '../calendar';
import {
  bounceWords,
  DEFAULT_INVITATION,
  entryWords,
  filled,
  filledLine,
  htmlOf,
  noticeIn,
  repliesIn,
  replyTo,
  sessionMeant,
  telephoneWords,
  textOf,
  unknownFields,
  type FieldValues,
} from './index';
import { autumn } from '../testing/autumn';
import { many } from '../testing/many';

const values: FieldValues = {
  name: 'Ana <Tide> Lanyon',
  course: 'TID-101 Tides & Streams',
  teacher: 'Maren Oduya',
  series: ['Lecture: Tue 18:30', 'Lab A: Fri 17:30'],
  next: '',
  link: 'http://127.0.0.1/in/abc',
  zone: 'Azores',
  until: 'Sun 6 Dec',
  session: '',
  telephone: '',
  pin: '',
  recording: '',
  limits: '',
};

test('the college’s own invitation is filled in: lines become a list, the link a button, what is empty goes', () => {
  const blocks = filled(DEFAULT_INVITATION.text, values);
  expect(blocks.map((b) => b.kind)).toEqual(['text', 'text', 'list', 'button', 'text']);
  const text = textOf(blocks);
  expect(text).toContain('- Lab A: Fri 17:30');
  expect(text).toContain('Go to your class page: http://127.0.0.1/in/abc');
  expect(filledLine(DEFAULT_INVITATION.subject, values)).toBe('TID-101 Tides & Streams: your way in');
});

test('a paragraph whose fields are all empty is left out, one with a filled one stays', () => {
  const words = 'By telephone: {telephone}, then your PIN {pin}.';
  expect(filled(words, values)).toEqual([]);
  const line = { ...values, telephone: '+1 902 555 0140', pin: '1234 5678' };
  expect(textOf(filled(words, line))).toBe('By telephone: +1 902 555 0140, then your PIN 1234 5678.');
  expect(textOf(filled('Hello {name}, {next}', values))).toBe('Hello Ana <Tide> Lanyon, ');
});

test('what a letter does to a calendar is said in words', () => {
  const session = { date: '2026-10-06', startsAt: 0, minutes: 80, title: null };
  const copy = { title: 'TID-101 Lecture', sessions: [session, session] };
  const of = (more: object) => entryWords({ copy, whole: false, changes: [], ...more } as never);
  const change = { date: session.date, was: session, is: session };
  expect(of({ whole: true })).toBe('TID-101 Lecture, 2 sessions');
  expect(of({ changes: [change] })).toBe('TID-101 Lecture, 1 session brought up to date');
  expect(of({ changes: [change, { ...change, is: null }, { ...change, is: null }] })).toBe(
    'TID-101 Lecture, 1 session brought up to date and 2 sessions taken off',
  );
  expect(of({ copy: { ...copy, sessions: [] } })).toBe('TID-101 Lecture, taken back');
});

test('the way in by telephone is said where there is a line and a PIN', () => {
  expect(telephoneWords('+1 902 555 0140', '12345678')).toBe(
    'By telephone: +1 902 555 0140, then your PIN 1234 5678.',
  );
  expect(telephoneWords(null, '12345678')).toBeNull();
  expect(telephoneWords('+1 902 555 0140', null)).toBeNull();
});

test('a linked phrase is a link in HTML and an address in plain text', () => {
  const blocks = filled('Hello {name}, [come in here]({link}).', values);
  expect(textOf(blocks)).toBe('Hello Ana <Tide> Lanyon, come in here (http://127.0.0.1/in/abc).');
  expect(htmlOf('T', blocks, '')).toContain(
    '<a href="http://127.0.0.1/in/abc" style="color:#2f6f8f">come in here</a>',
  );
});

test('fields that nobody knows are named, and left as they stand', () => {
  expect(unknownFields('{name} {nmae} {LINK} {x}')).toEqual(['nmae', 'LINK', 'x']);
  expect(filledLine('Dear {nmae}', values)).toBe('Dear {nmae}');
});

test('nothing that people are called or write breaks the letter', () => {
  const any = fc.oneof(
    fc.string(),
    fc.constantFrom('<script>', '"><img src=x>', '{name}', '](javascript:x)', "'"),
  );
  fc.assert(
    fc.property(any, any, any, (name, text, title) => {
      const html = htmlOf(title, filled(`${text}\n\n[go]({link}) {name}`, { ...values, name }), name);
      expect(html).not.toMatch(/<script|<img|href="javascript/i);
      expect(html.match(/<body/g)).toHaveLength(1);
    }),
  );
  const bad = htmlOf('T', filled('[go](javascript:alert)', values), '');
  expect(bad).not.toContain('<a ');
});

const term = autumn({ daysOff: [] });
const pattern: MeetingPattern = {
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
};
const request = requestOf({
  uid: 'tides@nimble-bell',
  sequence: 4,
  stamp: Date.UTC(2026, 7, 1),
  title: 'Lecture',
  organizer: { name: 'Maren Oduya', email: 'classes@saltmarsh.example' },
  attendee: { name: 'Ana Lanyon', email: 'ana@saltmarsh.example' },
  term,
  pattern,
  sessions: sessionsOf(term, pattern).sessions.map((s) => ({ ...s, state: 'planned' })),
});

test.each(['accepted', 'tentative', 'declined'] as const)(
  'a calendar program’s answer "%s" is read',
  (answer) => {
    const reply = replyTo(request, 'ana@saltmarsh.example', answer)!;
    const uid = 'tides@nimble-bell';
    const stamp = Date.UTC(2026, 7, 1);
    expect(repliesIn(reply)).toEqual([
      { uid, occurrence: null, attendee: 'ana@saltmarsh.example', answer, sequence: 4, stamp },
    ]);
  },
);

const declined = (line: string) =>
  replyTo(request, 'ana@saltmarsh.example', 'declined')!.replace('SUMMARY:', `${line}\r\nSUMMARY:`);

test('what is no answer is none', () => {
  const reply = declined('RECURRENCE-ID;TZID=America/Halifax:20261006T183000');
  expect(repliesIn(request)).toEqual([]);
  expect(replyTo(reply, 'a@b.example', 'accepted')).toBeNull();
  const two = reply.replace('ATTENDEE;', 'ATTENDEE;PARTSTAT=ACCEPTED:mailto:eve@example.org\r\nATTENDEE;');
  expect(repliesIn(two)).toEqual([]);
});

const evening = (date: string, take = 0) => {
  const startsAt = toInstant(term.zone, toEpochDay(date), take ? 20 * 60 : 18 * 60 + 30);
  return { date, startsAt, take };
};

test.each<[string, string, string | null]>([
  ['its zone', 'RECURRENCE-ID;TZID=America/Halifax:20261006T183000', '2026-10-06'],
  ['another zone', 'RECURRENCE-ID;TZID=Pacific/Auckland:20261007T103000', '2026-10-06'],
  ['UTC, where it is the day after', 'RECURRENCE-ID:20261007T013000Z', '2026-10-06'],
  ['the time it was moved to', 'RECURRENCE-ID:20261014T130000Z', '2026-10-13'],
  ['its day alone', 'RECURRENCE-ID;VALUE=DATE:20261006', '2026-10-06'],
  ['no zone', 'RECURRENCE-ID:20261006T183000', '2026-10-06'],
  ['a zone that nobody knows', 'RECURRENCE-ID;TZID=Harbour:20261006T183000', '2026-10-06'],
  ['another hour of its day', 'RECURRENCE-ID:20261006T230000Z', '2026-10-06'],
  ['a day without a session', 'RECURRENCE-ID:20261008T213000Z', null],
])('an answer to one session, named by %s, is for that session', (_name, line, date) => {
  const late = toInstant(term.zone, toEpochDay('2026-10-06'), 22 * 60 + 30);
  const sessions = [
    { ...evening('2026-10-06'), startsAt: line.includes('T013000Z') ? late : evening('2026-10-06').startsAt },
    evening('2026-10-07'),
    { ...evening('2026-10-13'), startsAt: Date.UTC(2026, 9, 14, 13) },
  ];
  const [reply] = repliesIn(declined(line));
  const start = line.includes('T013000Z') ? '22:30' : '18:30';
  expect(sessionMeant(reply!.occurrence!, sessions, start, term.zone)?.date ?? null).toBe(date);
});

test('of two sessions of a day a day alone means neither, an hour the one', () => {
  const two = [evening('2026-10-06'), evening('2026-10-06', 1)];
  expect(sessionMeant({ date: '2026-10-06' }, two, null, term.zone)).toBeNull();
  expect(sessionMeant({ instant: two[1]!.startsAt }, two, null, term.zone)).toBe(two[1]);
});

const plain = replyTo(request, 'ana@saltmarsh.example', 'accepted')!;
test.each<[string, string, object[]]>([
  [
    'a percent and a query in its address',
    plain.replace(/mailto:.*/, 'mailto:Ana%40saltmarsh.example?subject=x'),
    [{}],
  ],
  ['no SEQUENCE', plain.replace(/SEQUENCE:4\r\n/, ''), [{ sequence: null }]],
  ['a SEQUENCE below nothing', plain.replace('SEQUENCE:4', 'SEQUENCE:-4'), [{ sequence: 0 }]],
  ['no DTSTAMP', plain.replace(/DTSTAMP:.*\r\n/, ''), [{ stamp: null }]],
  ['a byte order mark', `\uFEFF${plain}`, [{}]],
  ['several calendars', `${plain}${plain.replace('tides@', 'lab@')}`, [{}, { uid: 'lab@nimble-bell' }]],
  ['one calendar that is torn', `${plain.replace('UID', ':UID')}${plain}`, [{}]],
])('an answer with %s is read', (_name, text, wanted) => {
  const whole = { uid: 'tides@nimble-bell', attendee: 'ana@saltmarsh.example', answer: 'accepted' };
  expect(repliesIn(text)).toMatchObject(wanted.map((more) => ({ ...whole, ...more })));
});

const dsn = (more: { base64?: boolean; action?: string } = {}) => {
  const status = [
    'Reporting-MTA: dns; mail.saltmarsh.example',
    '',
    'Original-Recipient: rfc822; ana@saltmarsh.example',
    'Final-Recipient: RFC822; Ana@saltmarsh.example',
    `Action: ${more.action ?? 'failed'}`,
    'Status: 5.1.1',
    'Diagnostic-Code: smtp; 550 5.1.1 There is',
    '  no such mailbox',
  ].join('\r\n');
  return [
    'From: postmaster@saltmarsh.example',
    'Message-ID: <of.the.notice@saltmarsh.example>',
    'Content-Type: multipart/report; report-type=delivery-status;',
    ' boundary="b1"',
    '',
    'for people',
    '--b1',
    'Content-Type: text/plain',
    '',
    'It did not arrive.',
    '--b1',
    'Content-Type: message/delivery-status',
    ...(more.base64 ? ['Content-Transfer-Encoding: base64'] : []),
    '',
    more.base64 ? btoa(status) : status,
    '--b1',
    'Content-Type: message/rfc822',
    '',
    'Subject: your way in',
    'Message-ID:',
    ' <invitation.first.m1@nimble-bell>',
    '',
    'Dear Ana',
    '--b1--',
  ].join('\r\n');
};

test.each([false, true])('a delivery notice names the letter and why it came back (base64: %s)', (base64) => {
  const notice = noticeIn(dsn({ base64 }))!;
  expect(notice.messageId).toBe('<invitation.first.m1@nimble-bell>');
  expect(notice.statuses).toMatchObject([
    { recipient: 'ana@saltmarsh.example', action: 'failed', status: '5.1.1' },
  ]);
  expect(bounceWords(notice.statuses[0]!)).toBe('550 5.1.1 There is no such mailbox (5.1.1)');
});

test('another letter is no delivery notice', () => {
  expect(noticeIn('Subject: hello\r\n\r\nAction: failed\r\nFinal-Recipient: rfc822; a@b.example')).toBeNull();
});

/** A text cut up, repeated and mixed with others: what comes in by mail can be anything. */
const mangled = (text: string) => {
  const lines = text.split('\r\n');
  return fc
    .array(
      fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...lines) }, { weight: 1, arbitrary: fc.string() }),
      {
        maxLength: 60,
      },
    )
    .map((some) => some.join('\r\n'));
};

test('any reply and any delivery notice is read without failing', () => {
  const reply = replyTo(request, 'ana@saltmarsh.example', 'accepted')!;
  fc.assert(
    fc.property(fc.oneof(mangled(reply), fc.string()), (text) => {
      for (const r of repliesIn(text)) expect(r.attendee.length > 0 && r.uid.length > 0).toBe(true);
    }),
    { numRuns: many(20_000) },
  );
  fc.assert(
    fc.property(fc.oneof(mangled(dsn()), fc.string()), (text) => {
      for (const s of noticeIn(text)?.statuses ?? []) expect(s.recipient.length > 0).toBe(true);
    }),
    { numRuns: many(20_000) },
  );
});
