import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { violations } from './support/axe';
import { account, byLink, dismiss, makeCourse, readyRecording, ringIn, walkIn } from './support/course';
import { MAREN } from './support/people';

/** Where a page's film is against another's, s: asked of both, each with its instant. */
async function apart(one: Page, other: Page): Promise<number> {
  const where = (page: Page) =>
    page.locator('video[aria-label="Spring tide.webm"]').evaluate((v: HTMLVideoElement) => ({
      at: v.currentTime,
      now: Date.now(),
      plays: !v.paused,
    }));
  const [a, b] = await Promise.all([where(one), where(other)]);
  if (a.plays !== b.plays) return Infinity;
  return Math.abs(a.at - b.at - (a.plays ? (a.now - b.now) / 1000 : 0));
}
const together = (one: Page, other: Page) =>
  expect.poll(() => apart(one, other), { timeout: 20_000 }).toBeLessThan(0.2);

test('a class watches a film at the same moment, whoever comes late too; an address for all; captions, kept', async ({
  page,
  browser,
}, { outputDir }) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 2, apart: true, record: true });
  const file = path.join(outputDir, 'Spring tide.webm');
  mkdirSync(outputDir, { recursive: true });
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=160x90:rate=10:duration=60'],
    ...['-f', 'lavfi', '-i', 'sine=frequency=440:duration=60', '-c:v', 'libvpx', '-c:a', 'libopus'],
    ...['-deadline', 'realtime', '-cpu-used', '8', '-shortest', '-y', file],
  ]);
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 } });
  const student = await byLink(course.students[0]!.link);
  const address = `/api/sessions/${course.session}/film`;
  expect((await student.get(address)).status()).toBe(404);

  await page.getByRole('button', { name: /^Film/ }).click();
  await page.locator('input[type=file][accept^="video"]').setInputFiles(file);
  await expect(ana.locator('video')).toBeVisible();
  await page.getByRole('button', { name: 'Play it' }).click();
  await together(page, ana);
  await page.getByRole('button', { name: 'Hold it' }).click();
  await together(page, ana);
  await page.getByRole('slider', { name: 'Where the film is' }).focus();
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Play it' }).click();
  await together(page, ana);
  const ben = await walkIn(browser, course, 1);
  await expect(ben.locator('video')).toBeVisible();
  await together(page, ben);

  for (const view of [page, ana]) expect.soft(await violations(view), 'a film').toEqual([]);

  // Its address is one person's, and good for as long as the film is shown.
  const { path: own } = await (await student.get(address)).json();
  const nobody = await account(MAREN);
  expect((await nobody.get(own, { headers: { range: 'bytes=0-99' } })).status()).toBe(206);
  expect((await nobody.get(own.replace(/ticket=[^.]+\.[^.]+/, 'ticket=x.y'))).status()).toBe(401);
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(ana.locator('video[aria-label]')).toHaveCount(0);
  expect((await student.get(own)).status()).toBe(403);

  await page.getByRole('button', { name: /^Film/ }).click();
  await page.getByRole('textbox', { name: 'Address' }).fill('tides.example/today');
  await page.getByRole('textbox', { name: 'What it is' }).fill('Today’s tides');
  await page.getByRole('button', { name: 'Give it to the class' }).click();
  await expect(ana.getByRole('link', { name: 'Today’s tides' })).toHaveAttribute(
    'href',
    'https://tides.example/today',
  );

  // Captions: by a student who was asked to, read by all, and with a press of one's own on their form.
  await page.getByRole('button', { name: /^Captions/ }).click();
  await page.getByRole('switch', { name: course.students[1]!.name }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  const desk = ben.getByLabel(/^Captions: write what is said/);
  await desk.fill('Good evening');
  await expect(ana.getByTestId('class-captions')).toHaveText('Good evening');
  await desk.press('Enter');
  await desk.fill('The tied turns.');
  await desk.press('Enter');
  await desk.press('ArrowUp');
  await ben.getByLabel('Mend this line').fill('The tide turns.');
  await ben.keyboard.press('Enter');
  await expect(ana.getByTestId('class-captions')).toHaveText('Good eveningThe tide turns.');
  await expect(ana.getByLabel(/write what is said/)).toHaveCount(0);
  for (const view of [page, ana, ben]) expect.soft(await violations(view), 'captions').toEqual([]);
  // And by a program, where a teacher lets it: everybody is told.
  await page.getByRole('button', { name: /^Captions/ }).click();
  await page.getByRole('switch', { name: 'A program, by listening' }).click();
  await page.keyboard.press('Escape');
  await expect(
    ana.getByText('A program writes down what is said, at tables too. It mishears.').first(),
  ).toBeVisible();
  await dismiss(page);
  // They are its recording's.
  const maren = await account(MAREN);
  const vtt = async () => {
    const { recordings } = await (await maren.get(`/api/sessions/${course.session}`)).json();
    if (recordings[0]?.state !== 'ready') return '';
    const { captions } = await (await maren.get(`/api/recordings/${recordings[0].id}`)).json();
    return captions.length ? (await maren.get(captions[0].path)).text() : '';
  };
  await expect.poll(vtt, { timeout: 30_000 }).toMatch(/^WEBVTT[\s\S]*Good evening[\s\S]*The tide turns\./);

  // Beside the recording the film is where the class was in it: it runs with it, and stands with it.
  const recording = await readyRecording(maren, course.session);
  await ana.goto(`${course.students[0]!.link}/watch/${recording}`);
  await ana
    .getByRole('button', { name: /Film: Spring tide/ })
    .first()
    .click();
  const then = ana.locator('video[aria-label="Spring tide.webm"]');
  const at = () => then.evaluate((v: HTMLVideoElement) => v.currentTime);
  await expect.poll(at, { timeout: 15_000 }).toBeGreaterThan(0.5);
  const once = await at();
  await expect.poll(at).toBeGreaterThan(once + 0.5);
  await ana.getByRole('button', { name: 'Stand still' }).first().click();
  await expect.poll(() => then.evaluate((v: HTMLVideoElement) => v.paused)).toBe(true);
});
