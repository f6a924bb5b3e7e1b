import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import type { RulesDetail } from '@nimble-bell/core/api';
import {
  account,
  addSeries,
  byLink,
  detailOf,
  dismiss,
  makeCourse,
  ringIn,
  throughDoor,
  walkIn,
} from './support/course';
import { countInteractions } from './support/interactions';
import { live } from './support/live';
import { MAREN, signIn } from './support/people';

const rulesOf = async (api: APIRequestContext, course: string): Promise<RulesDetail> =>
  (await api.get(`/api/courses/${course}/rules`)).json();

const set = async (api: APIRequestContext, course: string, data: object, status = 200) =>
  expect((await api.put(`/api/courses/${course}/rules`, { data })).status()).toBe(status);

/** Chooses as a person does: a press on the list, and the letters of what is wanted. */
async function choose(page: Page, label: string, letters: string, value: string) {
  const list = page.getByLabel(label);
  await list.click();
  await page.keyboard.type(letters);
  await page.keyboard.press('Enter');
  await expect(list).toHaveValue(value);
}

test('the limits of all lectures, a run sheet for them and one exception, in a few presses', async ({
  page,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true });
  await signIn(page, MAREN);
  const counted = await countInteractions(page);
  await page.goto(`/course/${course.id}/plan`);
  const since = async (work: () => Promise<void>) => {
    const before = await counted();
    await work();
    return (await counted()) - before;
  };
  const term = await since(async () => {
    await page.getByRole('link', { name: /^Limits/ }).click();
    await page.getByRole('link', { name: 'Term', exact: true }).click();
    await choose(page, 'Rule sheet of Lecture', 'exam', 'examination');
    await expect(page.getByText('Lecture: rule sheet Examination.')).toBeVisible();
  });
  const first = page
    .getByRole('row')
    .filter({ has: page.getByRole('checkbox') })
    .first();
  await expect(first.getByRole('button', { name: /^Speak/ })).toHaveText('Closed');
  // One deviates, and says so; taken back by one press.
  await first.getByRole('button', { name: /^Speak/ }).click();
  const why = page.getByRole('dialog', { name: /^Speak/ });
  await expect(why.getByText('in force')).toBeVisible();
  await expect(why.getByRole('listitem').filter({ hasText: 'in force' })).toContainText('This series');
  await why.getByRole('radio', { name: 'Open' }).click();
  await expect(first.getByRole('button', { name: /^Speak/ })).toHaveText('Open');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(first.getByRole('button', { name: /^Speak/ })).toHaveText('Closed');
  const sheet = await since(async () => {
    await page.getByRole('link', { name: 'Run sheets' }).click();
    await page.getByRole('button', { name: 'Add a segment' }).click();
    for (const [i, [title, minutes]] of [
      ['Lecture', '40'],
      ['Discussion', '20'],
      ['Examination', '10'],
      ['Questions', '10'],
    ].entries()) {
      await page.keyboard.type(title!);
      await page.keyboard.press('Tab');
      await page.keyboard.press('ControlOrMeta+a');
      await page.keyboard.type(minutes!);
      if (i < 3) await page.keyboard.press('Enter');
    }
    await page.getByRole('button', { name: 'Save the run sheet' }).click();
    await expect(page.getByText('The run sheet is saved.')).toBeVisible();
  });
  await expect(page.getByText('80 minutes planned of 80')).toBeVisible();
  const exception = await since(async () => {
    await page.getByRole('link', { name: 'Exceptions' }).click();
    await page.getByRole('combobox', { name: 'Who' }).click();
    await page.keyboard.type('Ana');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByLabel('Until the end of').focus();
    await page.keyboard.type('9 October 2026');
    await page.getByRole('button', { name: 'Set it' }).click();
    await expect(page.getByRole('row', { name: /Ana Lanyon/ })).toContainText('Present a screen: open');
  });
  console.log(
    `Limits of all lectures: ${term} interactions (4). A run sheet of four segments: ${sheet} (14). One exception until a date: ${exception} (5).`,
  );
  expect(term).toBeLessThanOrEqual(4);
  expect(sheet).toBeLessThanOrEqual(14);
  expect(exception).toBeLessThanOrEqual(5);
  const api = await account(MAREN);
  const rules = await rulesOf(api, course.id);
  expect(rules.series[0]!.segments!.map((s) => s.sheet)).toEqual([
    'lecture',
    'discussion',
    'examination',
    null,
  ]);
  expect(rules.exceptions).toMatchObject([{ name: 'Ana Lanyon', state: 'open', capability: 'present' }]);
  await api.dispose();
});

