import { expect, test } from '@playwright/test';
import type { MaterialInfo, MyCourse } from '@nimble-bell/core/api';
import { account, byLink, detailOf, makeCourse, ringIn, walkIn } from './support/course';
import { countInteractions } from './support/interactions';
import { letterTo } from './support/letters';
import { classList, MAREN, person, signIn } from './support/people';
import { edit, members } from './support/list';
import { cookie, live } from './support/live';

test('whoever is taken off the list is refused everywhere in the same second: page, room, feed, files, recordings', async ({
  browser,
  page,
}) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 2, record: true });
  const api = await account(MAREN);
  const [ana, ben] = course.students;
  const link = await byLink(ana!.link);
  const upload = await api.post(`/api/courses/${course.id}/materials?name=chart.pdf`, {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from('%PDF-1.4 a chart'),
  });
  expect(upload.status()).toBe(201);
  const [file]: MaterialInfo[] = await (await link.get(`/api/courses/${course.id}/materials`)).json();
  expect(await (await link.get(file!.url)).text()).toBe('%PDF-1.4 a chart');
  const feed = (await (await link.post('/api/feeds', { data: {} })).json()).path;
  expect((await link.get(feed)).status()).toBe(200);
  await ringIn(page, course);
  const inside = await walkIn(browser, course, 0);
  const other = await walkIn(browser, course, 1);
  await expect
    .poll(async () => (await (await link.get(`/api/sessions/${course.session}`)).json()).recordings.length)
    .toBe(1);

  const [recording] = (await (await link.get(`/api/sessions/${course.session}`)).json()).recordings;
  const { mediaPath } = await (await link.get(`/api/recordings/${recording.id}`)).json();
  expect((await link.get(mediaPath)).status()).toBe(409);

  const { people, mail } = await edit(api, course, { edit: 'drop', members: [ana!.id] });
  const answers = await Promise.all([
    link.get('/api/my-course'),
    link.get(`/api/sessions/${course.session}`),
    link.get(`/api/courses/${course.id}/materials`),
    link.get(file!.url),
    link.get(feed),
    link.get(`/api/recordings/${recording.id}`),
    link.get(mediaPath),
    link.put('/api/my-course/me', { data: { zone: 'UTC' } }),
  ]);
  expect(answers.map((a) => a.status())).toEqual([401, 401, 401, 401, 404, 401, 401, 401]);
  expect(people).toMatchObject([{ name: 'Ana Lanyon' }]);
  expect(mail).toEqual([]);
  await expect(inside.getByText('Your link is no longer good for this class.')).toBeVisible({
    timeout: 1000,
  });
  await expect(other.getByRole('group', { name: 'Your desk' })).toBeVisible();
  const socket = live({ link: ana!.link.replace('/in/', '') });
  const refused = await new Promise<string>((resolve) =>
    socket.on('connect_error', (e) => resolve(e.message)),
  );
  // It says so, and whom to ask.
  expect(refused).toMatch(/^You are no longer on the class list of T-.* ask Maren Oduya\.$/);
  socket.close();
  expect((await (await byLink(ben!.link)).get('/api/my-course')).status()).toBe(200);

  // Taken back, she is herself again, with the link she had.
  const [{ id }] = await (await api.get(`/api/courses/${course.id}/members/history`)).json();
  await api.post(`/api/courses/${course.id}/members/undo`, { data: { change: id } });
  expect((await link.get('/api/my-course')).status()).toBe(200);
});

test('a replaced link is dead at once, and the new one is told', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  await api.post(`/api/courses/${course.id}/invitations`, { data: {} });
  const old = await byLink(course.students[0]!.link);
  const { mail } = await edit(api, course, { edit: 'replace-links', members: [course.students[0]!.id] });
  expect(mail).toMatchObject([{ topic: 'link', count: 1 }]);
  expect((await old.get('/api/my-course')).status()).toBe(401);
  const now = (await members(api, course)).find((m) => m.role === 'student')!;
  expect((await (await byLink(now.link)).get('/api/my-course')).status()).toBe(200);
});

