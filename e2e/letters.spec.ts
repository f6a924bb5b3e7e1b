import { expect, test, type APIRequestContext } from '@playwright/test';
import type { Delivery, LetterAhead, LetterDetail, MemberInfo } from '@nimble-bell/core/api';
import {
  account,
  byLink,
  detailOf,
  dismiss,
  makeCourse,
  ringIn,
  throughDoor,
  type MadeCourse,
} from './support/course';
import { classRows, MAREN, person } from './support/people';
import { BASE_URL, PORT, pidOf, ROOT, startProduct } from './support/product';
import path from 'node:path';
import { request } from '@playwright/test';

const TIMEOUT = { timeout: 20_000 };

const deliveries = async (api: APIRequestContext, course: MadeCourse): Promise<Delivery[]> =>
  (await api.get(`/api/courses/${course.id}/deliveries`)).json();
const members = async (api: APIRequestContext, course: MadeCourse): Promise<MemberInfo[]> =>
  (await api.get(`/api/courses/${course.id}/members`)).json();
const edit = async (api: APIRequestContext, course: MadeCourse, body: object) => {
  const answer = await api.post(`/api/courses/${course.id}/members`, { data: body });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
};
const plan = async (api: APIRequestContext, course: MadeCourse, body: object) => {
  const answer = await api.post(`/api/courses/${course.id}/plan`, { data: body });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
};
const invite = (api: APIRequestContext, course: MadeCourse, body: object = {}) =>
  api.post(`/api/courses/${course.id}/invitations`, { data: body });

/** The letters of a course that reached the stand-in mailbox, newest first. */
async function letters(api: APIRequestContext, course: MadeCourse, to = ''): Promise<LetterDetail[]> {
  const { code } = await detailOf(api, course.id);
  const all: LetterDetail[] = await (await api.get('/api/mailbox')).json();
  const own = all.filter((l) => l.subject.startsWith(code) && l.to.startsWith(to));
  return Promise.all(own.map(async (l) => (await api.get(`/api/mailbox/${l.id}`)).json()));
}
const allSent = async (api: APIRequestContext, course: MadeCourse) =>
  expect
    .poll(async () => (await deliveries(api, course)).filter((d) => d.state === 'queued').length, TIMEOUT)
    .toBe(0);

test('an answer from a calendar program comes back to the class list, to the series and to one session', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await invite(api, course);
  await allSent(api, course);
  const [first] = await letters(api, course, 'ana');
  expect(first!.calendars.map((c) => c.method)).toEqual(['REQUEST']);
  await api.post(`/api/mailbox/${first!.id}/answer`, { data: { answer: 'accepted' } });
  const replies = async () => (await members(api, course)).find((m) => m.name === 'Ana Lanyon')!.replies;
  await expect
    .poll(async () => (await replies()).map((r) => [r.date, r.answer]), TIMEOUT)
    .toEqual([[null, 'accepted']]);

  const { sessions } = await detailOf(api, course.id);
  const ahead = sessions.filter((s) => s.startsAt > Date.parse('2026-10-10'))[0]!;
  await plan(api, course, {
    edit: 'change-session',
    id: ahead.id,
    scope: 'one',
    change: { do: 'lengthen', minutes: 60 },
  });
  await expect.poll(async () => (await letters(api, course, 'ana')).length, TIMEOUT).toBe(2);
  const [change] = await letters(api, course, 'ana');
  expect(change!.calendars[0]!.content).toContain('RECURRENCE-ID');
  await api.post(`/api/mailbox/${change!.id}/answer`, { data: { answer: 'declined' } });
  await expect
    .poll(async () => (await replies()).map((r) => `${r.date} ${r.answer}`).sort(), TIMEOUT)
    .toEqual([`${ahead.date} declined`, 'null accepted']);
});

