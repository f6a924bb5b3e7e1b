import { execFile } from 'node:child_process';
import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { unzipSync } from 'fflate';
import type { Delivery, ExportInfo } from '@nimble-bell/core/api';
import {
  account,
  byLink,
  dismiss,
  makeCourse,
  ringIn,
  walkIn,
  type MadeCourse,
  throughDoor,
} from './support/course';
import { MAREN, seat } from './support/people';
import { DATA } from './support/product';
import { askStore } from './support/store';

const recordingOf = async (api: APIRequestContext, course: MadeCourse) =>
  (await (await api.get(`/api/sessions/${course.session}`)).json()).recordings[0];

const plan = (more: object = {}) => ({
  automatic: true,
  keepUntil: '2027-03-01',
  studentsWatch: true,
  studentsDownload: false,
  ...more,
});

/** The loudest sound of a recording's last seconds, dB below full; silence is -91. */
async function loudestAtEnd(media: Uint8Array, seconds: number): Promise<number> {
  const file = path.join(tmpdir(), `${crypto.randomUUID()}.webm`);
  await writeFile(file, media);
  try {
    const { stderr } = await promisify(execFile)('ffmpeg', [
      ...['-nostdin', '-sseof', `-${seconds}`, '-i', file, '-vn', '-af', 'volumedetect', '-f', 'null', '-'],
    ]);
    return Number(/max_volume: (-?[\d.]+) dB/.exec(stderr)?.[1]);
  } finally {
    await rm(file);
  }
}

/** What Debian's own program says of a file: its streams and chapters; anything it would warn of fails. */
async function probed(media: Buffer): Promise<object> {
  const file = path.join(tmpdir(), `${crypto.randomUUID()}.mp3`);
  await writeFile(file, media);
  try {
    const args = ['-v', 'warning', '-of', 'json', '-show_streams', '-show_chapters', file];
    const { stdout, stderr } = await promisify(execFile)('ffprobe', args);
    expect(stderr).toBe('');
    return JSON.parse(stdout);
  } finally {
    await rm(file);
  }
}

