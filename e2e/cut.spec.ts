import { execFile } from 'node:child_process';
import { writeFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { expect, test, type APIRequestContext } from '@playwright/test';
import type { CourseFound, CutTable, MyCourse, RecordingDetail } from '@nimble-bell/core/api';
import { account, byLink } from './support/course';
import { countInteractions } from './support/interactions';
import { MAREN, signIn } from './support/people';

const run = promisify(execFile);

/** The demo's course, two students of it, and a recording that no other test takes. */
async function demo(api: APIRequestContext) {
  const courses = (await (await api.get('/api/courses')).json()) as { id: string; code: string }[];
  const { id } = courses.find((c) => c.code === 'NAV-210')!;
  const members = (await (await api.get(`/api/courses/${id}/members`)).json()) as {
    role: string;
    link: string;
  }[];
  const student = await byLink(members.filter((m) => m.role === 'student')[14]!.link);
  const mine: MyCourse = await (await student.get('/api/my-course')).json();
  const recording = mine.recordings.filter((r) => r.state === 'ready' && r.lengthMs > 60_000).at(-2)!;
  return { course: id, student, path: `/api/recordings/${recording.id}`, recording };
}

/** How long a file of the server really is, s. */
async function lengthOf(api: APIRequestContext, path: string, name: string): Promise<number> {
  const file = test.info().outputPath(name);
  await writeFile(file, await (await api.get(path)).body());
  const { stdout } = await run('ffprobe', [
    ...['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', file],
  ]);
  return Number(stdout);
}

test('the beginning of a recording is left out in five steps: nothing of it is had by anybody, and all of it can be had again', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const api = await account(MAREN);
  const { course, student, path, recording } = await demo(api);
  const detail = async (): Promise<RecordingDetail> => (await student.get(path)).json();
  const table = async (): Promise<CutTable> => (await api.get(`${path}/cuts`)).json();
  const before = await detail();
  const marked = before.events.find((e) => e.type === 'said')!;
  const text = marked.type === 'said' ? marked.text : '';
  const word = /[a-z]{6,}/i.exec(text)![0];
  const find = async () =>
    (
      (await (
        await student.get(`/api/courses/${course}/search`, { params: { q: word } })
      ).json()) as CourseFound[]
    ).filter((f) => f.recording === recording.id && f.text === text);
  expect((await find()).length).toBeGreaterThan(0);
  const note = { position: recording.lengthMs - 5000, text: 'Ask about this', asks: false };
  expect((await student.post(`${path}/notes`, { data: note })).status()).toBe(201);

  await signIn(page, MAREN);
  const counted = await countInteractions(page);
  await page.goto(`/course/${course}/watch/${recording.id}`);
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  await page.getByRole('link', { name: 'Cut …' }).click();
  await expect(page.getByRole('heading', { name: /^Cut: / })).toBeVisible();
  const slider = page.getByRole('slider', { name: 'Where the recording is' });
  const box = (await slider.boundingBox())!;
  await slider.click({ position: { x: box.width * 0.5, y: box.height / 2 } });
  await page.getByRole('button', { name: 'Leave out all before' }).click();
  await page.getByRole('button', { name: 'Cut it so' }).click();
  await expect.poll(async () => (await table()).inForce).toBe(1);
  const steps = await counted();
  console.log(`The beginning of a recording left out: ${steps} interactions.`);
  expect(steps).toBeLessThanOrEqual(5);

  // Until it is made nobody has anything of it; then it is what is told, and no more.
  await expect.poll(async () => (await table()).state, { timeout: 60_000 }).toBe('ready');
  const after = await detail();
  const { marks } = (await table()).history[0]!;
  expect(after.lengthMs).toBe(before.lengthMs - marks[1]!.from);
  expect(
    Math.abs((await lengthOf(student, after.mediaPath, 'sound.webm')) - after.lengthMs / 1000),
  ).toBeLessThan(0.1);
  expect((await student.get(before.mediaPath)).status()).toBe(404);
  expect(after.events.some((e) => e.type === 'said' && e.seq === marked.seq)).toBe(false);
  expect(await find()).toEqual([]);
  const [noted] = await (await student.get(`${path}/notes`)).json();
  expect(noted.position).toBe(after.lengthMs - 5000);
  // What was recorded is theirs alone who cut it: not with a ticket of another, and not with another's.
  expect((await student.get(`${path}/cuts`)).status()).toBe(403);
  const { whole } = await table();
  expect((await api.get(whole.mediaPath)).status()).toBe(200);
  const ticket = after.mediaPath.slice(after.mediaPath.indexOf('?'));
  expect((await student.get(whole.mediaPath.replace(/\?.*/, ticket))).status()).toBe(401);
  expect((await student.get(after.mediaPath.replace('/media/cut-1-sound', '/media/sound'))).status()).toBe(
    404,
  );

  // Two who cut at once: the second is told. Nothing left, and marks that are none, are said.
  const put = (data: object) => api.put(`${path}/cuts`, { data });
  const kept = { marks: [{ from: 0, fate: 'kept' }], nobody: [] };
  expect((await put({ ...kept, after: null })).status()).toBe(409);
  expect((await put({ ...kept, marks: [{ from: 0, fate: 'out' }], after: 1 })).status()).toBe(422);
  expect((await put({ ...kept, marks: [{ from: 9, fate: 'kept' }], after: 1 })).status()).toBe(422);
  expect((await student.put(`${path}/cuts`, { data: { ...kept, after: 1 } })).status()).toBe(403);

  // Chapters are called otherwise where they are told; and everything is as it was.
  const chapters = [{ position: 1000, title: 'What the gauge says' }];
  expect((await api.put(`${path}/chapters`, { data: { chapters } })).status()).toBe(200);
  expect((await detail()).chapters).toEqual(chapters);
  await page.getByRole('button', { name: 'As it was recorded, again' }).click();
  await expect.poll(async () => (await table()).inForce).toBe(null);
  expect((await detail()).chapters.some((c) => c.title === 'What the gauge says')).toBe(true);
  expect((await api.put(`${path}/chapters`, { data: { chapters: null } })).status()).toBe(200);
  const again = await detail();
  expect([again.lengthMs, again.chapters, again.gaps]).toEqual([
    before.lengthMs,
    before.chapters,
    before.gaps,
  ]);
  await expect.poll(async () => (await find()).length).toBeGreaterThan(0);
  expect((await student.get(after.mediaPath)).status()).toBe(404);
});
