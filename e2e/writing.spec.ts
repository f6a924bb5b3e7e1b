import { violations } from './support/axe';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import type { MyCourse, SessionWritten } from '@nimble-bell/core/api';
import { account, byLink, detailOf, dismiss, makeCourse, ringIn, walkIn } from './support/course';
import { live } from './support/live';
import { MAREN, person, signIn } from './support/people';

const say = (api: APIRequestContext, session: string, addressee: object, text: string, key = randomUUID()) =>
  api.post(`/api/sessions/${session}/written`, {
    data: { addressee, text },
    headers: { 'idempotency-key': key },
  });
const read = async (api: APIRequestContext, session: string): Promise<SessionWritten> =>
  (await api.get(`/api/sessions/${session}/written`)).json();
const texts = async (api: APIRequestContext, session: string) =>
  (await read(api, session)).written.map((w) => w.text);

const CLASS = { to: 'class' };
const TEACHERS = { to: 'teachers' };

test('around a class one writes in the hours that are set, to whom the limits let, and nobody else reads it', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ students: 3, apart: true, limits: { writeToClass: 'open' } });
  const api = await account(MAREN);
  // The last session of the term: its door is far from open.
  const session = (await detailOf(api, course.id)).sessions.at(-1)!.id;
  const [ana, ben, cas] = await Promise.all(course.students.map((s) => byLink(s.link)));
  const set = (writing: object) =>
    api.put(`/api/courses/${course.id}/rules`, {
      data: { at: { layer: 'session', ids: [session] }, writing },
    });
  // Nothing is said of it: those who teach may, students may not, and read why.
  expect((await say(ana!, session, CLASS, 'Too soon')).status()).toBe(403);
  expect((await read(ana!, session)).closed.class).toBe('Nothing is written here at this time.');
  expect((await say(api, session, CLASS, 'Bring a pencil.')).status()).toBe(201);
  expect((await set({ aheadHours: 673 })).status()).toBe(422);
  const weeks = await set({ aheadHours: 672 });
  expect(weeks.status()).toBe(200);
  const hours = (session_: { startsAt: number }, now: number) => (session_.startsAt - now) / 3_600_000;
  const detail = (await detailOf(api, course.id)).sessions.at(-1)!;
  const { now } = await (await api.get('/api/me')).json();
  // Four weeks before the last session, and not a session that is further away.
  const near = (await detailOf(api, course.id)).sessions.find((s) => hours(s, now) > 24)!;
  expect(hours(detail, now)).toBeGreaterThan(672);
  expect((await say(ana!, session, CLASS, 'Still too soon')).status()).toBe(403);
  await api.put(`/api/courses/${course.id}/rules`, {
    data: { at: { layer: 'session', ids: [near.id] }, writing: { aheadHours: 672, early: 'teachers' } },
  });

  // By the page, on a phone: to the class, then to the teachers.
  const [phone] = await person(browser, { viewport: { width: 390, height: 844 } });
  await phone.goto(course.students[0]!.link);
  await phone.getByRole('link', { name: 'Write', exact: true }).first().click();
  await phone.getByLabel('Write', { exact: true }).fill('Which chart do we need?');
  await phone.getByRole('button', { name: 'Write it' }).click();
  await expect(phone.getByRole('listitem').getByText('Which chart do we need?')).toBeVisible();
  await phone.getByText('Your teachers').click();
  await phone.getByLabel('Write', { exact: true }).fill('I have not understood the last one.');
  await phone.getByRole('button', { name: 'Write it' }).click();
  await expect(phone.getByText('to the teachers')).toBeVisible();
  expect(await texts(ben!, near.id)).toEqual(['Which chart do we need?']);
  const mine: MyCourse = await (await ben!.get('/api/my-course')).json();
  expect(mine.sessions.find((s) => s.id === near.id)!.writing).toMatchObject({
    written: 1,
    now: { when: 'ahead' },
  });

  // The teacher sees it where they begin, and answers to one alone.
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/teach`);
  await page
    .locator('#content')
    .getByRole('link', { name: /^Lecture/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^Answer Ana Lanyon alone/ }).click();
  await page.getByLabel('Write', { exact: true }).fill('We begin with it.');
  await page.getByRole('button', { name: 'Write it' }).click();
  await expect(page.getByText('to Ana Lanyon', { exact: true })).toBeVisible();
  await expect.poll(() => texts(ana!, near.id)).toContain('We begin with it.');
  expect(await texts(ben!, near.id)).not.toContain('We begin with it.');

  // Between students it is closed, as in class; an exception closes it for one; sent twice it is there once.
  const toAna = { to: 'member', member: course.students[0]!.id };
  expect((await say(ben!, near.id, toAna, 'Psst')).status()).toBe(403);
  const exception = {
    member: course.students[1]!.id,
    capability: 'writeToClass',
    state: 'closed',
    until: null,
  };
  await api.post(`/api/courses/${course.id}/exceptions`, { data: exception });
  expect(await (await say(ben!, near.id, CLASS, 'Hello')).json()).toMatchObject({
    error: { message: 'Writing to the class is closed for you.' },
  });
  const key = randomUUID();
  const twice = [await say(cas!, near.id, CLASS, 'Once', key), await say(cas!, near.id, CLASS, 'Once', key)];
  expect(twice.map((r) => r.status())).toEqual([201, 201]);
  expect((await texts(ben!, near.id)).filter((t) => t === 'Once')).toHaveLength(1);
  // Another course's teacher, and nobody.
  const other = await account('ines.calloway@saltmarsh.example');
  expect((await say(other, near.id, CLASS, 'Hers')).status()).toBe(403);
  expect((await say(cas!, near.id, { to: 'member', member: 'nobody' }, 'Hm')).status()).toBe(404);
  expect((await say(cas!, near.id, CLASS, ' \u202e ')).status()).toBe(422);
  // Too much at once is refused, and nothing more of it stands.
  const flood = await Promise.all(
    Array.from({ length: 14 }, (_, i) => say(cas!, near.id, TEACHERS, `No. ${i}`)),
  );
  expect(flood.some((r) => r.status() === 429)).toBe(true);
  // One at a time, however many lines they come by: no more than ten of anybody stand within a minute.
  const ofCas = (await read(cas!, near.id)).written.filter((w) => w.from === course.students[2]!.id);
  expect(ofCas).toHaveLength(10);
  // Where writing is by hand in class, outside of it it is closed in words.
  await api.put(`/api/courses/${course.id}/limits`, { data: { limits: { writeToClass: 'byHand' } } });
  expect((await read(cas!, near.id)).closed.class).toBe('Writing to the class is by hand, in class alone.');
  // Whoever is forgotten leaves no words.
  await api.delete(`/api/courses/${course.id}/members/${course.students[0]!.id}/data`);
  const left = await read(api, near.id);
  expect(JSON.stringify(left)).not.toContain('Ana Lanyon');
  expect(JSON.stringify(left)).not.toContain('Which chart');
});

test('a file goes with a message to those who may read it, of a kind that is taken, by who may attach', async ({
  page,
  browser,
}) => {
  const course = await makeCourse({ students: 3, apart: true });
  await ringIn(page, course);
  const [ana, ben] = [await walkIn(browser, course), await walkIn(browser, course, 1)];
  const PDF = Buffer.from('%PDF-1.4 a chart');
  const bys = await Promise.all(course.students.map((s) => byLink(s.link)));
  const up = (by = bys[0]!, name = 'chart.pdf', data: Buffer = PDF) =>
    by.post(`/api/sessions/${course.session}/attached?name=${name}`, {
      data,
      headers: { 'content-type': 'application/octet-stream' },
    });
  // Closed at first: nothing to press, and the server says why.
  await expect(ana.getByRole('button', { name: 'Attach a file' })).toHaveCount(0);
  expect([(await up()).status(), (await (await up()).json()).error.message]).toEqual([
    403,
    expect.stringContaining('Attaching files is closed'),
  ]);
  const api = await account(MAREN);
  await api.put(`/api/courses/${course.id}/limits`, { data: { limits: { attachFiles: 'open' } } });
  await ana.getByRole('combobox', { name: 'To whom' }).click();
  await ana.getByRole('option', { name: 'Your teachers' }).click();
  await ana.getByLabel('Write', { exact: true }).fill('My chart of the bay');
  const [chooser] = await Promise.all([
    ana.waitForEvent('filechooser'),
    ana.getByRole('button', { name: 'Attach a file' }).click(),
  ]);
  await chooser.setFiles({ name: 'bay chart.pdf', mimeType: 'application/pdf', buffer: PDF });
  // By the teacher and its writer, and by nobody else.
  for (const view of [page, ana])
    await expect(view.getByRole('link', { name: 'bay chart.pdf' })).toBeVisible({ timeout: 15_000 });
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'bay chart.pdf' }).click(),
  ]);
  expect(await readFile((await saved.path())!)).toEqual(PDF);
  const listed = async (by: APIRequestContext) =>
    (await (await by.get(`/api/sessions/${course.session}/attached`)).json()) as {
      id: string;
      path: string;
    }[];
  const [own] = await listed(bys[0]!);
  expect(await listed(bys[1]!)).toEqual([]);
  await expect(ben.getByText('My chart of the bay')).toHaveCount(0);
  // A ticket is one person's: another's link does not make it good.
  const ticket = own!.path;
  expect((await bys[0]!.get(ticket)).status()).toBe(200);
  expect((await bys[0]!.get(ticket.replace(own!.id, 'abcdefgh2345'))).status()).toBe(401);
  // What is not what its name says, nothing at all, too much, or a program.
  for (const [name, data, status] of [
    ['a.pdf', Buffer.from('MZ a program'), 415],
    ['a.exe', PDF, 415],
    ['a.pdf', Buffer.alloc(0), 422],
    ['a.pdf', Buffer.concat([PDF, Buffer.alloc(25_000_000)]), 413],
  ] as const)
    expect((await up(bys[0]!, name, data)).status(), name).toBe(status);
  // By a raw line: another's file, one that was said already, one of nowhere.
  const { id } = await (await up()).json();
  const sayFile = async (link: string, file: string) => {
    const socket = live({ link: link.replace('/in/', '') });
    const entered = await socket.emitWithAck('enter', { session: course.session, after: 0 });
    expect(entered.ok).toBe(true);
    const command = { type: 'say', addressee: { to: 'class' }, text: 'Mine', file };
    const reply = await socket.emitWithAck('command', { id: randomUUID(), command });
    socket.disconnect();
    return reply.ok as boolean;
  };
  expect(await sayFile(course.students[1]!.link, id)).toBe(false);
  expect(await sayFile(course.students[0]!.link, own!.id)).toBe(false);
  expect(await sayFile(course.students[0]!.link, 'abcdefgh2345')).toBe(false);
  expect(await sayFile(course.students[0]!.link, id)).toBe(true);
  await expect(ben.getByRole('link', { name: 'chart.pdf' })).toBeVisible();
  // Whoever is not in the room attaches nothing.
  expect((await up(bys[2]!)).status()).toBe(403);
  // Ten at once say the same file: it is said once. Forty at once are sent up: twenty are taken.
  expect((await up(bys[0]!, encodeURIComponent('two\r\nlines.pdf'))).status()).toBe(422);
  const odd = await up(bys[0]!, encodeURIComponent('”../x <b>é🌊”.pdf'));
  expect(odd.status()).toBe(201);
  const { id: another } = await odd.json();
  const said = await Promise.all(
    Array.from({ length: 10 }, () => sayFile(course.students[0]!.link, another)),
  );
  expect(said.filter(Boolean)).toHaveLength(1);
  const many = await Promise.all(Array.from({ length: 40 }, () => up(bys[1]!)));
  expect(many.filter((r) => r.status() === 201)).toHaveLength(20);
  expect(many.filter((r) => r.status() === 503)).toHaveLength(20);
  // A picture is seen with its message, and is the one that was sent.
  const [again] = await Promise.all([
    ana.waitForEvent('filechooser'),
    ana.getByRole('button', { name: 'Attach a file' }).click(),
  ]);
  await again.setFiles({ name: 'shore.png', mimeType: 'image/png', buffer: await ana.screenshot() });
  const shore = page.getByRole('img', { name: 'shore.png' });
  await expect
    .poll(() => shore.evaluate((i: HTMLImageElement) => i.naturalWidth), { timeout: 15_000 })
    .toBe(ana.viewportSize()!.width);
  // Of who is in no recording a file is their classmates' in class, and nobody's afterwards but those who teach.
  const names = async (by: APIRequestContext) =>
    (await (await by.get(`/api/sessions/${course.session}/attached`)).json()).map(
      (a: { name: string }) => a.name,
    ) as string[];
  const line = live({ link: course.students[0]!.link.replace('/in/', '') });
  await line.emitWithAck('enter', { session: course.session, after: 0 });
  const notMe = { type: 'answerRecording', agrees: false };
  expect((await line.emitWithAck('command', { id: randomUUID(), command: notMe })).ok).toBe(true);
  line.disconnect();
  expect(await names(bys[1]!)).toHaveLength(2);
  expect((await names(bys[1]!)).join()).toContain('é🌊');
  await dismiss(page);
  expect(await names(bys[1]!)).toEqual([]);
  expect(await names(bys[0]!)).toHaveLength(4);
  expect(await names(api)).toHaveLength(4);
});

test('notes are written together by who may, outlive a lost line, and are read by the class afterwards', async ({
  page,
  browser,
}) => {
  const course = await makeCourse({ students: 2, apart: true, limits: { writeNotes: 'open' } });
  await ringIn(page, course);
  const [ana, ben] = [await walkIn(browser, course), await walkIn(browser, course, 1)];
  const notes = (view: Page) => view.getByRole('textbox', { name: 'The class notes' });
  for (const view of [page, ana, ben]) {
    await view.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Notes').click();
    await expect(notes(view)).toBeVisible();
  }
  const write = async (view: Page, text: string) => {
    await notes(view).click();
    await view.keyboard.press('Control+End');
    await view.keyboard.type(text, { delay: 40 });
    await view.keyboard.press('Enter');
  };
  await write(page, 'Springs at full moon');
  await expect(notes(ana)).toContainText('Springs at full moon');
  // Both at once: nothing of either is lost.
  await Promise.all([write(ana, 'Neaps a week later'), write(ben, 'Ebb first')]);
  for (const view of [page, ana, ben])
    for (const text of ['Springs at full moon', 'Neaps a week later', 'Ebb first'])
      await expect(notes(view)).toContainText(text);
  // Each has the others' carets by name, and sees who wrote what.
  await notes(ana).click();
  await expect(notes(ben).locator(`[data-name="${course.students[0]!.name}"]`)).toBeVisible();
  await ben.getByRole('button', { name: 'Who wrote what' }).click();
  const hands = ben.getByRole('list', { name: 'Who wrote it' });
  for (const who of ['Maren Oduya', course.students[0]!.name, course.students[1]!.name])
    await expect(hands).toContainText(who);
  await expect(notes(ben).locator(`[title="${course.students[0]!.name}"]`)).toHaveText('Neaps a week later');
  expect.soft(await violations(ben), 'who wrote what').toEqual([]);
  await ben.getByRole('button', { name: 'Who wrote what' }).click();
  // Whoever teaches goes back to what was there before, and puts it back.
  await page.getByRole('button', { name: 'As it was' }).click();
  await expect(page.getByText(/^Nothing was written until/)).toBeVisible();
  expect.soft(await violations(page), 'as it was').toEqual([]);
  await page.getByRole('button', { name: 'To what is there now' }).press('Enter');
  await expect(notes(page)).toContainText('Ebb first');
  // What is written while the line is away comes with it.
  await ana.context().setOffline(true);
  await write(ana, 'Written offline');
  await ana.context().setOffline(false);
  await expect(notes(page)).toContainText('Written offline', { timeout: 20_000 });
  // Closed: nothing can be typed, and a raw line is refused.
  const api = await account(MAREN);
  await api.put(`/api/courses/${course.id}/limits`, { data: { limits: { writeNotes: 'closed' } } });
  await expect(notes(ben)).toHaveAttribute('contenteditable', 'false');
  await expect(ben.getByText(/^Writing in the class notes is closed/).first()).toBeVisible();
  const socket = live({ link: course.students[1]!.link.replace('/in/', '') });
  expect((await socket.emitWithAck('enter', { session: course.session, after: 0 })).ok).toBe(true);
  const change = { place: 'class', name: 'notes', update: Buffer.from([0, 0]).toString('base64') };
  expect((await socket.emitWithAck('documentUpdate', change)).refusal.code).toBe('closed');
  const caret = { what: 'caret', at: null };
  expect((await socket.emitWithAck('signal', caret)).refusal.code).toBe('closed');
  // How it was is for those who teach.
  const then = { place: 'class', name: 'notes', at: null };
  expect((await socket.emitWithAck('documentThen', then)).refusal.code).toBe('forbidden');
  for (const odd of [
    { ...change, name: 'others' },
    { ...change, place: 'elsewhere' },
    { ...change, update: '%%%' },
  ])
    expect((await socket.emitWithAck('documentUpdate', odd)).ok).toBe(false);
  socket.disconnect();
  await dismiss(page);
  // Afterwards the class reads them; nobody else does.
  const one = await byLink(course.students[1]!.link);
  const { notes: kept } = await (await one.get(`/api/sessions/${course.session}/notes`)).json();
  for (const line of ['Springs at full moon', 'Neaps a week later', 'Ebb first', 'Written offline'])
    expect(kept[0].text).toContain(line);
  // Who wrote it is told to those who teach.
  expect(kept).toMatchObject([{ place: 'class', by: [] }]);
  const told = await (await api.get(`/api/sessions/${course.session}/notes`)).json();
  expect(told.notes[0].by.map((b: { name: string }) => b.name).sort()).toEqual(
    ['Maren Oduya', course.students[0]!.name, course.students[1]!.name].sort(),
  );
  const other = await account('ines.calloway@saltmarsh.example');
  expect((await other.get(`/api/sessions/${course.session}/notes`)).status()).toBe(403);
  await page.goto(`/course/${course.id}/session/${course.session}`);
  await expect(page.getByRole('region', { name: 'Class notes' })).toContainText('Ebb first');
});
