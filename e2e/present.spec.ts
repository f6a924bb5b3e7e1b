import { expect, test, type Page } from '@playwright/test';
import { violations } from './support/axe';
import { dismiss, makeCourse, ringIn, walkIn } from './support/course';

const presenting = (page: Page) => page.getByRole('button', { name: /^Present/ });
/** What is presented, as it comes: how wide and how high. */
const shape = (page: Page, name: RegExp) =>
  page
    .getByRole('figure')
    .filter({ hasText: name })
    .locator('video')
    .evaluate((v: HTMLVideoElement) => [v.videoWidth, v.videoHeight]);

test('paper under a second camera is presented, turned and come closer to; whoever teaches takes over', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ limits: { present: 'open' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  const ben = await walkIn(browser, course, 1);
  for (const view of [page, ana]) {
    await view.getByRole('button', { name: 'Devices' }).click();
    await view.getByRole('radio', { name: /^Paper under a camera/ }).check();
  }
  expect.soft(await violations(ana, '[aria-label="Your devices"]'), 'choosing').toEqual([]);
  await ana.keyboard.press('Escape');
  await presenting(ana).click();
  await expect(ben.getByText(`${course.students[0]!.name} presents`)).toBeVisible();
  await expect.poll(async () => (await shape(ben, /presents/))[0]).toBeGreaterThan(0);
  const [width, height] = await shape(ben, /presents/);
  expect(width).toBeGreaterThan(height!);

  // The teacher takes over, and turns what is seen while it is.
  await page.keyboard.press('Escape');
  await presenting(page).click();
  await expect(ben.getByText('Maren Oduya presents')).toBeVisible();
  await expect(presenting(ana)).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('button', { name: 'Devices' }).click();
  await page.getByRole('button', { name: 'Turn it' }).click();
  await expect
    .poll(
      async () => {
        const [w, h] = await shape(ben, /Maren Oduya presents/);
        return w! > 0 && w! < h!;
      },
      { timeout: 20_000 },
    )
    .toBe(true);
  await page.getByRole('button', { name: 'Closer' }).click();
  await expect(page.getByRole('button', { name: 'Further off' })).toBeEnabled();
  await page.keyboard.press('Escape');

  // Two side by side where the teacher says so; a third waits, and who began first goes on alone.
  const seen = async (name: string) => (await shape(ben, new RegExp(`${name} presents`)))[0];
  await page.getByRole('button', { name: 'Let a second present beside it' }).click();
  await presenting(ana).click();
  for (const name of ['Maren Oduya', course.students[0]!.name])
    await expect.poll(() => seen(name), { timeout: 20_000 }).toBeGreaterThan(0);
  expect.soft(await violations(ben), 'two presented').toEqual([]);
  await presenting(ben).click();
  await expect(ben.getByText(/present already|are presenting/)).toBeVisible();
  await expect(presenting(ben)).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('button', { name: 'One at a time again' }).click();
  await expect(ben.getByText(`${course.students[0]!.name} presents`)).toHaveCount(0);
  await expect(ben.getByText('Maren Oduya presents')).toBeVisible();
  await presenting(page).click();
  await expect(ben.getByText('Maren Oduya presents')).toHaveCount(0);
  await dismiss(page);
});