test('a guest comes to one session with the rights chosen, and to no other', async () => {
  const course = await makeCourse({ students: 1, limits: { present: 'closed', speak: 'closed' } });
  const api = await account(MAREN);
  const person_ = {
    name: 'Petra Quill',
    email: `petra.${course.id}@example.org`,
    role: 'guest',
    scope: { series: [], sessions: [course.session] },
    capabilities: ['present'],
  };
  const { people } = await edit(api, course, { edit: 'add', person: person_, invite: false });
  expect(people.map((p) => p.words)).toEqual(['is new, with 1 session ahead']);
  const guest = (await members(api, course)).find((m) => m.role === 'guest')!;
  const link = await byLink(guest.link);
  const mine: MyCourse = await (await link.get('/api/my-course')).json();
  expect(mine.sessions.map((s) => s.id)).toEqual([course.session]);
  expect(mine.recordings).toEqual([]);
  const { sessions } = await detailOf(api, course.id);
  const other = sessions.find((s) => s.id !== course.session && s.state === 'planned')!;
  expect((await link.get(`/api/sessions/${other.id}`)).status()).toBe(403);
  const until = { ...person_, email: `late.${course.id}@example.org`, until: 1000 };
  await edit(api, course, { edit: 'add', person: until, invite: false });
  const late = (await members(api, course)).find((m) => m.linkUntil === 1000)!;
  expect((await (await byLink(late.link)).get('/api/my-course')).status()).toBe(401);

  const teacher = live({ cookie: await cookie(api) });
  const socket = live({ link: guest.link.replace('/in/', '') });
  await teacher.emitWithAck('enter', { session: course.session, after: 0 });
  const ask = (s: typeof socket, command: object) =>
    s.emitWithAck('command', { id: crypto.randomUUID(), command }) as Promise<{
      ok: boolean;
      refusal?: { code: string };
    }>;
  await ask(teacher, { type: 'ringIn' });
  await socket.emitWithAck('enter', { session: course.session, after: 0 });
  expect(await ask(socket, { type: 'present', on: true })).toMatchObject({ ok: true });
  expect(await ask(socket, { type: 'microphone', on: true })).toMatchObject({
    ok: false,
    refusal: { code: 'closed' },
  });
  teacher.close();
  socket.close();
});

test('a co-teacher named for one series rings in its sessions, and changes nothing of the course', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const { series, code } = await detailOf(api, course.id);
  const subject = `${code} Made for a test: your way in`;
  const person_ = { name: 'Iden Garrow', email: `iden.${course.id}@saltmarsh.example`, role: 'teacher' };
  await edit(api, course, {
    edit: 'add',
    invite: true,
    person: { ...person_, scope: { series: [series[0]!.id], sessions: [] } },
  });
  // The link of somebody who teaches is given to nobody but them.
  expect((await members(api, course)).find((m) => m.name === 'Iden Garrow')!.link).toBeNull();
  const { text } = await letterTo(page, person_.email, subject);
  const iden = { link: /\/in\/[a-z0-9-]+/.exec(text)![0] };
  const link = await byLink(iden.link);
  expect((await link.post(`/api/courses/${course.id}/plan`, { data: {} })).status()).toBe(403);
  expect((await link.post(`/api/courses/${course.id}/members`, { data: {} })).status()).toBe(403);
  const socket = live({ link: iden.link.replace('/in/', '') });
  await socket.emitWithAck('enter', { session: course.session, after: 0 });
  const rung = await socket.emitWithAck('command', { id: crypto.randomUUID(), command: { type: 'ringIn' } });
  expect(rung).toMatchObject({ ok: true });
  socket.close();
  const last = await api.post(`/api/courses/${course.id}/members/preview`, {
    data: { edit: 'drop', members: [(await members(api, course)).find((m) => m.email === MAREN)!.id] },
  });
  expect(last.status()).toBe(422);
});

test('a visitor by the class link needs the passcode, and gets a link for the next session alone', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const link = (await (
    await api.put(`/api/courses/${course.id}/class-link`, { data: { do: 'show' } })
  ).json()) as {
    path: string;
    passcode: string;
  };
  await page.goto(link.path);
  await page.getByLabel('Your name').fill('Corin Penhale');
  await page.getByLabel('Passcode').fill('not it');
  await page.getByRole('button', { name: 'Go to the class' }).click();
  await expect(page.getByText('The passcode is not right.')).toBeVisible();
  await page.getByLabel('Passcode').fill(link.passcode);
  await page.getByRole('button', { name: 'Go to the class' }).click();
  await expect(page.getByText('Lecture', { exact: false }).first()).toBeVisible();
  const visitor = (await members(api, course)).find((m) => m.name === 'Corin Penhale')!;
  expect(visitor).toMatchObject({ role: 'guest', scope: { series: [], sessions: [course.session] } });
  await api.put(`/api/courses/${course.id}/class-link`, { data: { do: 'hide' } });
  await page.goto(link.path);
  await expect(page.getByText(/This class link is not known/)).toBeVisible();
});

