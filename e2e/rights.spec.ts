import { expect, test } from '@playwright/test';
import type { MemberInfo, MyCourse } from '@nimble-bell/core/api';
import { strFromU8, unzipSync } from 'fflate';
import type { Socket } from 'socket.io-client';
import { account, byLink, detailOf, makeCourse, type MadeCourse } from './support/course';
import { edit, members } from './support/list';
import { cookie, live } from './support/live';
import { INES, MAREN, TEO } from './support/people';
import { askStore, replayed, storedEvents } from './support/store';

test('whoever adds a person by address to their own course reads, changes and forgets nothing of their other courses', async () => {
  const course = await makeCourse({ students: 1, apart: true });
  const maren = await account(MAREN);
  await maren.post(`/api/courses/${course.id}/invitations`, { data: {} });
  const [ana] = course.students as [MemberInfo & { link: string }];
  const ines = await account(INES);
  const made = await ines.post('/api/courses', {
    data: { code: `I-${Date.now() % 1e6}`, title: 'Of another' },
  });
  const own = { ...course, id: (await made.json()).id as string };
  const row = { line: 1, name: 'Ana', email: ana.email, zone: 'Europe/Lisbon', group: null, extra: {} };
  await edit(ines, own, { edit: 'import', rows: [row] });
  const theirs = (await members(ines, own)).find((m) => m.role === 'student')!;
  const data = await ines.get(`/api/courses/${own.id}/members/${theirs.id}/data`);
  const files = unzipSync(new Uint8Array(await data.body()));
  const text = Object.values(files)
    .map((f) => strFromU8(f))
    .join('\n');
  expect(text).toContain('"Ana"');
  const { code } = await detailOf(maren, course.id);
  for (const secret of [code, ana.link, ana.name, '/in/']) expect(text).not.toContain(secret);

  const change = (fields: object) => edit(ines, own, { edit: 'change', members: [theirs.id], fields });
  await change({ name: 'Not Ana', zone: 'UTC' });
  await change({ email: `elsewhere.${own.id}@example.org` });
  const gone = await ines.delete(`/api/courses/${own.id}/members/${theirs.id}/data`);
  expect(gone.status()).toBe(200);
  const still = (await members(maren, course)).find((m) => m.id === ana.id)!;
  expect(still).toMatchObject({ name: ana.name, email: ana.email, zone: ana.zone, link: ana.link });
  const letters = await (await maren.get(`/api/courses/${course.id}/deliveries`)).json();
  expect(letters).toHaveLength(1);
});

test('an assistant and a co-teacher are given no way in as somebody else, and a co-teacher sees the people of theirs', async () => {
  const teo = await account(TEO);
  const courses = await (await teo.get('/api/courses')).json();
  const nav = { id: courses.find((c: { code: string }) => c.code === 'NAV-210').id } as MadeCourse;
  const seen = await members(teo, nav);
  expect(seen.length).toBeGreaterThan(30);
  expect(seen.every((m) => m.link === null && m.pin === null)).toBe(true);
  const all = await members(await account(MAREN), nav);
  expect(
    all
      .filter((m) => m.link === null)
      .map((m) => m.role)
      .sort(),
  ).toEqual(['assistant', 'teacher']);
});

test('what a link opened dies with it: calendar address and file tickets', async () => {
  const course = await makeCourse({ students: 1, apart: true });
  const api = await account(MAREN);
  const [ana] = course.students as [MemberInfo & { link: string }];
  await api.post(`/api/courses/${course.id}/materials?name=chart.txt`, {
    data: Buffer.from('soundings'),
    headers: { 'content-type': 'application/octet-stream' },
  });
  const link = await byLink(ana.link);
  const feed = (await (await link.post('/api/feeds', { data: {} })).json()).path as string;
  const mine: MyCourse = await (await link.get('/api/my-course')).json();
  const file = mine.materials[0]!.url;
  for (const path of [feed, file]) expect((await api.get(path)).status()).toBe(200);
  await edit(api, course, { edit: 'replace-links', members: [ana.id] });
  expect((await api.get(feed)).status()).toBe(404);
  expect((await api.get(file)).status()).toBe(401);
  const fresh = await byLink((await members(api, course)).find((m) => m.id === ana.id)!.link);
  const again = (await (await fresh.post('/api/feeds', { data: {} })).json()).path as string;
  expect(again).not.toBe(feed);
  expect((await api.get(again)).status()).toBe(200);
});

test("nobody calls themselves by a teacher's name, or by one with characters that cannot be seen", async () => {
  const course = await makeCourse({ students: 1, apart: true });
  const link = await byLink(course.students[0]!.link);
  const call = (preferredName: string) => link.put('/api/my-course/me', { data: { preferredName } });
  for (const name of ['Maren Oduya', 'ODUYA  Maren', 'Ana\rLanyon', 'Ana\u202e'])
    expect((await call(name)).status()).toBe(422);
  expect((await call(' Zoe\u0308 ')).status()).toBe(200);
  const mine: MyCourse = await (await link.get('/api/my-course')).json();
  expect(mine.me.name).toBe('Zoë');
});

