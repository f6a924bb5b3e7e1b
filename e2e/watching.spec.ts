import { expect, test, type APIRequestContext } from '@playwright/test';
import type {
  CourseFound,
  Delivery,
  MyCourse,
  NoteInfo,
  RecordingDetail,
  Watchers,
} from '@nimble-bell/core/api';
import { BASE_URL } from './support/product';
import { account, byLink } from './support/course';
import { MAREN, person, signIn } from './support/people';

const VTT =
  'WEBVTT\n\n00:05.000 --> 00:09.000\nThe zephyr tide turns at six.\n\n00:40.000 --> 00:44.000\nPetrels come a week later.\n';

/** The demo's own course with recordings, and two of its students. */
async function demo(api: APIRequestContext) {
  const courses = await (await api.get('/api/courses')).json();
  const { id } = courses.find((c: { code: string }) => c.code === 'NAV-210');
  const members = await (await api.get(`/api/courses/${id}/members`)).json();
  const students = members.filter((m: { role: string }) => m.role === 'student').slice(0, 2);
  return { id: id as string, students: students as { id: string; name: string; link: string }[] };
}

test('a recording is captioned, searched, gone on with on another device; who watched is seen by those who teach', async ({
  page,
  browser,
  playwright,
}) => {
  test.setTimeout(120_000);
  const api = await account(MAREN);
  const course = await demo(api);
  const [one, other] = await Promise.all(course.students.map((s) => byLink(s.link)));
  const mine: MyCourse = await (await one!.get('/api/my-course')).json();
  // Other tests may have left a moment's class in this course.
  const recording = mine.recordings.find((r) => r.state === 'ready' && r.lengthMs > 60_000)!;
  const path = `/api/recordings/${recording.id}`;
  const captions = (text: string, by = api, language = 'nl') =>
    by.put(`${path}/captions/${language}`, { data: { text } });

  // Captions: what cannot be read says where, by whoever teaches alone, in a language.
  const fault = await captions('1\n00:00:09,000 --> 00:00:02,000\nHm');
  expect([fault.status(), (await fault.json()).error.message]).toEqual([
    422,
    'Line 2: This ends before it begins.',
  ]);
  expect((await captions(VTT, one!)).status()).toBe(403);
  expect((await captions(VTT, api, '..%2Fx')).status()).toBe(422);
  expect((await captions(VTT)).status()).toBe(200);

  // What stands for it in lists is of a moment that its teacher chooses; it is for those who may watch.
  const stillOf = async () => {
    const { recordings }: MyCourse = await (await one!.get('/api/my-course')).json();
    return recordings.find((r) => r.id === recording.id)!.still!;
  };
  const first = await stillOf();
  expect((await api.put(`${path}/still`, { data: { position: 9e8 } })).status()).toBe(422);
  expect((await api.put(`${path}/still`, { data: { position: 41_000 } })).status()).toBe(200);
  const chosen = await stillOf();
  expect(chosen).not.toBe(first);
  const jpeg = await other!.get(chosen);
  expect([jpeg.status(), jpeg.headers()['content-type']]).toEqual([200, 'image/jpeg']);
  expect((await other!.get(chosen.replace(/ticket=[^&]+/, 'ticket=none'))).status()).toBe(401);
  await api.put(`${path}/still`, { data: { position: null } });

  // Over the course, safe against whatever is typed.
  const find = async (q: string, by = one!): Promise<CourseFound[]> => {
    const answer = await by.get(`/api/courses/${course.id}/search`, { params: { q } });
    expect(answer.status()).toBe(200);
    return answer.json();
  };
  expect((await find('zephyr TIDE')).map((f) => [f.kind, f.position])).toEqual([['said', 5000]]);
  expect((await find('petr')).some((f) => f.text.startsWith('Petrels'))).toBe(true);
  for (const odd of ['+-><()~*"@', '"zephyr', 'zephyr*)', "' OR 1=1 --", '%', '  '])
    expect(await find(odd)).toBeInstanceOf(Array);
  expect((await find('" zephyr @tide (')).length).toBe(1);
  const stranger = await account('ines.calloway@saltmarsh.example');
  expect((await stranger.get(`/api/courses/${course.id}/search?q=zephyr`)).status()).toBe(403);

  // By the page: found in the recording, and a press from its moment.
  const [phone] = await person(browser, { viewport: { width: 390, height: 844 } });
  await phone.goto(`${course.students[0]!.link}/watch/${recording.id}`);
  await phone.getByLabel('Search in this recording').fill('petrels');
  await phone.getByRole('button', { name: /Petrels come a week later/ }).click();
  const at = () => phone.evaluate(() => document.querySelector('audio')!.currentTime);
  await expect.poll(at).toBeGreaterThan(38);
  await phone.getByLabel('Speed').selectOption('2');
  await expect.poll(() => phone.evaluate(() => document.querySelector('audio')!.playbackRate)).toBe(2);
  await expect.poll(at, { timeout: 20_000 }).toBeGreaterThan(52);
  await phone.evaluate(() => document.querySelector('audio')!.pause());
  // On another device one goes on where one was; another person begins at the beginning.
  const resumed = async (by: APIRequestContext) =>
    ((await (await by.get(path)).json()) as RecordingDetail).resume;
  await expect.poll(() => resumed(one!)).toBeGreaterThan(50_000);
  expect(await resumed(other!)).toBe(0);
  const [desk] = await person(browser, {});
  await desk.goto(`${course.students[0]!.link}/watch/${recording.id}`);
  await expect(desk.getByText(/^You were at 0:5/)).toBeVisible();

  // Who watched: for those who teach, and nobody else.
  const watchers: Watchers = await (await api.get(`${path}/watchers`)).json();
  const own = watchers.people.find((p) => p.member === course.students[0]!.id)!;
  expect(own.share).toBeGreaterThan(0.1);
  expect(own.share).toBeLessThan(0.6);
  expect(watchers.curve[4]).toBeGreaterThan(0);
  expect(watchers.curve[0]).toBe(0);
  expect((await one!.get(`${path}/watchers`)).status()).toBe(403);
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/watch/${recording.id}`);
  await expect(page.getByRole('img', { name: /^How often each part was watched/ })).toBeVisible();
  await page.getByLabel('Language of the captions').selectOption('nl');
  await page.getByLabel('Caption at 0:05').fill('The zephyr tide turns at eleven.');
  await page.getByRole('button', { name: 'Save the captions' }).click();
  await expect.poll(async () => (await find('eleven')).length).toBe(1);
  // A link for anybody: nobody of the class is named by it, and it opens nothing once it is taken back.
  const shared = async (share: string) => {
    const stranger = await playwright.request.newContext({ baseURL: BASE_URL });
    const answer = await stranger.get(`/api${share}`);
    const detail = answer.ok() ? ((await answer.json()) as RecordingDetail) : null;
    const media = detail
      ? (await stranger.get(detail.mediaPath, { headers: { range: 'bytes=0-9' } })).status()
      : 0;
    return { status: answer.status(), detail, media };
  };
  // A first try may have left one.
  for (const { id } of await (await api.get(`${path}/shares`)).json())
    await api.delete(`${path}/shares/${id}`);
  await page.getByRole('button', { name: 'Make a link' }).click();
  await expect(page.getByRole('button', { name: /^Take back the link/ })).toBeVisible();
  const [{ path: link }] = await (await api.get(`${path}/shares`)).json();
  const open = await shared(link);
  expect([open.status, open.media, open.detail!.shared]).toEqual([200, 206, true]);
  const names = (await (await api.get(`/api/courses/${course.id}/members`)).json()) as {
    name: string;
    role: string;
  }[];
  for (const { name } of names.filter((m) => m.role === 'student'))
    expect(JSON.stringify(open.detail)).not.toContain(name);
  expect(open.detail!.events.some((e) => e.type === 'said')).toBe(false);
  const [visitor] = await person(browser, {});
  await visitor.goto(link);
  await visitor.getByRole('button', { name: 'Play' }).click();
  const shownAt = () => visitor.evaluate(() => document.querySelector('video')?.currentTime ?? 0);
  await expect.poll(shownAt).toBeGreaterThan(0.5);
  await page.getByRole('button', { name: /^Take back the link/ }).click();
  await expect.poll(async () => (await shared(link)).status).toBe(404);
  expect((await visitor.request.get(open.detail!.mediaPath)).status()).toBe(404);
  // What is left out is in it no more, in the same second; and comes back.
  const plan = (leavesOut: string[]) =>
    api.put(`/api/courses/${course.id}/rules`, {
      data: { at: { layer: 'course', ids: [course.id] }, recording: { leavesOut } },
    });
  const told = async () => JSON.stringify(((await (await one!.get(path)).json()) as RecordingDetail).events);
  expect(await told()).toContain(course.students[0]!.name);
  expect((await plan(['names', 'writing', 'captions'])).status()).toBe(200);
  expect(await told()).not.toContain(course.students[0]!.name);
  expect(await told()).toContain('Student 1');
  expect(await find('eleven')).toEqual([]);
  expect((await plan([])).status()).toBe(200);
  expect((await find('eleven')).length).toBe(1);
  // A question at a moment reaches those who teach by their post, and its answer whoever asked; nobody else sees it.
  const asks = { position: 42_000, text: 'Why do petrels come later?', asks: true };
  expect((await one!.post(`${path}/notes`, { data: asks })).status()).toBe(201);
  const notes = async (by: APIRequestContext): Promise<NoteInfo[]> => (await by.get(`${path}/notes`)).json();
  const question = (await notes(api)).find((n) => n.text === asks.text);
  expect(question).toMatchObject({ kind: 'question', position: 42_000, by: mine.me.name });
  const answer = { data: { answer: 'The moon is late.' } };
  expect((await other!.put(`${path}/notes/${question!.id}/answer`, answer)).status()).toBe(403);
  expect((await api.put(`${path}/notes/${question!.id}/answer`, answer)).status()).toBe(200);
  const asked = async (by: APIRequestContext) => (await notes(by)).filter((n) => n.text === asks.text);
  expect((await asked(one!)).map((n) => n.answer)).toEqual(['The moon is late.']);
  expect(await asked(other!)).toEqual([]);
  expect((await other!.delete(`${path}/notes/${question!.id}`)).status()).toBe(404);
  const letters = async (): Promise<Delivery[]> =>
    (await api.get(`/api/courses/${course.id}/deliveries`)).json();
  await expect
    .poll(async () => (await letters()).filter((d) => d.topic === 'question').length, { timeout: 20_000 })
    .toBeGreaterThan(0);
  // Another title; deleted, nobody has it and nothing of it is found; taken back, all is as it was.
  await page.getByLabel('Title').fill('Tides, by the book');
  await page.getByRole('button', { name: 'Call it so' }).click();
  await expect(page.getByRole('heading', { name: 'Tides, by the book' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete …' }).click();
  await page.getByRole('button', { name: 'Delete it for everyone' }).click();
  await expect(page.getByText(/^Deleted\. Gone for good on/)).toBeVisible();
  const its = async () =>
    ((await (await one!.get('/api/my-course')).json()) as MyCourse).recordings.map((r) => r.title);
  expect(await its()).not.toContain('Tides, by the book');
  expect((await one!.get(path)).status()).toBe(403);
  expect(await find('eleven')).toEqual([]);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect.poll(its).toContain('Tides, by the book');
  await api.put(path, { data: { title: '' } });
  expect(await its()).toContain(recording.title);
  await page.goto(`/course/${course.id}/watch/${recording.id}`);
  await page.getByLabel('Language of the captions').selectOption('nl');
  await page.getByRole('button', { name: 'Take them away' }).click();
  await expect.poll(async () => (await find('eleven')).length).toBe(0);
});
