import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import type { StoredEvent } from '@nimble-bell/core/api';
import { account, byLink, dismiss, makeCourse, ringIn, walkIn, readyRecording } from './support/course';
import { countPresses } from './support/interactions';
import { MAREN } from './support/people';
import { standIns } from './support/standIns';
import { plainPdf } from '../server/src/demo/plainPdf';

const IN_CLASS = 4;
const STAND_INS = 30;

const stage = (page: Page, tool: string) =>
  page.getByRole('radiogroup', { name: 'What the stage shows' }).getByText(tool, { exact: true }).click();
const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).first().click();
const draw = async (page: Page) => {
  const box = (await page.getByRole('img', { name: /^Board with/ }).boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 160, box.y + 110, { steps: 5 });
  await page.mouse.up();
};

/** A short film, as a file. */
function film(folder: string): string {
  const file = path.join(folder, 'Spring tide.webm');
  mkdirSync(folder, { recursive: true });
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=160x90:rate=10:duration=20', '-c:v', 'libvpx'],
    ...['-deadline', 'realtime', '-cpu-used', '8', '-y', file],
  ]);
  return file;
}

test('a whole lesson: a teacher, four students and thirty stand-ins use every tool, and the recording replays it', async ({
  page,
  browser,
}, { outputDir }) => {
  test.setTimeout(400_000);
  const limits = Object.fromEntries(
    ['speak', 'camera', 'draw', 'writeToClass', 'writeNotes', 'react'].map((c) => [c, 'open']),
  );
  const course = await makeCourse({ students: IN_CLASS + STAND_INS, apart: true, record: true, limits });
  const maren = await account(MAREN);
  const deck = new URLSearchParams({ name: 'Tides.pdf', session: course.session, for: 'teachers' });
  await maren.post(`/api/courses/${course.id}/materials?${deck}`, {
    data: plainPdf([{ title: 'Tides' }, { title: 'Slack water' }]),
    headers: { 'content-type': 'application/octet-stream' },
  });
  await ringIn(page, course, ['Microphone', 'Camera']);
  const desk = { width: 1280, height: 800 };
  const [ana, ben, cleo, dot] = (await Promise.all(
    [desk, desk, desk, { width: 390, height: 844 }].map((viewport, i) =>
      walkIn(browser, course, i, { viewport }),
    ),
  )) as [Page, Page, Page, Page];
  const leave = standIns(course, course.students.slice(IN_CLASS));
  try {
    const here = page.locator('[data-testid=seat][data-here=true]');
    await expect.poll(() => here.count(), { timeout: 30_000 }).toBeGreaterThan(STAND_INS);

    // Shown: pages, a presented screen, the board, boards of their own, a film, an address.
    await stage(page, 'Slides');
    await press(page, 'Show Tides.pdf');
    await expect(dot.locator('canvas[data-drawn="1"]')).toBeVisible({ timeout: 30_000 });
    await page.keyboard.press('PageDown');
    await expect(dot.locator('canvas[data-drawn="2"]')).toBeVisible();
    for (const view of [page, ana]) await stage(view, 'Board');
    await draw(page);
    await expect(ana.getByRole('img', { name: 'Board with 1 stroke' })).toBeVisible();
    await press(page, /^Present/);
    await expect(ben.getByText('Maren Oduya presents')).toBeVisible();
    await press(page, /^Presenting/);
    await stage(page, 'Board');
    await press(page, 'More');
    await press(page, 'A board for each');
    await expect(cleo.getByRole('button', { name: 'My own board' })).toBeVisible();
    await draw(cleo);
    await press(page, `Show the board of ${course.students[2]!.name} without the name`);
    await expect(dot.getByText('What one of you made')).toBeVisible();
    await press(page, /^Film/);
    await page.locator('input[type=file][accept^="video"]').setInputFiles(film(outputDir));
    await press(page, 'Play it');
    await expect(ana.locator('video[aria-label="Spring tide.webm"]')).toBeVisible();
    await press(page, 'Put it away');
    await press(page, /^Film/);
    await page.getByRole('textbox', { name: 'Address' }).fill('tides.example/today');
    await page.getByRole('textbox', { name: 'What it is' }).fill('Today’s tides');
    await press(page, 'Give it to the class');
    await expect(dot.getByRole('link', { name: 'Today’s tides' })).toBeVisible();

    // Seen: one of the faces large for all in one press, and nothing but the seats.
    await press(ana, /^Camera/);
    await stage(page, 'Faces');
    const presses = await countPresses(page);
    await press(page, `${course.students[0]!.name}, large for all`);
    expect(await presses()).toBe(1);
    await page.getByRole('button', { name: 'Seats', exact: true }).click();
    await page.getByRole('switch', { name: 'Nothing but the seats' }).click();
    await page.keyboard.press('Escape');
    await press(page, 'Put before everybody');
    await expect(dot.getByRole('region', { name: 'Stage' })).toHaveAttribute('data-shows', 'seats');

    // Asked: a question that nearly all answer, one of them by lot, a time.
    await presses();
    await press(page, /^Ask/);
    await press(page, 'Yes or no');
    expect(await presses()).toBeLessThanOrEqual(2);
    await dot.getByRole('button', { name: 'Yes', exact: true }).click();
    await expect(page.getByTestId('asked')).toContainText(/(2[5-9]|3\d) of \d+ have answered/, {
      timeout: 40_000,
    });
    await press(page, 'Show the class');
    await expect(ben.getByRole('list', { name: /^What was answered/ })).toBeVisible();
    await press(page, 'Put it away');
    await presses();
    await page.keyboard.press('o');
    await expect(dot.getByTestId('pick')).toContainText('asked');
    expect(await presses()).toBe(1);
    await page.keyboard.press('t');
    await press(page, '5 min');
    expect(await presses()).toBe(2);
    await expect(dot.getByTestId('time')).toBeVisible();

    // Said: talk, hands and the floor, signs, captions, notes, hush.
    await dot.getByLabel('Write', { exact: true }).fill('Is it the ebb?');
    await dot.keyboard.press('Enter');
    await expect(page.getByText('Is it the ebb?')).toBeVisible();
    await press(ana, 'Raise hand');
    await page.getByRole('button', { name: 'Give the floor' }).first().click();
    await press(ben, 'Give a sign');
    await press(ben, /^Lost/);
    await press(page, /^Captions/);
    await page.getByRole('switch', { name: 'I myself' }).click();
    await page.keyboard.press('Escape');
    await page.getByLabel(/^Captions: write what is said/).fill('The ebb runs west.');
    await page.keyboard.press('Enter');
    await expect(dot.getByTestId('class-captions')).toContainText('The ebb runs west.');
    await stage(page, 'Notes');
    await page.getByRole('textbox', { name: 'The class notes' }).click();
    await page.keyboard.type('Springs at full moon');
    const noted = async () => (await maren.get(`/api/sessions/${course.session}/notes`)).text();
    await expect.poll(noted).toContain('Springs at full moon');
    await page.getByRole('heading', { level: 1 }).click();
    await press(page, /^Hush/);
    await expect(ben.getByText(/hush/i).first()).toBeVisible();
    await press(page, 'Lift the hush');

    // Together: five tables at random, a word to all, everybody back.
    await press(page, /^Tables/);
    await press(page, 'To the tables');
    for (const view of [ana, dot]) await expect(view.getByTestId('tables')).toContainText(/Table \d/);
    await page.getByRole('textbox', { name: 'A word to all tables' }).fill('Two minutes');
    await page.keyboard.press('Enter');
    await expect(dot.getByTestId('tables')).toContainText('Two minutes');
    await presses();
    await press(page, 'Everybody back');
    expect(await presses()).toBe(1);
    await press(page, 'Back at once');
    await expect(dot.getByTestId('tables')).toHaveCount(0);
    await dismiss(page);
  } finally {
    leave();
  }

  // All of it is told beside the recording, to a student as well.
  const student = await byLink(course.students[0]!.link);
  const recording = await readyRecording(maren, course.session);
  const told = (await (await student.get(`/api/recordings/${recording}`)).json()).events as StoredEvent[];
  const types = new Set(told.map((e) => e.type));
  for (const type of [
    ...([
      'slidesShown',
      'slideTurned',
      'drawn',
      'presenting',
      'workShown',
      'filmShown',
      'cardOpened',
    ] as const),
    ...(['asked', 'answersShown', 'picked', 'timerStarted', 'said', 'handRaised', 'floorGiven'] as const),
    ...([
      'featured',
      'frontSet',
      'signGiven',
      'captioned',
      'hushed',
      'lifted',
      'tablesLaid',
      'tablesTold',
      'tablesCleared',
    ] as const),
  ])
    expect.soft([type, types.has(type)]).toEqual([type, true]);
  await page.goto(`/course/${course.id}/watch/${recording}`);
  const chapter = (name: RegExp) => page.getByRole('button', { name }).first().click();
  await chapter(/Page 2/);
  await expect(page.getByRole('group', { name: 'Tides.pdf, page 2 of 2' })).toBeVisible();
  await chapter(/What one of you made/);
  await expect(page.getByRole('img', { name: /^Board with 1 stroke/ })).toBeVisible();
  for (const name of [
    /Maren Oduya presents/,
    /Film: Spring tide/,
    /has the floor/,
    /At \d tables/,
    /Back from/,
  ])
    await expect.soft(page.getByRole('button', { name }).first()).toBeVisible();
  // What the class wrote together stands there as it was at each moment.
  const written = page.getByRole('region', { name: 'Class notes' });
  await chapter(/Page 2/);
  await expect(written).toContainText('Nothing is written yet.');
  await chapter(/At \d tables/);
  await expect(written).toContainText('Springs at full moon');
  await page.getByLabel('Search in this recording').fill('ebb');
  await expect(page.getByRole('button', { name: /Is it the ebb\?/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /The ebb runs west/ }).first()).toBeVisible();
});
