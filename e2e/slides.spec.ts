import { expect, test } from '@playwright/test';
import type { MaterialInfo } from '@nimble-bell/core/api';
import { account, byLink, dismiss, makeCourse, ringIn, walkIn, readyRecording } from './support/course';
import { countPresses } from './support/interactions';
import { MAREN } from './support/people';
import { plainPdf } from '../server/src/demo/plainPdf';

const PAGES = [
  { title: 'Tides' },
  { title: 'Slack water', lines: ['The stream turns'] },
  { title: 'When does it turn?', lines: ['A) At high water', 'B) Later'] },
  { title: 'Xylophone' },
];

test('a class looks at pages together: each has what was shown and no more, marked, asked about, found and replayed', async ({
  page,
  browser,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 2, record: true, apart: true, limits: { draw: 'open' } });
  const maren = await account(MAREN);
  const files = `/api/courses/${course.id}/materials`;
  const sent = (name: string, data: Buffer) =>
    maren.post(`${files}?${new URLSearchParams({ name, session: course.session, for: 'teachers' })}`, {
      ...{ data, headers: { 'content-type': 'application/octet-stream' } },
    });
  expect((await sent('Tides.pdf', plainPdf(PAGES))).status()).toBe(201);
  const broken = await (await sent('Broken.pdf', Buffer.from('%PDF-1.4 nothing'))).json();
  const decks = `/api/sessions/${course.session}/decks`;
  expect((await (await maren.post(`${decks}/${broken.id}`, { data: {} })).json()).why).toContain(
    'cannot be read',
  );

  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 } });
  await page.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Slides').click();
  await page.getByRole('button', { name: 'Show Tides.pdf' }).click();
  const drawn = (at: typeof page, number: number) =>
    expect(at.locator(`canvas[data-drawn="${number}"]`)).toBeVisible({ timeout: 20_000 });
  await drawn(page, 1);
  // The student is taken along, and has that page alone.
  await drawn(ana, 1);
  const [{ deck }] = (await (await maren.get(decks)).json()).filter((d: { deck: unknown }) => d.deck);
  expect(deck).toMatchObject({ name: 'Tides.pdf', pages: 4 });
  const student = await byLink(course.students[0]!.link);
  const absent = await byLink(course.students[1]!.link);
  const had = async (api: typeof student, number: number) =>
    (await api.get(`/api/sessions/${course.session}/slides/${deck.id}/${number}`)).status();
  expect([await had(student, 1), await had(student, 2), await had(absent, 1)]).toEqual([200, 403, 403]);
  // Nor the file that the pages are of, by any list or by its address, until it is given.
  const whole = async () => (await (await student.get(files)).json()) as MaterialInfo[];
  expect(await whole()).toEqual([]);
  const [tides] = ((await (await maren.get(files)).json()) as MaterialInfo[]).filter(
    (m) => m.name === 'Tides.pdf',
  );
  const give = async (forTeachers: boolean) =>
    expect((await maren.put(`/api/materials/${tides!.id}`, { data: { forTeachers } })).ok()).toBe(true);
  await give(false);
  const [theirs] = await whole();
  expect((await student.get(theirs!.url)).status()).toBe(200);
  await give(true);
  expect((await student.get(theirs!.url)).status()).toBe(403);

  // By a hand-held turner, and pressed faster than it turns.
  await page.keyboard.press('PageDown');
  await page.keyboard.press('.');
  await drawn(ana, 3);
  expect([await had(student, 3), await had(student, 4)]).toEqual([200, 403]);
  const presses = await countPresses(page);
  await page.getByRole('button', { name: 'Ask this' }).click();
  expect(await presses()).toBe(1);
  await ana.getByRole('button', { name: 'B Later' }).click();
  await expect(page.getByTestId('asked')).toContainText('1 of 1 have answered');
  await page.getByRole('button', { name: 'Put it away' }).click();

  await ana.getByRole('button', { name: 'Pen: tide' }).click();
  const box = (await ana.getByTestId('page').boundingBox())!;
  await ana.mouse.move(box.x + 60, box.y + 90);
  await ana.mouse.down();
  await ana.mouse.move(box.x + 160, box.y + 120, { steps: 6 });
  await ana.mouse.up();
  await expect(page.locator('path[data-pen="tide"]')).toHaveCount(1);

  // Back through what was shown, and with the class again when that goes on.
  await page.getByLabel('How students leaf').selectOption({ label: 'Students leaf back' });
  await ana.getByRole('button', { name: 'Page before' }).click();
  await drawn(ana, 2);
  await expect(ana.getByRole('button', { name: 'To page 3, with the class' })).toBeVisible();
  await page.getByRole('button', { name: 'Note …' }).click();
  await page.getByLabel('Your note to page 3').fill('Ask Ben');
  await page.getByRole('button', { name: 'Wipe' }).click();
  await expect(ana.locator('path[data-pen="tide"]')).toHaveCount(0);
  await page.keyboard.press(',');
  await drawn(ana, 2);
  const notes = async () => (await (await maren.get(`${decks}/${deck.id}/text`)).json()).notes;
  await expect.poll(notes).toEqual({ 3: 'Ask Ben' });
  await page.getByRole('button', { name: 'Larger' }).click();
  await expect(page.getByRole('button', { name: 'Smaller' })).toBeEnabled();
  await dismiss(page);
  // Who is not in class any more has nothing of it here; in its recording they have what was shown.
  expect(await had(student, 1)).toBe(403);

  const recording = await readyRecording(maren, course.session);
  const seen = await (await student.get(`/api/recordings/${recording}`)).json();
  const replayed = async (number: number) =>
    (await student.get(`${seen.pages.path}/${deck.id}/${number}${seen.pages.query}`)).status();
  expect([await replayed(2), await replayed(4)]).toEqual([200, 404]);
  await page.goto(`/course/${course.id}/watch/${recording}`);
  await page.getByLabel('Search in this recording').fill('slack');
  await page.getByRole('button', { name: /on a page Slack water/ }).click();
  await expect(page.getByRole('group', { name: /^Tides\.pdf, page \d of 4$/ })).toBeVisible();
  await expect(page.locator('canvas[data-drawn]')).toBeVisible();
  await page.getByLabel('Search in this recording').fill('xylophone');
  await expect(page.getByText('Nothing of these words.')).toBeVisible();
});
