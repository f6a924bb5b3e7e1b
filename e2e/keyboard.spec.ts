import { expect, test } from '@playwright/test';
import { focused, tabTo, walkThrough } from './support/byKey';
import { makeCourse, ringIn, walkIn } from './support/course';
import { MAREN, person, seat, signIn } from './support/people';
import { openRoute } from './support/routes';

interface Opened {
  /** Within the course, unless it begins with a slash. */
  path: string;
  /** The name of what is pressed. */
  press: string | RegExp;
  /** What has focus then, as `focused` says it. */
  begins: RegExp;
  /** What is pressed to leave: a key, or a button by its name; none where it stays open. */
  leave?: 'Escape' | { button: string };
  /** What has focus after that, where it is not what was pressed. */
  ends?: RegExp;
  /** Every stop of what was opened is walked as well. */
  walked?: boolean;
}

const OPENED: Opened[] = [
  { path: '/courses', press: 'New course', begins: /^input: Code/, leave: 'Escape' },
  { path: '/courses', press: 'Show the address', begins: /^input: Address to subscribe to/ },
  { path: '/college', press: 'New term', begins: /^h1: A new term/ },
  { path: '/college', press: 'New bell times', begins: /^input: Name/, leave: { button: 'Back' } },
  {
    ...{ path: 'plan', press: 'Add a series', begins: /^h1: A new series/ },
    ...{ walked: true, leave: { button: 'Back' } },
  },
  { path: 'plan', press: 'Change', begins: /^h1: Change Lecture/, leave: { button: 'Back' } },
  { path: 'plan', press: 'Cancel a week', begins: /^span: Cancel a week/, leave: 'Escape' },
  { path: 'plan', press: 'Remove', begins: /^button: Keep/, leave: { button: 'Keep' } },
  { path: 'plan', press: 'Delete it', begins: /^button: Keep it/, leave: 'Escape' },
  { path: 'plan', press: /Choose another/, begins: /^(presentation|menu|menuitem)/, leave: 'Escape' },
  { path: 'plan', press: 'Maren Oduya', begins: /^(presentation|menu|menuitem)/, leave: 'Escape' },
  { path: 'plan/week', press: /^Lecture, Tue 6 Oct/, begins: /^span: Lecture, Tue 6 Oct/, leave: 'Escape' },
  { path: 'plan/week', press: 'Cancel this week', begins: /^span: Cancel a week/, leave: 'Escape' },
  { path: 'plan/calendars', press: 'Show the address', begins: /^input: Address to subscribe to/ },
  { path: 'class', press: 'Add a person', begins: /^input: Name/, leave: { button: 'Close' } },
  { path: 'class', press: 'Import a class list', begins: /^h2: Import/, leave: { button: 'Close' } },
  { path: 'invite/notices', press: 'Write a notice', begins: /^input: Title/, leave: { button: 'Leave it' } },
  { path: '/ways', press: /^Another key for: Hush/, begins: /^button: Press the key/, leave: 'Escape' },
  { path: 'in', press: 'Change', begins: /^input: /, leave: { button: 'Leave it' } },
  { path: 'in', press: 'Show the address', begins: /^input: Address to subscribe to/ },
];

test('what is opened by key is begun at its heading or its first field, and left to what opened it', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const course = await makeCourse({ students: 3, apart: true });
  await signIn(page, MAREN);
  const [student] = await person(browser);
  for (const { path, press, begins, leave, ends, walked } of OPENED) {
    const at = path === 'in' ? student : page;
    const own = path === 'in' ? course.students[0]!.link : `/course/${course.id}/${path}`;
    await openRoute(at, { path: path.startsWith('/') ? path : own, name: '', of: 'teacher' });
    const opener = at.getByRole('button', { name: press, exact: typeof press === 'string' }).first();
    await tabTo(at, opener);
    const opens = await focused(at);
    await at.keyboard.press('Enter');
    await expect.soft.poll(() => focused(at), `${path}: ${press}`).toMatch(begins);
    if (walked) expect.soft((await walkThrough(at)).faults, `${path}: ${press}, walked`).toEqual([]);
    if (!leave) continue;
    if (leave === 'Escape') await at.keyboard.press('Escape');
    else {
      const way = at.getByRole('main').getByRole('button', { name: leave.button, exact: true });
      await tabTo(at, way.first());
      await at.keyboard.press('Enter');
    }
    const back = expect.soft.poll(() => focused(at), `${path}: ${press}, left`);
    await (ends ? back.toMatch(ends) : back.toBe(opens));
  }
});

test('the dialogs and menus of the room, by key', async ({ page, browser }) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 1, apart: true });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  await page.keyboard.press('?');
  await expect.poll(() => focused(page)).toMatch(/^span: Keys of the room/);
  await page.keyboard.press('Escape');
  const dismiss = page.getByRole('button', { name: 'Dismiss', exact: true });
  await tabTo(page, dismiss);
  await page.keyboard.press('Enter');
  await expect.poll(() => focused(page)).toMatch(/^button: Go on teaching/);
  await page.keyboard.press('Escape');
  await expect(dismiss).toBeFocused();
  // A seat’s menu, and back to the seat.
  const seatOf = seat(page, 'Ana Lanyon');
  await tabTo(page, seatOf);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitem').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(seatOf).toBeFocused();
  // Words on the board without a pointer: written, placed, and there for all.
  for (const view of [page, ana]) {
    await tabTo(view, view.getByRole('radio', { name: 'Picture' }));
    for (const word of ['Faces', 'Slides', 'Board']) {
      await view.keyboard.press('ArrowRight');
      await expect(view.getByRole('radio', { name: word, exact: true })).toBeChecked();
    }
  }
  await tabTo(page, page.getByRole('textbox', { name: 'Words for the board' }));
  await page.keyboard.press('Tab');
  await expect(page.getByRole('combobox', { name: 'Where the words stand' })).toBeFocused();
  await page.keyboard.type('Bottom left');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.type('High water 14:10');
  await page.keyboard.press('Enter');
  // What is there is chosen, moved and taken off without one too.
  await tabTo(page, page.getByRole('button', { name: 'Move', exact: true }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('button', { name: 'Choose one' }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('group', { name: 'What is chosen moves by the arrows' }), 'Shift+Tab');
  for (let i = 0; i < 40; i++) await page.keyboard.press('ArrowRight');
  await expect(ana.getByRole('list', { name: 'What is on the board' })).toContainText(
    'Bottom middle, by Maren Oduya: High water 14:10',
  );
  await page.keyboard.press('Delete');
  await expect(ana.getByRole('img', { name: 'Board with 0 strokes' })).toBeVisible();
  const { faults } = await walkThrough(page);
  expect(faults).toEqual([]);
});