test('a listed series stands on the public page and its feed, without a way in', async ({ page }) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const { series, code } = await detailOf(api, course.id);
  const listed = (on: boolean) =>
    api.put(`/api/courses/${course.id}/series/${series[0]!.id}/listed`, { data: { listed: on } });
  await listed(true);
  await page.goto('/listed');
  await expect(page.getByText(code).first()).toBeVisible();
  const feed = await (await page.request.get('/api/listed.ics')).text();
  expect(feed).toContain(code);
  for (const m of await members(api, course))
    expect((m.link && feed.includes(m.link)) || feed.includes(m.email)).toBeFalsy();
  const { sessions } = await detailOf(api, course.id);
  const ahead = sessions.filter((s) => s.endsAt > Date.UTC(2026, 9, 6, 21));
  await api.put(`/api/sessions/${ahead[1]!.id}/listed`, { data: { listed: false } });
  const fewer = await (await page.request.get('/api/listed.ics')).text();
  expect(fewer.split(code).length).toBe(feed.split(code).length - 1);
  expect(fewer).not.toContain(ahead[1]!.id);
  await api.put(`/api/sessions/${ahead[1]!.id}/listed`, { data: { listed: true } });
  await listed(false);
  expect(await (await page.request.get('/api/listed.ics')).text()).not.toContain(code);
});

test('an import is all or nothing, and can be undone whole', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  const before = await members(api, course);
  const row = (line: number, name: string, email: string) => ({
    line,
    name,
    email,
    zone: null,
    group: 'A',
    extra: { Level: 'B2' },
  });
  const good = [
    row(2, 'Ana Lanyon', 'ana.lanyon@saltmarsh.example'),
    row(3, 'Dora Quill', `dora.${course.id}@saltmarsh.example`),
  ];
  const bad = await api.post(`/api/courses/${course.id}/members`, {
    data: { edit: 'import', rows: [...good, row(4, 'No Body', 'nobody')] },
  });
  expect(bad.status()).toBe(422);
  expect((await bad.json()).error.message).toBe(
    'Line 4: "nobody" is not an e-mail address. Nothing was written.',
  );
  expect(await members(api, course)).toEqual(before);
  const drop = [course.students[1]!.id];
  const { changeId } = await edit(api, course, { edit: 'import', rows: good, drop });
  const after = await members(api, course);
  expect(after.filter((m) => m.role === 'student').map((m) => [m.name, m.group, m.extra.Level])).toEqual([
    ['Ana Lanyon', 'A', 'B2'],
    ['Dora Quill', 'A', 'B2'],
  ]);
  await api.post(`/api/courses/${course.id}/members/undo`, { data: { change: changeId } });
  expect(await members(api, course)).toEqual(before);
});

test('a person takes their data along, and is forgotten: the roll keeps that somebody was there', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const [ana] = course.students;
  await ringIn(page, course);
  await walkIn(browser, course, 0);
  const link = await byLink(ana!.link);
  const archive = await link.get('/api/my-course/data');
  expect(archive.headers()['content-type']).toBe('application/zip');
  expect((await archive.body()).subarray(0, 2).toString()).toBe('PK');
  const plan = `/api/courses/${course.id}/plan`;
  const moved = await api.post(plan, { data: { edit: 'move-to-group', member: ana!.id, group: 'A' } });
  expect((await moved.json()).words).toBe('Ana Lanyon moved to group A');
  expect((await api.delete(`/api/courses/${course.id}/members/${ana!.id}/data`)).status()).toBe(200);
  expect((await link.get('/api/my-course')).status()).toBe(401);
  const detail = await (await api.get(`/api/sessions/${course.session}`)).json();
  const roll = detail.roll.map((l: { name: string; state: string }) => [l.name, l.state]);
  expect(roll).toContainEqual(['Somebody who left', 'present']);
  const told = [detail, await (await api.get(`${plan}/history`)).json()];
  expect(JSON.stringify(told)).not.toContain('Ana Lanyon');
});

