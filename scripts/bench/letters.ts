import MailComposer from 'nodemailer/lib/mail-composer';
import { performance } from 'node:perf_hooks';
import type { MeetingPattern, Term } from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import type { MemberRow } from '../../server/src/accounts/principal';
import type { CoursePlan } from '../../server/src/calendars/entries';
import type { Context } from '../../server/src/context';
import { compose, type Desk } from '../../server/src/mail/compose';
import { messageOf } from '../../server/src/mail/send';
import { account, addSeries } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { ms, percentile, type Figure } from './table';

const PEOPLE = 5000;
const NOW = Date.UTC(2026, 9, 6, 21);
const term: Term = {
  name: 'Autumn',
  zone: 'America/Halifax',
  firstDay: '2026-08-31',
  lastDay: '2026-12-13',
  daysOff: [{ from: '2026-10-12', to: '2026-10-18', name: 'Reading week' }],
  daySwaps: [{ date: '2026-11-18', follows: 'thursday', name: 'Thursday timetable' }],
};
const weekly = (...days: string[]): MeetingPattern =>
  ({
    kind: 'weekly',
    every: 1,
    lingerMinutes: 10,
    ends: { by: 'term' },
    days: days.map((day) => ({ day, start: '18:30', minutes: 80 })),
  }) as MeetingPattern;

/** A course of three series and its desk, as the server reads them. */
function deskOf(): Desk {
  const series = [weekly('tuesday', 'thursday'), weekly('friday'), weekly('monday')].map((pattern, i) => ({
    id: `series${i}`,
    courseId: 'c',
    title: ['Lecture', 'Chart lab', 'Office hours'][i]!,
    kind: 'class' as const,
    pattern,
    group: null,
    expected: null,
    leads: [],
    publishedAt: 1,
    listed: false,
    sequence: 0,
  }));
  const sessions = series.flatMap((s) =>
    sessionsOf(term, s.pattern).sessions.map((p, i) => ({
      ...p,
      id: `${s.id}-${i}`,
      courseId: 'c',
      seriesId: s.id,
      seriesTitle: s.title,
      group: null,
      published: true,
      kind: 'class' as const,
      state: i === 4 ? ('cancelled' as const) : ('planned' as const),
      lingerMinutes: 10,
      title: i === 6 ? 'Harbour lights' : null,
      own: [],
      replaces: null,
      record: null,
      take: 0,
    })),
  );
  const course = { id: 'c', code: 'NAV-210', title: 'Coastal Navigation', term, invitation: null };
  const plan = { course, series, sessions, bells: [] } as unknown as CoursePlan;
  return {
    plan,
    teachers: ['Maren Oduya'],
    origin: 'http://127.0.0.1:8210',
    organizer: 'classes@saltmarsh.example',
    now: NOW,
    notices: new Map(),
  };
}

const people = Array.from({ length: PEOPLE }, (_, i): MemberRow => ({
  id: `m${i}`,
  courseId: 'c',
  personId: `p${i}`,
  role: 'student',
  group: null,
  name: `Tide Reader ${i}`,
  email: `tide.reader.${i}@saltmarsh.example`,
  zone: ['America/Halifax', 'Europe/Lisbon', 'Atlantic/Azores'][i % 3]!,
  link: `abcd2345efgh${i}`,
  scope: null,
  capabilities: [],
}));

/** Queues 5,000 invitations of the running product by one request, ms. */
async function queued(): Promise<number> {
  const api = await account(MAREN);
  const post = async (path: string, data: object) => {
    const answer = await api.post(path, { data });
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const { id } = await post('/api/courses', { code: `Q-${Date.now() % 100_000}`, title: 'Five thousand' });
  await addSeries(api, id, { title: 'Lecture', pattern: weekly('tuesday') });
  const rows = people.map((m, i) => ({
    line: i + 2,
    name: m.name,
    email: m.email,
    zone: m.zone,
    group: null,
    extra: {},
  }));
  await post(`/api/courses/${id}/members`, { edit: 'import', rows });
  const began = performance.now();
  const answer = await post(`/api/courses/${id}/invitations`, {});
  const took = performance.now() - began;
  if (answer.queued !== PEOPLE) throw new Error(`${answer.queued} were queued.`);
  await api.dispose();
  return took;
}

/** Composing and queueing 5,000 invitations, beside nodemailer alone writing the same messages as MIME. */
export async function letters(): Promise<Figure[]> {
  const desk = deskOf();
  const ctx = { now: () => NOW, config: { organizer: desk.organizer } } as unknown as Context;
  const began = performance.now();
  const all = people.map((m) => compose(desk, m, { topic: 'invitation', about: {} }, new Map()).letter!);
  const ours = performance.now() - began;
  const times: number[] = [];
  for (const [i, letter] of all.entries()) {
    const stored = { ...letter, from: 'NAV-210', to: { name: people[i]!.name, address: people[i]!.email } };
    const at = performance.now();
    await new MailComposer(messageOf(ctx, stored, `<${i}@nimble-bell>`)).compile().build();
    times.push(performance.now() - at);
  }
  const theirs = times.reduce((sum, t) => sum + t, 0);
  const queue = await queued();
  return [
    {
      what: `composing ${PEOPLE} invitations, three calendar entries each`,
      ours: ms(ours),
      peer: 'nodemailer writing them as MIME',
      theirs: ms(theirs),
      ratio: `${(ours / theirs).toFixed(2)} times`,
      wanted: '',
    },
    {
      what: `queueing ${PEOPLE} invitations by one request, all or none`,
      ours: ms(queue),
      peer: 'nodemailer writing them as MIME',
      theirs: ms(theirs),
      ratio: `${(queue / theirs).toFixed(2)} times`,
      wanted: '',
    },
    {
      what: 'composing one of them, on average (p50 of the peer)',
      ours: ms(ours / PEOPLE),
      peer: 'nodemailer writing it as MIME',
      theirs: ms(percentile(times, 0.5)),
      ratio: '',
      wanted: '',
    },
  ];
}
