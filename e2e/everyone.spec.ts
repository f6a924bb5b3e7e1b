import { expect, test } from '@playwright/test';
import { makeCourse, ringIn, walkIn } from './support/course';
import { countPresses } from './support/interactions';
import { MAREN, PASSWORD, person, signIn } from './support/people';

test('without a line a student’s page stands, says so, and comes back by itself', async ({ browser }) => {
  const course = await makeCourse({ students: 1, apart: true });
  const [page, context] = await person(browser, {
    serviceWorkers: 'allow',
    viewport: { width: 390, height: 844 },
  });
  await page.goto(course.students[0]!.link);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Next session' })).toBeVisible();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  await page.reload();
  await expect(page.getByRole('region', { name: 'The term ahead' })).toBeVisible();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Next session' })).toBeVisible();
  await expect(page.getByText(/What you see was kept on this device/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/kept on this device/)).toHaveCount(0, { timeout: 30_000 });
  // Where it was put on a phone's first screen it opens at home.
  await page.goto('/start');
  await expect(page).toHaveURL(new RegExp(course.students[0]!.link));
});

test('a save without an answer is said at once, kept, and sent once when the line is back', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1, apart: true });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/limits`);
  await page.getByLabel('Present a screen: Open').check();
  let tries = 0;
  await page.route('**/limits', (route) => {
    tries++;
    return route.abort('internetdisconnected');
  });
  await page.getByRole('button', { name: 'Save the limits' }).click();
  await expect(page.getByText('The server does not answer. What you typed is still here.')).toBeVisible();
  await expect(page.getByText('1 change not saved yet.')).toBeVisible();
  expect(tries).toBeGreaterThan(1);
  await page.unroute('**/limits');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText(/not saved yet/)).toHaveCount(0);
  await expect(page.getByTestId('in-force')).toContainText('present');
});

test('a lost sign-in is asked where one is, and what was typed stays', async ({ page, context }) => {
  const course = await makeCourse({ students: 1, apart: true });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/plan`);
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByLabel('Name of the series').fill('Clinic by the pier');
  await context.clearCookies();
  await page.getByRole('button', { name: 'friday', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Sign in again' });
  await dialog.getByLabel('E-mail').fill(MAREN);
  await dialog.getByLabel('Password').first().fill(PASSWORD);
  await dialog.getByRole('button', { name: 'Sign in' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByLabel('Name of the series')).toHaveValue('Clinic by the pier');
  await page.goto(`/course/${course.id}/plan`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('in class: keys press what they name and nothing while one types; hands and words are said once', async ({
  page,
  browser,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 2, apart: true });
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0);
  const hush = page.locator('[data-act=hush]');
  await page.keyboard.press('w');
  await expect(page.getByRole('textbox', { name: 'Write' })).toBeFocused();
  await page.keyboard.type('Hush is a word.');
  await expect(hush).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('Enter');
  await page.locator('h1').click();
  const presses = await countPresses(page);
  await page.keyboard.press('h');
  await expect(hush).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('h');
  await expect(hush).toHaveAttribute('aria-pressed', 'false');
  const hushed = await presses();
  expect(hushed).toBeLessThanOrEqual(2);
  // The dismiss dialog begins on the safe side, and no key works behind it.
  await page.getByRole('button', { name: 'Dismiss', exact: true }).press('Enter');
  await expect(page.getByRole('button', { name: 'Go on teaching' })).toBeFocused();
  await page.keyboard.press('h');
  await expect(hush).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Dismiss', exact: true })).toBeFocused();
  // Another key, kept with the person; then the old one does nothing.
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'Another key for: Hush, and lift it again' }).press('Enter');
  await page.keyboard.press('j');
  await expect(page.getByRole('row', { name: /^Hush/ }).locator('kbd')).toHaveText('J');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('h');
  await expect(hush).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('j');
  await expect(hush).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('j');
  // Under hush no limit can be set: it is lifted first.
  await expect(hush).toHaveAttribute('aria-pressed', 'false');
  // Permission radios are one stop, arrows inside; Space sets.
  await page.getByRole('radio', { name: 'Speak: By hand' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: 'Speak: Open' })).toBeFocused();
  await expect(page.getByRole('radio', { name: 'Speak: By hand' })).toBeChecked();
  await page.keyboard.press('Space');
  await expect(page.getByRole('radio', { name: 'Speak: Open' })).toBeChecked();
  // Writing for one question: one key opens it for a while, and the same closes it; students read both.
  await page.getByRole('radio', { name: 'Write to the class: Closed' }).click();
  await expect(ana.getByTestId('talk-closed')).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('q');
  await expect(ana.getByText('Writing to the class is open for 60 seconds.')).toBeVisible();
  await expect(ana.getByRole('textbox', { name: 'Write' })).toBeVisible();
  await page.keyboard.press('q');
  await expect(ana.getByTestId('talk-closed')).toBeVisible();
  // Once everybody who is here has answered it closes by itself.
  await presses();
  await page.keyboard.press('q');
  await ana.getByRole('textbox', { name: 'Write' }).fill('At six.');
  await ana.keyboard.press('Enter');
  await expect(ana.getByTestId('talk-closed')).toBeVisible();
  await expect(page.getByText('At six.')).toBeVisible();
  const asked = await presses();
  expect(asked).toBeLessThanOrEqual(1);
  process.stdout.write(
    `Writing for one question, and closed again: ${asked} press (1). Hush and lift: ${hushed} keys (2).\n`,
  );
  await page.getByRole('radio', { name: 'Write to the class: Open' }).click();
  // Heard: a hand by key, and a word to those who teach; each once.
  await ana.locator('h1').click();
  await ana.keyboard.press('r');
  const aloud = page.getByTestId('aloud');
  await expect(aloud).toContainText('Ana Lanyon raised a hand.');
  await ana.getByRole('textbox', { name: 'Write' }).fill('Where do we begin?');
  await ana.keyboard.press('Enter');
  await expect(aloud).toContainText('Ana Lanyon: Where do we begin?');
  expect((await aloud.innerText()).match(/raised a hand/g)).toHaveLength(1);
  // As it was for whoever comes after this test.
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  // Once the dialog stands still.
  await page.waitForTimeout(400);
  await page.getByRole('button', { name: 'The usual key for: Hush, and lift it again' }).click();
  await expect(page.getByRole('row', { name: /^Hush/ }).locator('kbd')).toHaveText('H');
});