test('a student says where they are and how they are called; an import leaves it so', async ({ browser }) => {
  const course = await makeCourse({ students: 1, apart: true });
  const api = await account(MAREN);
  const [page] = await person(browser, {
    viewport: { width: 390, height: 844 },
    timezoneId: 'Europe/Lisbon',
  });
  await page.goto(course.students[0]!.link);
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByText(/Times are Lisbon time/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('What you are called in class').fill('Ana L.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/you are called Ana L\./)).toBeVisible();
  await page.getByText('I come', { exact: true }).click();
  await page.getByRole('button', { name: 'I cannot come to this one' }).click();
  await expect(page.getByText('You said you cannot come.')).toBeVisible();
  await edit(api, course, {
    edit: 'import',
    rows: [
      {
        line: 2,
        name: 'Ana M. Lanyon',
        email: `ana.lanyon.${course.id}@saltmarsh.example`,
        zone: 'Asia/Tokyo',
        group: null,
        extra: {},
      },
    ],
  });
  const ana = (await members(api, course)).find((m) => m.role === 'student')!;
  expect(ana).toMatchObject({ name: 'Ana M. Lanyon', preferredName: 'Ana L.', zone: 'Europe/Lisbon' });
  expect(ana.replies.map((r) => r.answer).sort()).toEqual(['accepted', 'declined']);
});

test('a nudge goes to those missing, once each', async () => {
  const course = await makeCourse({ students: 3 });
  const api = await account(MAREN);
  const nudge = async () => (await api.post(`/api/sessions/${course.session}/nudge`, { data: {} })).json();
  expect((await nudge()).error.code).toBe('not-live');
  const teacher = live({ cookie: await cookie(api) });
  await teacher.emitWithAck('enter', { session: course.session, after: 0 });
  await teacher.emitWithAck('command', { id: crypto.randomUUID(), command: { type: 'ringIn' } });
  const socket = live({ link: course.students[0]!.link.replace('/in/', '') });
  await socket.emitWithAck('enter', { session: course.session, after: 0 });
  expect(await nudge()).toEqual({ queued: 2, missing: 2 });
  expect(await nudge()).toEqual({ queued: 0, missing: 2 });
  teacher.close();
  socket.close();
});

test('from a clean list of 34 to invitations queued: at most 6 presses and entries', async ({ page }) => {
  const course = await makeCourse({ students: 0 });
  const api = await account(MAREN);
  await signIn(page, MAREN);
  const count = await countInteractions(page);
  await page.goto(`/course/${course.id}/plan`);
  await page.getByRole('navigation').getByRole('link', { name: /Class/ }).click();
  const list = page.getByLabel('The list');
  await list.click();
  await page.keyboard.insertText(classList(34).split('\n').slice(0, 35).join('\n'));
  // What is pasted is an entry like any other.
  await page.keyboard.press('End');
  await page.getByRole('button', { name: 'Add 34 people' }).click();
  await page
    .getByRole('navigation')
    .getByRole('link', { name: /Invite/ })
    .click();
  await page.getByRole('button', { name: 'Invite 34 people' }).click();
  await expect(page.getByText('34 invitations on the way.')).toBeVisible();
  const used = await count();
  process.stdout.write(`    a list of 34 imported and invited in ${used} presses and entries\n`);
  expect(used).toBeLessThanOrEqual(6);
  expect((await (await api.get(`/api/courses/${course.id}/deliveries`)).json()).length).toBe(34);
});

test('addresses that differ by an accent are two people’s', async () => {
  const course = await makeCourse({ students: 0 });
  const api = await account(MAREN);
  const row = (line: number, name: string, email: string) => ({
    line,
    name,
    email,
    zone: null,
    group: null,
    extra: {},
  });
  const of = `${course.id}@saltmarsh.example`;
  const rows = [row(2, 'José Amado', `josé.${of}`), row(3, 'Jose Amado', `jose.${of}`)];
  // One name with two addresses is asked about: they are two.
  const settled = [{ line: 3, as: 'other' }];
  const data = { edit: 'import', rows, settled };
  const answer = await api.post(`/api/courses/${course.id}/members`, { data });
  expect(answer.status(), await answer.text()).toBe(201);
  const members = await (await api.get(`/api/courses/${course.id}/members`)).json();
  const emails = members.map((m: { email: string }) => m.email).filter((e: string) => e.includes(course.id));
  expect(emails.sort()).toEqual([`jose.${of}`, `josé.${of}`]);
});