test('changes of a few moments are one letter, the smallest that says it; one taken back says nothing', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await invite(api, course);
  await allSent(api, course);
  const ahead = (await detailOf(api, course.id)).sessions.filter(
    (s) => s.startsAt > Date.parse('2026-10-10'),
  );
  const change = (at: number, how: object) =>
    plan(api, course, { edit: 'change-session', id: ahead[at]!.id, scope: 'one', change: how });
  await change(0, { do: 'cancel' });
  await change(1, { do: 'rename', title: 'Harbour lights' });
  const taken = await change(2, { do: 'cancel' });
  await api.post(`/api/courses/${course.id}/plan/undo`, { data: { change: taken.changeId } });
  await expect.poll(async () => (await letters(api, course, 'ana')).length, TIMEOUT).toBe(2);
  const [news] = await letters(api, course, 'ana');
  expect(news!.calendars.map((c) => c.method).sort()).toEqual(['CANCEL', 'REQUEST']);
  for (const c of news!.calendars) expect(c.content.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  expect(news!.text).toContain('is cancelled');
  expect(news!.text).toContain('is called "Harbour lights"');

  const { changeId } = await change(3, { do: 'cancel' });
  await api.post(`/api/courses/${course.id}/plan/undo`, { data: { change: changeId } });
  await expect
    .poll(async () => (await deliveries(api, course)).filter((d) => d.state === 'void').length, TIMEOUT)
    .toBe(2);
  expect(await letters(api, course, 'ana')).toHaveLength(2);
});

test('a letter that comes back is said, and goes again to a mended address with the entry anew', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  await edit(api, course, {
    edit: 'add',
    invite: true,
    person: { name: 'Gone Away', email: `gone.away.${course.id}@saltmarsh.example` },
  });
  const gone = async () => (await members(api, course)).find((m) => m.name.startsWith('Gone'))!;
  await expect.poll(async () => (await gone()).invitation, TIMEOUT).toBe('bounced');
  const lost = (await deliveries(api, course)).find((d) => d.state === 'bounced')!;
  expect(lost.fault).toContain('There is no such mailbox.');
  const mended = `here.again.${course.id}@saltmarsh.example`;
  const { mail } = await edit(api, course, {
    edit: 'change',
    members: [(await gone()).id],
    fields: { email: mended },
  });
  expect(mail).toMatchObject([{ topic: 'invitation', count: 1 }]);
  await expect.poll(async () => (await letters(api, course, 'here.again')).length, TIMEOUT).toBe(1);
  const [letter] = await letters(api, course, 'here.again');
  expect(letter!.calendars[0]!.content).toContain('RRULE');
  expect((await gone()).invitation).toBe('sent');
});

test('before a session those invited are reminded and those chosen are invited to it, once each', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await invite(api, course, { members: [course.students[0]!.id] });
  await api.put(`/api/courses/${course.id}/reminders`, { data: { minutes: [45] } });
  const rule = { minutes: 50, members: [course.students[1]!.id] };
  await api.put(`/api/courses/${course.id}/invite-before`, { data: { rule } });
  expect((await detailOf(api, course.id)).inviteBefore).toEqual({ ...rule, groups: null });
  const of = async (topic: Delivery['topic']) =>
    (await deliveries(api, course)).filter((d) => d.topic === topic);
  const reminders = () => of('reminder');
  await expect
    .poll(async () => (await reminders()).map((d) => [d.name, d.state]), TIMEOUT)
    .toEqual([['Ana Lanyon', 'sent']]);
  const reminder = (await letters(api, course, 'ana')).find((l) => l.subject.includes('Lecture'))!;
  expect(reminder.text).toContain('Lecture begins Tue 6 Oct, 21:30, Azores time.');
  // Whoever does without reminders has none from the foot of the last one on; their page says so.
  const off = /http\S+(\/api\/letters-off\/\S+)/.exec(reminder.text)![1]!;
  const nobody = await request.newContext({ baseURL: BASE_URL });
  expect((await nobody.get(off, { maxRedirects: 0 })).headers().location).toMatch(/^\/in\/\w+\/letters$/);
  expect((await nobody.post(off)).ok()).toBe(true);
  const ana = await byLink(course.students[0]!.link);
  expect((await (await ana.get('/api/my-course')).json()).me.quiet).toEqual(['reminder']);
  const wayIn = async () =>
    (await letters(api, course, 'ben')).find((l) =>
      l.subject.includes('your way in, Lecture, Tue 6 Oct, 22:30'),
    );
  await expect.poll(async () => (await wayIn())?.calendars[0]?.content, TIMEOUT).toContain('RRULE');
  await new Promise((resolve) => setTimeout(resolve, 6000));
  // Ben is among those invited now, and so reminded as well: each of it once.
  expect((await reminders()).map((d) => d.name).sort()).toEqual(['Ana Lanyon', 'Ben Garrow']);
  expect((await of('invitation')).map((d) => d.name).sort()).toEqual(['Ana Lanyon', 'Ben Garrow']);
  await api.put(`/api/courses/${course.id}/invite-before`, { data: { rule: null } });
  expect((await detailOf(api, course.id)).inviteBefore).toBeNull();
});