const SEGMENTS = [
  { title: 'Lecture', minutes: 40, sheet: 'lecture', note: 'Copies are in the files.' },
  { title: 'Examination', minutes: 20, sheet: 'examination', recording: 'paused' },
  { title: 'Discussion', minutes: 20, sheet: 'discussion', recording: 'on' },
];

test('a cue by one key is in force on every page and by a raw line, and the recording goes with it', async ({
  page,
  browser,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true, record: true });
  const api = await account(MAREN);
  await set(api, course.id, { at: { layer: 'session', ids: [course.session] }, segments: SEGMENTS });
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0);
  const line = live({ link: course.students[1]!.link.replace('/in/', '') });
  const heard: string[] = [];
  line.onAny((_name: string, body: unknown) => heard.push(JSON.stringify(body)));
  const ask = (name: string, body: object) => line.timeout(5000).emitWithAck(name, body);
  const entered = await ask('enter', { session: course.session, after: 0 });
  const say = () =>
    ask('command', {
      id: randomUUID(),
      command: { type: 'say', addressee: { to: 'class' }, text: 'May I?' },
    });
  expect(await say()).toMatchObject({ ok: true });
  await expect(ana.getByText(/Lecture, 40 min left/)).toBeVisible();
  // The next part: one key.
  await page.keyboard.press('n');
  await expect(ana.getByText(/Examination, 20 min left/)).toBeVisible();
  await expect(page.getByTestId('recording-mark')).toContainText('Recording paused');
  expect(await say()).toMatchObject({ ok: false, refusal: { code: 'closed' } });
  await page.getByRole('button', { name: 'Why: Write to the class' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'in force' })).toContainText(
    'This part of the class',
  );
  await page.keyboard.press('Escape');
  // A student gives no cue, and what teachers noted is in nothing that a student is sent.
  expect(await ask('command', { id: randomUUID(), command: { type: 'cue', index: 2 } })).toMatchObject({
    ok: false,
    refusal: { code: 'teachers-only' },
  });
  await page.getByRole('button', { name: 'Run sheet', exact: true }).click();
  await expect(page.getByText('Copies are in the files.')).toBeVisible();
  await page.getByRole('menuitem', { name: /^Discussion/ }).click();
  await expect(page.getByTestId('recording-mark')).toContainText('Being recorded');
  expect(await say()).toMatchObject({ ok: true });
  expect(JSON.stringify(entered) + heard.join()).not.toContain('Copies are in the files');
  expect(JSON.stringify(entered)).toContain('Examination');
  line.disconnect();
  await dismiss(page);
  const log = await (await api.get(`/api/sessions/${course.session}/log`)).text();
  expect(log).toContain('Maren Oduya began Discussion.');
  await api.dispose();
});

test('an exception is in force in a class that is on, told to that one alone where it closes, and ends by itself', async ({
  page,
  browser,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true, limits: { speak: 'open', present: 'closed' } });
  const [one, other] = course.students;
  const api = await account(MAREN);
  const { now } = await (await api.get('/api/me')).json();
  const except = async (data: object, status = 201) => {
    const made = await api.post(`/api/courses/${course.id}/exceptions`, {
      data: { capability: 'speak', state: 'closed', until: null, reason: 'Agreed at home', ...data },
    });
    expect(made.status(), await made.text()).toBe(status);
    return made.json();
  };
  await except({ member: 'nobody' }, 404);
  await except({ member: one!.id, until: now - 1000 }, 422);
  await except({ member: one!.id, capability: 'seeNames', state: 'byHand' }, 422);
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0);
  const line = live({ link: other!.link.replace('/in/', '') });
  const heard: string[] = [];
  line.onAny((_name: string, body: unknown) => heard.push(JSON.stringify(body)));
  await line.timeout(5000).emitWithAck('enter', { session: course.session, after: 0 });
  await ana.getByRole('button', { name: /^Microphone/ }).click();
  await expect(ana.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  const { id } = await except({ member: one!.id });
  await expect(ana.getByRole('button', { name: 'Microphone: on' })).toHaveCount(0);
  await ana.getByRole('button', { name: /^Microphone/ }).click();
  await expect(ana.getByText(/Speaking is closed/).first()).toBeVisible();
  // The others hear that the microphone is off, not why.
  await expect.poll(() => heard.join()).toContain('"type":"microphone"');
  expect(heard.join()).not.toContain('excepted');
  expect(heard.join()).not.toContain('Agreed at home');
  const student = await byLink(one!.link);
  expect(await (await student.get('/api/my-course')).text()).not.toContain('Agreed at home');
  expect((await api.post(`/api/courses/${course.id}/exceptions/${id}/end`, { data: {} })).ok()).toBe(true);
  await ana.getByRole('button', { name: /^Microphone/ }).click();
  await expect(ana.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  // One with an end is over when its time is.
  const { now: by } = await (await api.get('/api/me')).json();
  await except({ member: one!.id, capability: 'present', state: 'open', until: by + 12_000 });
  await expect.poll(() => heard.join()).toContain('excepted');
  await expect.poll(() => heard.join(), { timeout: 25_000 }).toContain('exceptionEnded');
  line.disconnect();
  await dismiss(page);
  await api.dispose();
});