test('who somebody is is asked at every entering, and what changes of it reaches their open page in the same moment', async () => {
  const course = await makeCourse({ students: 3, apart: true, limits: { writeToTeachers: 'open' } });
  const maren = await account(MAREN);
  const [ana, ben, cleo] = course.students as (MemberInfo & { link: string })[];
  await edit(maren, course, {
    edit: 'add',
    invite: false,
    person: { name: 'Teo', email: TEO, role: 'assistant' },
  });
  const teoId = (await members(maren, course)).find((m) => m.email === TEO)!.id;
  const teoApi = await account(TEO);
  const teo = live({ cookie: await cookie(teoApi) });
  const teacher = live({ cookie: await cookie(maren) });
  const [anas, bens, cleos] = [ana!, ben!, cleo!].map((s) => live({ link: s.link.replace('/in/', '') })) as [
    Socket,
    Socket,
    Socket,
  ];
  // A line that was cut answers nothing: that is no way in either.
  const refused = { ok: false, refusal: { code: 'cut' } };
  const enter = (s: Socket) =>
    s
      .timeout(3000)
      .emitWithAck('enter', { session: course.session, after: 0 })
      .catch(() => refused);
  const ask = (s: Socket, command: object) =>
    s
      .timeout(3000)
      .emitWithAck('command', { id: crypto.randomUUID(), command })
      .catch(() => refused);
  const heard: { text?: string }[] = [];
  teo.on('events', (events: { text?: string }[]) => heard.push(...events));
  const putOut = (s: Socket) =>
    new Promise<string>((resolve) => s.on('put-out', (why) => resolve(why.message)));
  const [teoOut, benOut] = [putOut(teo), putOut(bens)];

  expect((await enter(teacher)).ok && (await enter(teo)).ok).toBe(true);
  await ask(teacher, { type: 'ringIn' });
  expect((await enter(anas)).ok && (await enter(bens)).ok).toBe(true);
  const toTeachers = (text: string) => ask(anas, { type: 'say', addressee: { to: 'teachers' }, text });
  await toTeachers('first');
  await expect.poll(() => heard.some((e) => e.text === 'first')).toBe(true);

  // An assistant who is made a student hears and does what a student does.
  await edit(maren, course, { edit: 'change', members: [teoId], fields: { role: 'student' } });
  await expect.poll(async () => (await ask(teo, { type: 'hush' })).refusal?.code).toBe('teachers-only');
  await toTeachers('second');
  const toAll = await ask(anas, { type: 'say', addressee: { to: 'class' }, text: 'to all' });
  expect(toAll).toMatchObject({ ok: true });
  await expect.poll(() => heard.some((e) => e.text === 'to all')).toBe(true);
  expect(heard.some((e) => e.text === 'second')).toBe(false);

  // Signed out, past the link's time, or off the list before entering: no way to stay or to come.
  await teoApi.post('/api/sign-out');
  expect(await teoOut).toContain('not signed in');
  expect((await ask(teo, { type: 'raiseHand' })).ok).toBe(false);
  await askStore('UPDATE enrolments SET link_until = 1000 WHERE id = ?', [ben!.id]);
  expect(await benOut).toBe('Your link is no longer good for this class.');
  await edit(maren, course, { edit: 'drop', members: [cleo!.id] });
  expect((await enter(cleos)).ok).toBe(false);

  // A name that is changed is changed in the room.
  const named = new Promise<{ name?: string }>((resolve) =>
    teacher.on('events', (events) => events[0].type === 'known' && resolve(events[0])),
  );
  await edit(maren, course, { edit: 'change', members: [ana!.id], fields: { name: 'Annie Lanyon' } });
  expect((await named).name).toBe('Annie Lanyon');
  await ask(teacher, { type: 'dismiss' });
  for (const s of [teacher, anas]) s.close();
});

test('who comes in and is cut off in the same moment is not left behind, and too much at once is told', async () => {
  const course = await makeCourse({ students: 8, apart: true });
  const teacher = live({ cookie: await cookie(await account(MAREN)) });
  await teacher.emitWithAck('enter', { session: course.session, after: 0 });
  const ask = (command: object) => teacher.emitWithAck('command', { id: crypto.randomUUID(), command });
  await ask({ type: 'ringIn' });
  for (const [i, s] of course.students.entries()) {
    const socket = live({ link: s.link.replace('/in/', '') });
    await new Promise((resolve) => socket.on('connect', () => resolve(null)));
    socket.emit('enter', { session: course.session, after: 0 });
    await new Promise((resolve) => setTimeout(resolve, i));
    socket.disconnect();
  }
  const present = async () =>
    Object.values(replayed(await storedEvents(course.session)).presence.people).filter((p) => p.present)
      .length;
  await expect.poll(present, { timeout: 12_000, intervals: [500] }).toBe(1);
  const before = (await storedEvents(course.session)).length;
  const replies = await Promise.all(
    Array.from({ length: 3000 }, () => ask({ type: 'microphone', on: false })),
  );
  expect(replies.filter((r) => r.ok).length).toBeLessThan(300);
  expect(new Set(replies.filter((r) => !r.ok).map((r) => r.refusal.code))).toEqual(new Set(['too-many']));
  expect((await storedEvents(course.session)).length).toBe(before);
  await new Promise((resolve) => setTimeout(resolve, 500));
  await ask({ type: 'dismiss' });
  teacher.close();
});