test('a course gets a telephone line: those invited are told, each with a PIN that a new link replaces', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await invite(api, course, { members: [course.students[0]!.id] });
  await allSent(api, course);
  const leaving = await api.post(`/api/courses/${course.id}/members/letters`, {
    data: { edit: 'drop', members: course.students.map((s) => s.id) },
  });
  // Only who was invited is written to, and what their calendar holds is taken back.
  expect(await leaving.json()).toMatchObject([
    { topic: 'goodbye', names: ['Ana Lanyon'], entries: [expect.stringMatching(/ Lecture, taken back$/)] },
  ]);
  const path = `/api/courses/${course.id}/telephone`;
  const bad = await api.put(path, { data: { number: 'call me' } });
  expect(bad.status()).toBe(422);
  expect((await bad.json()).error.message).toContain('Give the number as it is dialled');
  const number = '+1 902 555 0140';
  const ahead: LetterAhead[] = await (await api.post(`${path}/letters`, { data: { number } })).json();
  expect(ahead.map((l) => l.names)).toEqual([['Ana Lanyon']]);
  expect((await members(api, course)).map((m) => m.pin)).toEqual([null, null, null]);
  const { told } = await (await api.put(path, { data: { number } })).json();
  expect(told).toEqual([{ member: course.students[0]!.id, name: 'Ana Lanyon' }]);
  /** Those of people who teach are given to nobody. */
  const pins = async () => (await members(api, course)).filter((m) => m.role === 'student').map((m) => m.pin);
  expect(new Set(await pins()).size).toBe(2);
  for (const pin of await pins()) expect(pin).toMatch(/^\d{8}$/);
  const student = await byLink(course.students[0]!.link);
  const { telephone } = await (await student.get('/api/my-course')).json();
  expect(telephone).toEqual({ number, pin: (await members(api, course))[1]!.pin });
  await expect.poll(async () => (await letters(api, course, 'ana')).length, TIMEOUT).toBe(2);
  const [news] = await letters(api, course, 'ana');
  const words = `By telephone: ${number}, then your PIN ${telephone.pin.slice(0, 4)} ${telephone.pin.slice(4)}.`;
  expect(news!.text).toContain(words);
  expect(news!.calendars[0]!.content.replaceAll('\r\n ', '')).toContain(words.replaceAll(',', '\\,'));
  const before = await pins();
  const quiet = { quiet: ['notice'] };
  expect((await student.put('/api/my-course/letters', { data: quiet })).ok()).toBe(true);
  expect((await student.put('/api/my-course/letters', { data: { quiet: ['link'] } })).status()).toBe(422);
  await edit(api, course, { edit: 'replace-links', members: [course.students[0]!.id] });
  const after = await pins();
  expect(after.map((pin, i) => pin === before[i])).toEqual([false, true]);
});

test('the letter’s words are the course’s own, filled in for each person; an unknown field is refused', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const put = (text: string) =>
    api.put(`/api/courses/${course.id}/invitation`, {
      data: { template: { subject: 'Come to {course}', text } },
    });
  const bad = await put('Dear {nmae}');
  expect(bad.status()).toBe(422);
  expect((await bad.json()).error.message).toBe('There is no field {nmae}.');
  await put('Dear {name},\n\n[come in here]({link})\n\n{next}');
  const data = { member: course.students[0]!.id };
  const preview = await (await api.post(`/api/courses/${course.id}/invitations/preview`, { data })).json();
  expect(preview.text).toContain('Dear Ana Lanyon,');
  expect(preview.html).toMatch(/<a href="http:[^"]*\/in\/[^"]*"[^>]*>come in here<\/a>/);
  expect(preview.entries).toHaveLength(1);
});

/** So many that a server is killed over and over while they are written to. */
const PEOPLE = 250;
const KILLS = 3;