test('a sheet that is edited is followed wherever it is used, but for what was set otherwise there', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1, apart: true });
  const api = await account(MAREN);
  await addSeries(api, course.id, {
    title: 'Seminar',
    pattern: {
      kind: 'weekly',
      days: [{ day: 'friday', start: '10:00', minutes: 45 }],
      ends: { by: 'term' },
    },
  });
  const { series, sessions } = await detailOf(api, course.id);
  const ids = series.map((s) => s.id);
  const name = `Quiet ${course.id}`;
  const quiet = {
    ...{ speak: 'closed', camera: 'closed', present: 'closed', draw: 'closed' },
    ...{ writeToClass: 'open', writeToTeachers: 'open', writeToStudents: 'closed', rename: 'closed' },
    ...{
      attachFiles: 'closed',
      writeNotes: 'closed',
      react: 'open',
      seeNames: 'open',
      seeCameras: 'open',
      seeMarks: 'open',
    },
  };
  const made = await api.post('/api/rule-sheets', { data: { name, limits: quiet } });
  expect(made.status()).toBe(201);
  const { id } = await made.json();
  expect((await api.post('/api/rule-sheets', { data: { name, limits: quiet } })).status()).toBe(409);
  expect((await api.post('/api/rule-sheets', { data: { name: 'Half', limits: {} } })).status()).toBe(422);
  await set(api, course.id, { at: { layer: 'series', ids }, sheet: id });
  await set(api, course.id, { at: { layer: 'series', ids: [ids[0]!] }, limits: { writeToClass: 'byHand' } });
  await set(api, course.id, {
    at: { layer: 'session', ids: [sessions.at(-1)!.id] },
    segments: [{ title: 'Quiet', minutes: 10, sheet: id }],
  });
  await set(api, course.id, { at: { layer: 'series', ids: ['nothing'] }, sheet: id }, 409);
  const uses = await (await api.get(`/api/rule-sheets/${id}/uses`)).json();
  expect(uses).toHaveLength(3);
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/limits/sheets`);
  await page.getByRole('button', { name: `Edit ${name}` }).click();
  await expect(page.getByText('What follows it changes with it:')).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Write to the class' }).getByText('Closed').click();
  await page.getByRole('button', { name: 'Save it, and in 3 places' }).click();
  await expect(page.getByText('The sheet is saved.')).toBeVisible();
  const rules = await rulesOf(api, course.id);
  const said = (place: string) => rules.series.find((s) => s.id === place)!;
  expect(said(ids[0]!).limits.writeToClass!.value).toBe('byHand');
  expect(said(ids[0]!).differ).toEqual(['writeToClass']);
  expect(said(ids[1]!).limits.writeToClass!.value).toBe('closed');
  expect(rules.sessions[0]!.segments![0]!.limits.writeToClass).toBe('closed');
  expect((await api.delete(`/api/rule-sheets/${id}`)).status()).toBe(409);
  // Another teacher neither edits it nor applies it.
  const other = await account('ines.calloway@saltmarsh.example');
  expect((await other.put(`/api/rule-sheets/${id}`, { data: { name, limits: quiet } })).status()).toBe(404);
  await other.dispose();
  await api.dispose();
});

test('the proof says of each student what they may and what they read; who is given the floor is told to switch on', async ({
  page,
  browser,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true });
  const api = await account(MAREN);
  const at = { layer: 'session', ids: [course.session] };
  await set(api, course.id, { at, segments: SEGMENTS });
  await api.post(`/api/courses/${course.id}/exceptions`, {
    data: { member: course.students[0]!.id, capability: 'writeToClass', state: 'closed', until: null },
  });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/limits/proof?of=${course.session}`);
  const row = (name: string) => page.getByRole('row', { name: new RegExp(name) });
  await expect(row('Ana Lanyon')).toContainText('By hand');
  await page.getByLabel('Part of the run sheet').selectOption('Examination');
  await expect(row('Ben Garrow').getByText('Closed')).toHaveCount(11);
  await page.getByLabel('Part of the run sheet').selectOption('Lecture');
  await expect(row('Ben Garrow').getByText('Closed')).toHaveCount(6);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download as CSV' }).click();
  expect(await readFile((await (await saved).path())!, 'utf8')).toMatch(/Ana Lanyon.*Closed \(person\)/);
  await page.getByRole('button', { name: 'Ana Lanyon' }).click();
  await expect(page.getByRole('dialog')).toContainText(
    'Writing to the class is closed for you by Maren Oduya. You can raise your hand or write to a teacher.',
  );
  // Their room as they have it: its own control says why, and nothing is done from here.
  await page.getByRole('link', { name: 'Look at their room' }).click();
  await expect(page.getByRole('region', { name: 'Whose page this is' })).toContainText(
    'As Ana Lanyon has it',
  );
  await expect(page.getByTestId('talk-closed')).toContainText('closed for you by Maren Oduya');
  await page.getByRole('button', { name: 'Raise hand' }).click();
  await expect(page.getByText('You only look: this is as they have it.')).toBeVisible();
  // A student is not told what the others may.
  const student = await byLink(course.students[1]!.link);
  expect((await student.get(`/api/sessions/${course.session}/proof`)).status()).toBe(403);
  await page.goto(`/room/${course.session}`);
  await throughDoor(page);
  await page.getByRole('button', { name: 'Ring in' }).click();
  const ben = await walkIn(browser, course, 1);
  await ben.keyboard.press('r');
  await expect(page.getByText(/1. Ben Garrow/)).toBeVisible();
  await page.keyboard.press('f');
  await expect(ben.getByRole('main').getByText('You have the floor.')).toBeVisible();
  await page.getByRole('button', { name: 'Ask to switch on' }).click();
  await expect(ben.getByText(/Maren Oduya asks you to switch your microphone on/)).toBeVisible();
  await ben.getByRole('button', { name: 'Microphone on', exact: true }).click();
  await expect(ben.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  await expect(ben.getByText(/asks you to switch/)).toHaveCount(0);
  // As the class is now, by another page: through the student's own audience.
  await ben.getByRole('combobox', { name: 'To whom' }).click();
  await ben.getByRole('option', { name: 'Your teachers' }).click();
  await ben.getByLabel('Write', { exact: true }).fill('For teachers alone');
  await ben.getByLabel('Write', { exact: true }).press('Enter');
  await expect(ben.getByText('For teachers alone')).toBeVisible();
  const seenAs = (i: number) => `/api/sessions/${course.session}/as/${course.students[i]!.id}`;
  expect(await (await api.get(seenAs(1))).text()).toContain('For teachers alone');
  expect(await (await api.get(seenAs(0))).text()).not.toContain('For teachers alone');
  expect((await student.get(seenAs(1))).status()).toBe(403);
  const lookedAt = await page.context().newPage();
  await lookedAt.goto(`/as/${course.session}/${course.students[1]!.id}`);
  await expect(lookedAt.getByText('The class is on. You only look.')).toBeVisible();
  await expect(lookedAt.getByText('For teachers alone')).toBeVisible();
  await lookedAt.close();

  const proof = await (await api.get(`/api/sessions/${course.session}/proof`)).json();
  const told = (name: string) => proof.people.find((p: { name: string }) => p.name === name).may.speak;
  expect(told('Ben Garrow')).toMatchObject({ allowed: true, layer: 'floor' });
  expect(told('Ana Lanyon')).toMatchObject({ allowed: false, state: 'byHand' });
  await dismiss(page);
  await api.dispose();
});

