import { expect, test, type Page } from '@playwright/test';
import { violations } from './support/axe';
import { makeCourse, throughDoor } from './support/course';
import { MAREN, person, signIn } from './support/people';
import { settled, watchRequests } from './support/settled';

const STAGES = ['plan', 'class', 'invite', 'limits', 'recording', 'teach', 'review'];

async function openChange(page: Page) {
  await page.getByRole('button', { name: 'Show the sessions' }).first().click();
  await page
    .getByRole('button', { name: /^Change the session of/ })
    .last()
    .click();
  await page.getByRole('dialog').getByText('This and later ones').click();
}

test('axe finds nothing serious on any page outside the room, in both themes', async ({ browser, page }) => {
  test.setTimeout(240_000);
  watchRequests(page);
  const check = async (view: Page, name: string) => expect.soft(await violations(view), name).toEqual([]);
  await page.goto('/');
  await expect(page.getByRole('button', { name: /Enter as Maren/ })).toBeVisible();
  await check(page, 'entrance');
  await page.goto('/mailbox');
  await page
    .getByRole('button', { name: /your way in/ })
    .first()
    .click();
  await page
    .getByText(/^REQUEST /)
    .first()
    .click();
  await check(page, 'mailbox');
  await signIn(page, MAREN);
  await check(page, 'courses');
  await page.getByText('Coastal Navigation').click();
  await page.waitForURL(/plan/);
  const course = page.url().replace(/\/plan.*/, '');
  for (const scheme of ['light', 'dark'] as const) {
    await page.evaluate((s) => localStorage.setItem('mantine-color-scheme-value', s), scheme);
    for (const stage of STAGES) {
      await page.goto(`${course}/${stage}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await settled(page);
      await check(page, `${stage}, ${scheme}`);
    }
  }
  for (const part of ['week', 'zones', 'groups', 'calendars', 'reuse', 'history']) {
    await page.goto(`${course}/plan/${part}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await settled(page);
    await check(page, `plan, ${part}, dark`);
  }
  for (const part of ['reminders', 'notices', 'files', 'letters']) {
    await page.goto(`${course}/invite/${part}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await settled(page);
    await check(page, `invite, ${part}, dark`);
  }
  await page.goto(`${course}/invite/notices`);
  await page.getByRole('button', { name: 'Write a notice' }).click();
  await expect(page.getByRole('textbox', { name: 'Text of the notice' })).toBeVisible();
  await check(page, 'notice editor, dark');
  await page.goto(`${course}/class`);
  await page.getByRole('grid', { name: 'Class list' }).press('ArrowDown');
  await page.keyboard.press(' ');
  await expect(page.getByRole('region', { name: 'With those chosen' })).toBeVisible();
  await check(page, 'class, one chosen, dark');
  await page.getByRole('button', { name: 'Import a class list' }).click();
  await page
    .getByLabel('The list')
    .fill('Name,E-mail,Level\nNo Body,nobody,B2\nRhona Tides,rhona@saltmarsh.example,B1');
  await expect(page.getByTestId('roster-counts')).toBeVisible();
  await check(page, 'import, dark');
  await page.goto('/listed');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await check(page, 'listed, dark');
  await page.goto('/college');
  await expect(page.getByRole('grid', { name: 'The term' })).toBeVisible();
  await check(page, 'term and bell times, dark');
  await page.goto(`${course}/plan`);
  await openChange(page);
  await check(page, 'a change of a session, dark');
  await page.goto(`${course}/plan`);
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByRole('button', { name: 'tuesday', exact: true }).click();
  await check(page, 'series editor, dark');
  await page.goto(`${course}/review`);
  await page.getByRole('table').getByRole('link').nth(1).click();
  await expect(page.getByTestId('roll')).toBeVisible();
  await check(page, 'session, dark');

  const [student] = await person(browser, { viewport: { width: 390, height: 844 } });
  const { links } = await (await student.request.get('/api/demo')).json();
  await student.goto(links[0].path);
  await expect(student.getByRole('heading', { level: 1 })).toBeVisible();
  await check(student, 'student');
  await student.getByRole('link', { name: 'Watch' }).first().click();
  await expect(student.getByRole('button', { name: 'Play' })).toBeVisible();
  await check(student, 'watch');
});

/** What a person can work with on a page, in words. */
const controls = (page: Page) =>
  page.evaluate(() => {
    const selector =
      'button:not([disabled]), a[href], input:not([disabled]), textarea:not([disabled]), [tabindex="0"]';
    const name = (e: Element) =>
      `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent?.slice(0, 30) ?? ''}`;
    const shown = (e: HTMLElement) =>
      e.checkVisibility() && !e.closest('[aria-hidden=true]') && e.tabIndex >= 0;
    const all = [...document.querySelectorAll<HTMLElement>(selector)].filter(shown);
    // Of a group of radios the checked one is reached, and the arrow keys reach the others.
    return all.filter((e) => !(e instanceof HTMLInputElement && e.type === 'radio' && !e.checked)).map(name);
  });

async function reachedByTab(page: Page, most: number): Promise<Set<string>> {
  const reached = new Set<string>();
  await page.locator('body').click({ position: { x: 2, y: 2 } });
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab');
    const name = await page.evaluate(() => {
      const e = document.activeElement;
      return e && e !== document.body
        ? `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent?.slice(0, 30) ?? ''}`
        : '';
    });
    if (name) reached.add(name);
  }
  return reached;
}

test('in the room axe finds nothing serious and the keyboard reaches every control', async ({
  browser,
  page,
}) => {
  test.setTimeout(240_000);
  const course = await makeCourse({ students: 12, record: true, limits: { writeToClass: 'open' } });
  await signIn(page, MAREN);
  await page.goto(`/room/${course.session}`);
  expect.soft(await violations(page), 'doorway').toEqual([]);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Ring in' })).toBeVisible();
  expect.soft(await violations(page), 'before ring-in').toEqual([]);
  await page.getByRole('button', { name: 'Ring in' }).press('Enter');
  const [ana] = await person(browser, { viewport: { width: 390, height: 844 } });
  await ana.goto(`${course.students[0]!.link}/room/${course.session}`);
  await throughDoor(ana, 'Enter');
  await ana.getByRole('button', { name: 'Raise hand' }).press('Enter');
  await page.getByLabel('Write', { exact: true }).fill('Good evening.');
  await page.keyboard.press('Enter');
  await expect(ana.getByText('Good evening.')).toBeVisible();
  await page.waitForTimeout(500);
  for (const view of [page, ana]) {
    expect.soft(await violations(view)).toEqual([]);
    const all = await controls(view);
    expect(all.length).toBeGreaterThan(8);
    const reached = await reachedByTab(view, all.length + 12);
    expect.soft(all.filter((c) => !reached.has(c))).toEqual([]);
  }
  // A sign by keyboard alone; the notes.
  await ana.locator('body').press('g');
  await expect(ana.getByRole('button', { name: 'Lost' })).toBeVisible();
  expect.soft(await violations(ana), 'signs').toEqual([]);
  await ana.getByRole('button', { name: 'Lost' }).press('Enter');
  await expect(page.getByRole('list', { name: 'Signs' })).toContainText('Lost');
  for (const view of [page, ana]) {
    await view.getByRole('radio', { name: 'Notes' }).press(' ');
    await expect(view.getByRole('textbox', { name: 'The class notes' })).toBeVisible();
    expect.soft(await violations(view), 'notes').toEqual([]);
    await view.getByRole('radio', { name: 'Picture' }).press(' ');
  }
  // A lesson by keyboard alone: a seat's menu, the floor, hush.
  await page.getByRole('button', { name: /^Ana Lanyon/ }).press('Enter');
  await expect(page.getByRole('menuitem', { name: 'Give the floor' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(ana.getByText('You have the floor.').first()).toBeVisible();
  await page.locator('body').press('h');
  await expect(ana.getByTestId('notice')).toContainText('hushed');
  await page.locator('body').press('h');
  await page.evaluate(() => localStorage.setItem('mantine-color-scheme-value', 'dark'));
  await page.reload();
  await throughDoor(page, 'Enter');
  await expect(page.getByRole('button', { name: /^Hush/ })).toBeVisible();
  await page.waitForTimeout(500);
  expect.soft(await violations(page), 'dark').toEqual([]);
  await page.getByRole('button', { name: 'Dismiss' }).press('Enter');
  await page.getByRole('button', { name: 'Dismiss for everyone' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'The class is dismissed' })).toBeVisible();
});