test('a server killed over and over, a mailbox that refuses and drops: each person has one letter a cause', async () => {
  test.setTimeout(240_000);
  const port = PORT + 40;
  const data = path.join(ROOT, '.tmp/e2e-kill');
  const stop = await startProduct(port, data, ['--fresh'], {
    NB_MAILBOX_REFUSES: '0.1',
    NB_MAILBOX_DROPS: '0.1',
  });
  try {
    const api = await request.newContext({ baseURL: `http://127.0.0.1:${port}` });
    await api.post('/api/sign-in', { data: { email: MAREN, password: 'saltmarsh' } });
    const post = async (at: string, body: object) => {
      const answer = await api.post(at, { data: body });
      expect(answer.ok(), await answer.text()).toBe(true);
      return answer.json();
    };
    const { id } = await post('/api/courses', { code: 'KILL-1', title: 'Made to be killed' });
    const pattern = {
      kind: 'weekly',
      days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
      ends: { by: 'term' },
    };
    const { made } = await post(`/api/courses/${id}/plan`, {
      edit: 'add-series',
      series: [{ title: 'Lecture', pattern }],
    });
    await post(`/api/courses/${id}/plan`, { edit: 'publish', ids: made });
    await post(`/api/courses/${id}/members`, { edit: 'import', rows: classRows(PEOPLE) });
    expect((await post(`/api/courses/${id}/invitations`, {})).queued).toBe(PEOPLE);
    for (let kill = 0; kill < KILLS; kill++) {
      await new Promise((resolve) => setTimeout(resolve, 300 + Math.random() * 1500));
      process.kill(pidOf('app', data), 'SIGKILL');
      await expect
        .poll(async () => (await api.get('/api/health').catch(() => null))?.ok(), { timeout: 30_000 })
        .toBe(true);
    }
    const states = async (): Promise<Delivery[]> => {
      const answer = await api.get(`/api/courses/${id}/deliveries`).catch(() => null);
      return answer?.ok() ? answer.json() : [];
    };
    const sent = async () => (await states()).filter((d) => d.state === 'sent').length;
    await expect.poll(sent, { timeout: 150_000 }).toBe(PEOPLE);
    const { people, ids } = await (await api.get(`/api/mailbox/count?subject=KILL-1`)).json();
    expect({ people, ids }).toEqual({ people: PEOPLE, ids: PEOPLE });
  } finally {
    await stop();
  }
});

test('a notice stands on the board in its time, with the day’s plan for its reader, and is mailed where asked', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await invite(api, course);
  await allSent(api, course);
  const body = {
    type: 'doc',
    content: [
      { type: 'paragraph', content: [{ type: 'text', text: 'Bring chart 4012.' }] },
      { type: 'dayPlan', attrs: { date: '2026-10-06' } },
    ],
  };
  const put = (more: object) =>
    api.post(`/api/courses/${course.id}/notices`, { data: { title: 'Charts', body, ...more } });
  expect((await (await put({ mail: true, pinned: true })).json()).mailed).toBe(2);
  await put({ title: 'Not yet', from: Date.parse('2026-10-20') });
  await put({ title: 'No longer', from: Date.parse('2026-10-01'), until: Date.parse('2026-10-02') });
  expect((await put({ title: 'Turned', from: 2, until: 1 })).status()).toBe(422);
  const script = { type: 'doc', content: [{ type: 'html', text: '<script>' }] };
  expect((await put({ body: script })).status()).toBe(422);
  const mine = await (await (await byLink(course.students[0]!.link)).get('/api/my-course')).json();
  expect(mine.notices.map((n: { title: string }) => n.title)).toEqual(['Charts']);
  expect(mine.notices[0].days[0].sessions).toMatchObject([{ id: course.session, title: 'Lecture' }]);
  const mailed = async () => (await letters(api, course, 'ana')).find((l) => l.subject.endsWith('Charts'));
  await expect.poll(async () => (await mailed())?.text ?? '', TIMEOUT).toContain('21:30 to 22:50 Lecture');
});

test('where nobody rings in, those who teach are told once; a student at the door reads it and is let in by itself', async ({
  browser,
  page,
}) => {
  test.setTimeout(90_000);
  const api = await account(MAREN);
  const { now } = await (await api.get('/api/me')).json();
  const begun = new Date(now - 10 * 60_000);
  const start = new Intl.DateTimeFormat('en-GB', {
    ...{ hour: '2-digit', minute: '2-digit', timeZone: 'America/Halifax' },
  }).format(begun);
  const course = await makeCourse({
    students: 1,
    apart: true,
    meets: { day: 'tuesday', start, minutes: 80 },
  });
  const told = async () =>
    (await letters(api, course, 'maren.oduya')).filter((l) => l.subject.includes('nobody has rung in'));
  await expect.poll(async () => (await told()).length, { timeout: 30_000 }).toBe(1);
  const [student] = await person(browser);
  await student.goto(`${course.students[0]!.link}/room/${course.session}`);
  await throughDoor(student);
  await expect(student.getByText(/The others who teach were told at/)).toBeVisible();
  await ringIn(page, course);
  await expect(student.getByRole('group', { name: 'Your desk' })).toBeVisible({ timeout: 15_000 });
  await dismiss(page);
  expect(await told()).toHaveLength(1);
});