test('rules under two hands, from another course, sent twice, and with odd characters', async ({ page }) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const other = await account('ines.calloway@saltmarsh.example');
  const { id: mine } = await (
    await other.post('/api/courses', { data: { code: `I-${Date.now() % 100_000}`, title: 'Hers' } })
  ).json();
  const { series } = await detailOf(api, course.id);
  const [student] = course.students;
  const at = { layer: 'series', ids: [series[0]!.id] };
  // With her own right, and this course's ids.
  await set(other, mine, { at, sheet: 'examination' }, 409);
  const data = { member: student!.id, capability: 'speak', state: 'open', until: null };
  expect((await other.post(`/api/courses/${mine}/exceptions`, { data })).status()).toBe(404);
  await set(other, course.id, { at, sheet: 'examination' }, 403);
  const made = await (await api.post(`/api/courses/${course.id}/exceptions`, { data })).json();
  expect((await other.post(`/api/courses/${mine}/exceptions/${made.id}/end`, { data: {} })).status()).toBe(
    404,
  );
  // One request, sent twice, happens once, and ends once.
  const headers = { 'idempotency-key': randomUUID() };
  const end = () => api.post(`/api/courses/${course.id}/exceptions/${made.id}/end`, { data: {}, headers });
  expect([(await end()).status(), (await end()).status()]).toEqual([200, 200]);
  // What cannot be meant is refused in words, and nothing is written.
  const segments = (title: string, more = {}) => [{ title, minutes: 10, ...more }];
  for (const wrong of [
    { at, segments: segments('Two\nlines') },
    { at, segments: segments('\u202egnihtyreve') },
    { at, segments: segments('Lecture', { minutes: 0 }) },
    { at, segments: segments('Lecture', { minutes: 1.5 }) },
    { at, segments: Array.from({ length: 51 }, () => segments('Lecture')[0]) },
    { at, limits: { seeNames: 'byHand', speak: 'loud' } },
  ])
    await set(api, course.id, wrong, 422);
  await set(api, course.id, { at, segments: segments('Lecture', { sheet: 'nothing' }) }, 404);
  expect((await rulesOf(api, course.id)).series).toEqual([]);
  const far = { ...data, until: 9e15 };
  expect((await api.post(`/api/courses/${course.id}/exceptions`, { data: far })).status()).toBe(422);
  await set(api, course.id, { at, segments: segments('Übung <b>1</b> 🎏 العربية') });
  // Two at once on one state: the second is told what the first did.
  const { on } = await rulesOf(api, course.id);
  const put = (title: string) =>
    api.put(`/api/courses/${course.id}/rules`, {
      data: { at, segments: segments(title) },
      headers: { 'if-match': `"${on}"` },
    });
  const both = await Promise.all([put('First'), put('Second')]);
  expect(both.map((r) => r.status()).sort()).toEqual([200, 409]);
  // The door stands in the same history: undone, it is as it was, and the limits set before stay.
  await api.put(`/api/courses/${course.id}/limits`, { data: { limits: { speak: 'open' } } });
  await api.put(`/api/courses/${course.id}/door`, { data: { lateMinutes: 7 } });
  const { latest } = await rulesOf(api, course.id);
  const undo = { data: { change: latest!.id } };
  expect((await other.post(`/api/courses/${mine}/rules/undo`, undo)).status()).toBe(409);
  expect((await api.post(`/api/courses/${course.id}/rules/undo`, undo)).status()).toBe(200);
  const { door, limits } = await detailOf(api, course.id);
  expect([door.lateMinutes, limits.speak]).toEqual([15, 'open']);
  // What was typed and not saved is there again.
  await signIn(page, MAREN);
  const address = `/course/${course.id}/limits/run-sheets`;
  await page.goto(address);
  await page.getByLabel('Title of segment 1').fill('Half typed');
  await page.waitForResponse((r) => r.url().includes('/api/drafts') && r.request().method() === 'PUT');
  await page.goto(address);
  await expect(page.getByLabel('Title of segment 1')).toHaveValue('Half typed');
  // Meanwhile another saves: one is told, and what one typed stays.
  await set(api, course.id, { at, segments: segments('Meanwhile') });
  await page.getByRole('button', { name: 'Save the run sheet' }).click();
  await expect(page.getByText(/The rules were changed since you looked/).first()).toBeVisible();
  await expect(page.getByLabel('Title of segment 1')).toHaveValue('Half typed');
  await page.getByRole('button', { name: 'Save the run sheet' }).click();
  await expect(page.getByText('The run sheet is saved.')).toBeVisible();
  expect((await rulesOf(api, course.id)).series[0]!.segments![0]!.title).toBe('Half typed');
  await api.dispose();
  await other.dispose();
});