test('a class with a presented screen and a page that was opened again is recorded whole', async ({
  browser,
  page,
}) => {
  test.setTimeout(180_000);
  const course = await makeCourse({ record: true, limits: { camera: 'open', speak: 'open' } });
  const api = await account(MAREN);
  const put = (more: object) => api.put(`/api/courses/${course.id}/recording-plan`, { data: plan(more) });
  await put({ studentsCameras: true });
  await ringIn(page, course, ['Microphone', 'Camera']);
  const ana = await walkIn(browser, course);
  // Ana is asked, and is not in it: her name and words are nowhere in what comes of it.
  await ana.getByRole('region', { name: 'This class is recorded' }).getByText('Not me').click();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('aria-label', /not recorded/);
  await ana.getByLabel('Write', { exact: true }).fill('Xylophone, not for later');
  await ana.getByLabel('Write', { exact: true }).press('Enter');
  await expect(page.getByText('Xylophone, not for later')).toBeVisible();
  await ana.getByRole('button', { name: /^Camera/ }).click();
  await page.getByRole('button', { name: /^Present/ }).click();
  await expect(ana.getByText('Maren Oduya presents')).toBeVisible();
  const screenMoves = () => ana.evaluate(() => document.querySelector('figure video')?.clientWidth ?? 0);
  await expect.poll(screenMoves).toBeGreaterThan(0);
  await page.waitForTimeout(2500);
  await page.getByRole('button', { name: /^Presenting/ }).click();
  await page.reload();
  await throughDoor(page);
  // Who reloads within seconds has not left; the devices of the old page are gone, and the switches say so.
  await expect(page.getByRole('button', { name: 'Camera: off' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Microphone: off' })).toBeVisible();
  const silentSince = Date.now();
  await page.getByRole('button', { name: /^Camera/ }).click();
  await expect(page.getByRole('button', { name: 'Camera: on' })).toBeVisible();
  await expect(page.getByTestId('recording-mark')).toHaveText('Being recorded');
  // Somebody speaks while nobody else does, and is taken off the list before class is over.
  const ben = await walkIn(browser, course, 1);
  // The browser's own stand-in only ticks; ours is a tone, which is heard as a voice is.
  await ben.evaluate(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('None', 'NotFoundError'));
  });
  // He agrees to be seen while he has the floor.
  const asked = ben.getByRole('region', { name: 'This class is recorded' });
  await expect(asked).toContainText('and your camera while you have the floor');
  await asked.getByRole('button', { name: 'All right' }).click();
  await ben.getByRole('button', { name: /^Camera/ }).click();
  await ben.getByRole('button', { name: 'Raise hand' }).click();
  await page.getByRole('button', { name: 'Give the floor' }).click();
  await ben.getByRole('button', { name: 'Microphone on' }).click();
  await ben.waitForTimeout(3000);
  const drop = { edit: 'drop', members: [course.students[1]!.id] };
  expect((await api.post(`/api/courses/${course.id}/members`, { data: drop })).status()).toBe(201);
  await expect(ben.getByText('Your link is no longer good for this class.')).toBeVisible();
  await dismiss(page);
  const silentFor = (Date.now() - silentSince) / 1000;

  await expect.poll(async () => (await recordingOf(api, course)).state, { timeout: 60_000 }).toBe('ready');
  const recording = await recordingOf(api, course);
  expect(recording.lengthMs).toBeGreaterThan(4000);
  await page.goto(`/course/${course.id}/watch/${recording.id}`);
  const length = () => page.locator('audio').evaluate((a: HTMLAudioElement) => a.duration * 1000);
  await expect.poll(length).toBeGreaterThan(0);
  expect(Math.abs((await length()) - recording.lengthMs)).toBeLessThan(500);
  // The screen is a picture of its own, and so is the camera before the page was opened again and after.
  const whole = await (await api.get(`/api/recordings/${recording.id}`)).json();
  const kindsOf = (of: { pictures: { kind: string }[] }) => of.pictures.map((p) => p.kind).sort();
  // Before it is finished, one that goes on over a minute's end is in two files.
  expect([...new Set(kindsOf(whole))]).toEqual(['camera', 'screen']);
  const shown = whole.pictures.find((p: { kind: string }) => p.kind === 'screen');
  expect(shown.length).toBeGreaterThan(2000);
  await page.getByLabel('Where the recording is').fill(String(Math.ceil((shown.at + 1000) / 5000) * 5));
  await expect(page.getByRole('button', { name: /Maren Oduya presents/ })).toBeVisible();

  // How long each was heard is the relay’s word: of three seconds of his sound some, of hers none.
  const heard = await askStore<{ member: string; ms: number }>(
    'SELECT member_id AS member, spoken_ms AS ms FROM parts_taken WHERE session_id = ?',
    [course.session],
  );
  const spoke = (i: number) => Number(heard.find((h) => h.member === course.students[i]!.id)?.ms ?? 0);
  process.stdout.write(`  heard by the relay, ms: ${JSON.stringify(heard)}\n`);
  expect(spoke(0)).toBe(0);
  expect(spoke(1)).toBeGreaterThan(500);
  expect(spoke(1)).toBeLessThan(12_000);

  const everything = await (await api.get(`/api/recordings/${recording.id}`)).text();
  expect(everything).toContain('(withheld)');
  expect(everything).not.toMatch(/Xylophone|Ana Lanyon/);
  const found = await api.get(`/api/courses/${course.id}/search?q=Xylophone`);
  expect(await found.json()).toEqual([]);

  // Who was absent is told, once, by a letter with their own way to it; who was there is not.
  const told = async () => {
    const all: Delivery[] = await (await api.get(`/api/courses/${course.id}/deliveries`)).json();
    return all.filter((d) => d.topic === 'recording').map((d) => d.name);
  };
  await expect.poll(told, { timeout: 20_000 }).toEqual([course.students[2]!.name]);

  // It is finished: levelled, its raw files let go; and captions that lie beside it are offered.
  const finished = async () => (await (await api.get(`/api/recordings/${recording.id}`)).json()).mediaPath;
  await expect.poll(finished, { timeout: 30_000 }).toContain('/media/sound.webm');
  const inOne = await (await api.get(`/api/recordings/${recording.id}`)).json();
  expect(kindsOf(inOne)).toEqual(['camera', 'camera', 'camera', 'screen']);
  await seenWithTheFloor(course, recording.id, api);
  // Nothing else is recorded here: what the relay wrote is gone.
  await expect.poll(() => readdir(path.join(DATA, 'recordings', 'pieces'))).not.toContain(recording.id);
  const beside = path.join(DATA, 'recordings', 'ready', `${recording.id}.en.vtt`);
  await writeFile(beside, 'WEBVTT\n\n00:00.000 --> 00:04.000\nGood evening.\n');
  // Opened at a moment: it would go on where it was left, which on a slow machine is past these words.
  await page.goto(`/course/${course.id}/watch/${recording.id}?at=0`);
  await page
    .getByRole('combobox', { name: 'Captions', exact: true })
    .selectOption({ label: 'Captions, English' });
  await expect(page.getByTestId('captions')).toHaveText('Good evening.');

  // What the plan says applies to what is already recorded.
  const student = await byLink(course.students[0]!.link);
  const detail = await (await student.get(`/api/recordings/${recording.id}`)).json();
  const media = (await student.get(detail.mediaPath, { headers: { range: 'bytes=0-99' } })).status();
  expect(media).toBe(206);
  const ticket = detail.mediaPath.slice(detail.mediaPath.indexOf('?'));
  const here = `/api/recordings/${recording.id}`;
  const take = (kind: string) => student.post(`${here}/exports`, { data: { kind } });
  const along = (what: string) => student.get(`${here}/export/${what}${ticket}`);
  expect((await take('sound.mp3')).status()).toBe(403);
  expect((await along('writing.txt')).status()).toBe(403);
  await put({ studentsDownload: true });
  /** Asked for, made, and had. */
  const taken = async (kind: string): Promise<Buffer> => {
    expect((await take(kind)).status()).toBe(201);
    let made: ExportInfo | undefined;
    await expect
      .poll(
        async () => {
          const all: ExportInfo[] = await (await student.get(`${here}/exports`)).json();
          made = all.find((e) => e.kind === kind);
          return made?.state;
        },
        { timeout: 60_000 },
      )
      .toBe('ready');
    const answer = await student.get(made!.path!);
    expect(answer.headers()['content-disposition']).toContain('attachment');
    return answer.body();
  };
  expect(await probed(await taken('sound.mp3'))).toMatchObject({
    streams: [{ codec_name: 'mp3' }],
    chapters: expect.arrayContaining([expect.objectContaining({ tags: { title: 'Class begins' } })]),
  });
  const film = await probed(await taken('film.mp4'));
  expect(film).toMatchObject({ streams: [{ codec_name: 'h264' }, { codec_name: 'aac' }] });
  expect((await along('writing.txt')).status()).toBe(200);
  expect((await along('../../etc')).status()).toBe(404);
  // Everything, in one archive that opens without us: it plays, and who is not in the recording is not in it.
  const inside = unzipSync(await taken('archive.zip'));
  expect(Object.keys(inside)).toEqual(expect.arrayContaining(['index.html', 'sound.webm', 'picture-0.webm']));
  expect(Buffer.from(inside['index.html']!).toString()).not.toMatch(/Xylophone|Ana Lanyon/);
  const folder = await mkdtemp(path.join(tmpdir(), 'archive-'));
  for (const [name, bytes] of Object.entries(inside)) await writeFile(path.join(folder, name), bytes);
  const alone = await (await browser.newContext()).newPage();
  await alone.goto(`file://${path.join(folder, 'index.html')}`);
  await alone.evaluate(() => document.querySelector('audio')!.play());
  await expect
    .poll(() => alone.evaluate(() => document.querySelector('audio')!.currentTime))
    .toBeGreaterThan(1);
  await expect
    .poll(() =>
      alone.evaluate(() => Math.max(...[...document.querySelectorAll('video')].map((v) => v.currentTime))),
    )
    .toBeGreaterThan(0.3);
  await rm(folder, { recursive: true });
  // What Ben said is in it: nobody else was heard since the page was opened again.
  expect(await loudestAtEnd(inside['sound.webm']!, silentFor - 2)).toBeGreaterThan(-40);
  await put({ studentsWatch: false });
  expect((await student.get(`/api/recordings/${recording.id}`)).status()).toBe(403);
  expect((await student.get(detail.mediaPath)).status()).toBe(403);
  expect((await student.get(detail.captions[0].path)).status()).toBe(403);
  expect((await (await student.get('/api/my-course')).json()).recordings).toEqual([]);
  // The narrower place counts, for what is over as well; and each of them gives way to a narrower one alone.
  const at = { layer: 'session', ids: [course.session] };
  const say = (said: object) => api.put(`/api/courses/${course.id}/rules`, { data: { at, recording: said } });
  expect((await say({ automatic: false })).status()).toBe(422);
  expect((await say({ studentsWatch: true })).status()).toBe(200);
  expect((await student.get(`/api/recordings/${recording.id}`)).status()).toBe(200);
  expect((await say({ studentsWatch: null })).status()).toBe(200);
  expect((await student.get(`/api/recordings/${recording.id}`)).status()).toBe(403);
  await put({ keepUntil: '2026-10-05' });
  expect((await api.get(`/api/recordings/${recording.id}`)).status()).toBe(410);
  await student.dispose();
});

/** Who had the floor is seen by those who could see them, and by nobody once they are forgotten: nor is there a file. */
async function seenWithTheFloor(course: MadeCourse, recording: string, api: APIRequestContext) {
  const ana = await byLink(course.students[0]!.link);
  const cameras = async (of: APIRequestContext, where = `/api/recordings/${recording}`): Promise<string[]> =>
    (await (await of.get(where)).json()).pictures
      .filter((p: { kind: string }) => p.kind === 'camera')
      .map((p: { path: string }) => p.path);
  const all = await cameras(api);
  const [his] = all.filter((p) => p.includes('/camera-'));
  expect(all).toHaveLength(3);
  const whose = (await (await api.get(`/api/recordings/${recording}`)).json()).pictures;
  expect(whose.flatMap((p: { member?: string }) => p.member ?? [])).toEqual([course.students[1]!.id]);
  expect(await cameras(ana)).toHaveLength(3);
  const until = Date.parse('2027-02-01');
  const { path: link } = await (
    await api.post(`/api/recordings/${recording}/shares`, { data: { until } })
  ).json();
  expect(await cameras(ana, `/api${link}`)).toHaveLength(2);
  const file = new URL(his!, 'http://x').pathname.split('/').at(-1)!;
  expect((await ana.get(`/api${link}/media/${file}`)).status()).toBe(404);
  expect((await api.get(his!)).status()).toBe(200);
  // As the plan says, for what is recorded already.
  const say = (studentsCameras: boolean) =>
    api.put(`/api/courses/${course.id}/recording-plan`, { data: plan({ studentsCameras }) });
  await say(false);
  expect((await api.get(his!)).status()).toBe(404);
  await say(true);
  const files = () => readdir(path.join(DATA, 'recordings', 'ready', recording));
  expect(await files()).toContain(file);
  const forgotten = await api.delete(`/api/courses/${course.id}/members/${course.students[1]!.id}/data`);
  expect(forgotten.status()).toBe(200);
  expect((await api.get(his!)).status()).toBe(404);
  expect(await cameras(api)).toHaveLength(2);
  await expect.poll(files, { timeout: 20_000 }).not.toContain(file);
  await ana.dispose();
}

test('nothing is recorded where the plan does not ask for it', async ({ page }) => {
  const course = await makeCourse();
  await ringIn(page, course);
  await expect(page.getByRole('button', { name: 'Dismiss' })).toBeVisible();
  await expect(page.getByTestId('recording-mark')).toHaveCount(0);
  await dismiss(page);
  await page.goto(`/course/${course.id}/session/${course.session}`);
  await expect(page.getByText('This session was not recorded.')).toBeVisible();
});
