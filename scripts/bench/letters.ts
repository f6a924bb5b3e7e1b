import MailComposer from 'nodemailer/lib/mail-composer';
import { performance } from 'node:perf_hooks';
import type { Context } from '../../server/src/context';
import { compose, type Desk } from '../../server/src/mail/compose';
import { messageOf } from '../../server/src/mail/send';
import { deskOf, makePlan, memberRow, NOW, seriesRow, weekly } from '../../server/src/testing/coursePlan';
import { account, addSeries } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { ms, percentile, type Figure } from './table';

const PEOPLE = 5000;
const pattern = (...days: Parameters<typeof weekly>) => ({ ...weekly(...days), lingerMinutes: 10 });

/** A course of three series and its desk, with sessions of their own kind among the ordinary ones. */
function threeSeries(): Desk {
  const plan = makePlan([
    seriesRow('Lecture', { pattern: pattern('tuesday', 'thursday') }),
    seriesRow('Chart lab', { pattern: pattern('friday') }),
    seriesRow('Office hours', { pattern: pattern('monday') }),
  ]);
  for (const { id } of plan.series) {
    const own = plan.sessions.filter((s) => s.seriesId === id);
    own[4]!.state = 'cancelled';
    own[6]!.title = 'Harbour lights';
  }
  return deskOf(plan);
}

const people = Array.from({ length: PEOPLE }, (_, i) =>
  memberRow({
    id: `m${i}`,
    name: `Tide Reader ${i}`,
    email: `tide.reader.${i}@saltmarsh.example`,
    zone: ['America/Halifax', 'Europe/Lisbon', 'Atlantic/Azores'][i % 3]!,
    link: `abcd2345efgh${i}`,
  }),
);

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
  const desk = threeSeries();
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