test('a session is moved by key with the day and time said, and opened by Enter', async ({ page }) => {
  const course = await makeCourse({ students: 1, apart: true });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/plan/week`);
  const block = page.getByRole('button', { name: /^Lecture, Tue 6 Oct 18:30/ });
  await block.focus();
  await page.keyboard.press('Space');
  const said = page.locator('[id^=DndLiveRegion]');
  const place = page.getByTestId('would-lie');
  await expect(said).toContainText('Lecture, Tue 6 Oct, 18:30, picked up. Left and right move it by a day');
  // What listens to arrows does so from the next turn on: nobody presses sooner.
  await page.waitForTimeout(100);
  await page.keyboard.press('ArrowRight');
  await expect(place).toHaveText('Wed 7 Oct, 18:30');
  await page.keyboard.press('ArrowDown');
  await expect(place).toHaveText('Wed 7 Oct, 18:45');
  await page.keyboard.press('Escape');
  await expect(said).toContainText('left where it was');
  await block.press('Enter');
  await expect(page.getByRole('dialog', { name: /^Lecture, Tue 6 Oct, 18:30/ })).toBeVisible();
});

test('days and hours are as one has chosen, on every page and in one’s letters', async ({ browser }) => {
  const course = await makeCourse({ students: 1, apart: true });
  const [page] = await person(browser);
  await page.goto(course.students[0]!.link);
  await expect(page.getByText(/Tue 6 Oct, 21:30/).first()).toBeVisible();
  await page.goto(`${course.students[0]!.link}/ways`);
  await page.getByRole('radio', { name: '6:30 pm' }).click();
  await page.getByRole('radio', { name: 'Oct 6' }).click();
  await expect(page.getByText(/^So it is now \d+:\d\d (am|pm) on \w+ Oct 6, 2026/)).toBeVisible();
  await page.goto(course.students[0]!.link);
  await expect(page.getByText(/Tue Oct 6, 9:30 pm/).first()).toBeVisible();
  await signIn(page, MAREN);
  const answer = await page.request.post(`/api/courses/${course.id}/invitations/preview`, {
    data: { member: course.students[0]!.id },
  });
  if (answer.ok()) expect(JSON.stringify(await answer.json())).toMatch(/9:30 pm/);
});
