import { expect, test } from '@playwright/test';
import { account, makeCourse, dismiss, ringIn, walkIn } from './support/course';
import { golden, goldenTree, listenTo } from './support/golden';
import { MAREN, person, signIn } from './support/people';
import { openRoute } from './support/routes';

// An hour at which no other test's class meets, so that nothing clashes with it.
const APART = { day: 'sunday', start: '07:20', minutes: 80 };

// Gone before it is tried again: two at one hour would clash.
let apart: string | undefined;
test.afterEach(async () => {
  if (apart) expect((await (await account(MAREN)).delete(`/api/courses/${apart}`)).ok()).toBe(true);
  apart = undefined;
});

test('main pages, as a screen reader has them', async ({ page, browser }) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 3, apart: true, meets: APART });
  apart = course.id;
  await signIn(page, MAREN);
  for (const part of ['plan', 'class', 'invite', 'limits', 'recording']) {
    await openRoute(page, { path: `/course/${course.id}/${part}`, name: '', of: 'teacher' });
    await goldenTree(part, page.getByRole('main'));
  }
  const [student] = await person(browser);
  await openRoute(student, { path: course.students[0]!.link, name: '', of: 'student' });
  await goldenTree('student', student.getByRole('main'));
});

test('a class, as it is heard by a teacher and by a student', async ({ page, browser }) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 2, apart: true });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  for (const view of [page, ana])
    await expect(view.getByTestId('notice')).toHaveText('', { timeout: 15_000 });
  await goldenTree('room', page.locator('body'));
  await goldenTree('room-student', ana.locator('body'));
  const teacherHeard = await listenTo(page);
  const studentHeard = await listenTo(ana);
  /** One thing after the other: each is waited for until it has been said. */
  const then = async (act: () => Promise<unknown>, heard: () => Promise<string[]>, words: RegExp) => {
    await act();
    await expect.poll(async () => (await heard()).some((w) => words.test(w))).toBe(true);
  };
  const write = async (text: string) => {
    await page.getByRole('textbox', { name: 'Write' }).fill(text);
    await page.keyboard.press('Enter');
  };
  await then(() => ana.keyboard.press('r'), teacherHeard, /raised a hand/);
  await then(
    () =>
      page
        .getByRole('button', { name: /Give .*floor|floor/i })
        .first()
        .click(),
    studentHeard,
    /floor/i,
  );
  await then(() => write('Which tide is it?'), studentHeard, /Which tide/);
  await then(
    () => page.getByRole('radio', { name: 'Write to the class: Closed' }).click(),
    studentHeard,
    /closed/i,
  );
  await then(() => page.locator('[data-act=hush]').click(), studentHeard, /hush/i);
  await then(() => page.locator('[data-act=hush]').click(), studentHeard, /lift|over|again/i);
  await then(async () => {}, teacherHeard, /lifted/);
  golden('heard-by-the-teacher.txt', (await teacherHeard()).join('\n'));
  golden('heard-by-a-student.txt', (await studentHeard()).join('\n'));
  await dismiss(page);
});
