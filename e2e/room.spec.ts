import { expect, test, type Page } from '@playwright/test';
import { dismiss, makeCourse, ringIn, walkIn } from './support/course';
import { seat } from './support/people';

const write = async (page: Page, text: string) => {
  await page.getByLabel('Write', { exact: true }).fill(text);
  await page.keyboard.press('Enter');
};

/** Draws a line across the board. */
async function draw(page: Page) {
  const box = (await page.getByRole('img', { name: /^Board/ }).boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 60);
  await page.mouse.down();
  for (let i = 1; i <= 10; i++) await page.mouse.move(box.x + 60 + i * 12, box.y + 60 + i * 8);
  await page.mouse.up();
}

test('the board is drawn on by those who may, seen by all, and cleared', async ({ browser, page }) => {
  const course = await makeCourse({ limits: { draw: 'closed' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  for (const view of [page, ana]) await view.getByText('Board', { exact: true }).click();
  await draw(page);
  await expect(ana.getByRole('img', { name: 'Board with 1 stroke' })).toBeVisible();
  await expect(ana.getByText('Drawing is closed for this course by Maren Oduya.').first()).toBeVisible();
  await draw(ana);
  await expect(page.getByRole('img', { name: 'Board with 1 stroke' })).toBeVisible();
  await page.getByRole('radio', { name: 'Draw on the board: Open' }).click();
  await expect(ana.getByRole('button', { name: 'Pen: brass' })).toBeVisible();
  await ana.getByRole('button', { name: 'Pen: brass' }).click();
  await draw(ana);
  await expect(page.getByRole('img', { name: 'Board with 2 strokes' })).toBeVisible();
  await page.getByRole('button', { name: 'Clear the board' }).click();
  await expect(ana.getByRole('img', { name: 'Board with 0 strokes' })).toBeVisible();
  await dismiss(page);
});

test('talk goes to the class, to the teachers, and to one, and nowhere else', async ({ browser, page }) => {
  const course = await makeCourse({ limits: { writeToClass: 'open', writeToStudents: 'closed' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  const ben = await walkIn(browser, course, 1);
  await write(ana, 'To everyone.');
  await expect(ben.getByText('To everyone.', { exact: true })).toBeVisible();
  const choose = async (view: Page, to: RegExp | string) => {
    await view.getByRole('combobox', { name: 'To whom' }).click();
    await view.getByRole('option', { name: to }).click();
  };
  await choose(ana, 'Your teachers');
  await write(ana, 'To the teachers alone.');
  await expect(page.getByText('To the teachers alone.', { exact: true })).toBeVisible();
  // Whom one may not write to is not offered; whom one had chosen stays, and it says why it is closed.
  const oneAnother = (state: string) =>
    page.getByRole('radio', { name: `Write to one another: ${state}` }).click();
  await ana.getByRole('combobox', { name: 'To whom' }).click();
  await expect(ana.getByRole('option')).toHaveText(['The class', 'Your teachers']);
  await ana.keyboard.press('Escape');
  await oneAnother('Open');
  await choose(ana, /Ben Garrow/);
  await oneAnother('Closed');
  await expect(ana.getByTestId('talk-closed')).toContainText('Writing to one another is closed');
  await oneAnother('Open');
  await write(ana, 'To Ben.');
  await expect(ben.getByText('To Ben.', { exact: true })).toBeVisible();
  await choose(page, /Ben Garrow/);
  await write(page, 'Well done, Ben.');
  await expect(ben.getByText('Well done, Ben.', { exact: true })).toBeVisible();
  await expect(ana.getByText('Well done, Ben.', { exact: true })).toHaveCount(0);
  await expect(ben.getByText('To the teachers alone.', { exact: true })).toHaveCount(0);
  await dismiss(page);
});

test('what is written is shown as written, however it looks', async ({ browser, page }) => {
  const course = await makeCourse({ limits: { writeToClass: 'open' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  const nasty = '<img src=x onerror="document.title=\'broken\'"> ' + 'long'.repeat(60);
  await write(page, nasty);
  await expect(ana.getByRole('log').getByText(nasty)).toBeVisible();
  expect(await ana.title()).not.toBe('broken');
  const box = (await ana.getByRole('log').getByText(nasty).boundingBox())!;
  expect(box.x + box.width).toBeLessThanOrEqual(1280);
  await dismiss(page);
});

test('who leaves gives up hand and floor, and finds the room as it is on coming back', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ limits: { speak: 'byHand' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  await ana.getByRole('button', { name: 'Raise hand' }).click();
  await page.getByRole('button', { name: 'Give the floor' }).click();
  await expect(page.getByText('Ana Lanyon has the floor').first()).toBeVisible();
  await ana.getByRole('button', { name: 'Leave' }).click();
  await expect(ana.getByRole('heading', { name: /Made for a test/ })).toBeVisible();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'false');
  await expect(page.getByRole('button', { name: 'Take it back' })).toHaveCount(0);
  await page.getByRole('radio', { name: 'Show themselves: Closed' }).click();
  await ana.getByRole('link', { name: 'Enter the class' }).click();
  await expect(ana.getByRole('button', { name: 'Camera: closed' })).toBeVisible();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'true');
  await dismiss(page);
});

test('the same person in two pages is one, and stays while one of them is open', async ({
  browser,
  page,
}) => {
  const course = await makeCourse();
  await ringIn(page, course);
  const first = await walkIn(browser, course);
  const second = await walkIn(browser, course);
  await expect(page.getByRole('region', { name: 'Seats: 2 of 4 are here' })).toBeVisible();
  await first.close();
  await page.waitForTimeout(5000);
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'true');
  await second.close();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'false', { timeout: 15_000 });
  await dismiss(page);
});

test("on a phone the student's room fits the width, and everything in it can be pressed", async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ students: 30, limits: { writeToClass: 'open' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 }, hasTouch: true });
  const overflow = await ana.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(overflow).toBeLessThanOrEqual(0);
  const small = await ana
    .locator('button:visible')
    .evaluateAll((buttons) =>
      buttons
        .filter((b) => b.getBoundingClientRect().height < 24 || b.getBoundingClientRect().width < 24)
        .map((b) => b.textContent),
    );
  expect(small).toEqual([]);
  await ana.getByRole('button', { name: 'Raise hand' }).tap();
  await expect(page.getByText('Hands (1)')).toBeVisible();
  await dismiss(page);
});
