import { randomUUID } from 'node:crypto';
import { expect, test, type Page } from '@playwright/test';
import {
  account,
  byLink,
  dismiss,
  makeCourse,
  ringIn,
  throughDoor,
  walkIn,
  type MadeCourse,
} from './support/course';
import { live } from './support/live';
import { MAREN, person, seat } from './support/people';

/** What a course says of its door, by its teacher. */
async function setDoor(course: MadeCourse, door: object) {
  const api = await account(MAREN);
  expect((await api.put(`/api/courses/${course.id}/door`, { data: door })).ok()).toBe(true);
  await api.dispose();
}

/** A student comes to the door and presses the one button there. */
async function comes(page: Page, course: MadeCourse, student: number) {
  await page.goto(`${course.students[student]!.link}/room/${course.session}`);
  await throughDoor(page);
}
const waits = (page: Page) => page.getByRole('heading', { name: 'You have knocked' });
const inside = (page: Page) => page.getByRole('group', { name: 'Your desk' });

test('who knocks is seen, told a word, let in or turned away, and hears nothing of the room before', async ({
  browser,
  page,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true });
  await setDoor(course, { classList: 'knocks' });
  await ringIn(page, course);
  const [ana] = await person(browser);
  const [ben] = await person(browser);
  await comes(ana, course, 0);
  await expect(waits(ana)).toBeVisible();
  await comes(ben, course, 1);
  await expect(waits(ben)).toBeVisible();
  const door = page.getByRole('region', { name: 'At the door: 2' });
  await expect(door).toContainText('Ana Lanyon');
  await expect(page.getByTestId('aloud')).toContainText(/knocked/);
  // A teacher who speaks is not interrupted: nothing of it takes focus.
  expect(
    await page.evaluate(() => document.activeElement?.closest('[aria-label^="At the door"]')),
  ).toBeNull();
  await door.getByRole('textbox', { name: 'A word to those who wait' }).fill('In a moment.');
  await page.keyboard.press('Enter');
  await expect(ana.getByText('In a moment.')).toBeVisible();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'false');
  await page.getByRole('button', { name: 'Let in Ana Lanyon' }).click();
  await expect(inside(ana)).toBeVisible();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'true');
  await page.getByRole('button', { name: 'Otherwise, Ben Garrow' }).click();
  await page.getByRole('menuitem', { name: 'Turn away', exact: true }).click();
  await expect(ben.getByRole('heading', { name: 'The door is shut' })).toBeVisible();
  await ben.reload();
  await throughDoor(ben);
  await expect(ben.getByText('A teacher does not let you into this session.')).toBeVisible();
  // Taken back.
  await page.getByRole('button', { name: 'Let Ben Garrow come back' }).click();
  await ben.reload();
  await throughDoor(ben);
  await expect(inside(ben)).toBeVisible();
  // Whoever was let in once is in again without knocking, and who goes away waits no more.
  await ana.reload();
  await throughDoor(ana);
  await expect(inside(ana)).toBeVisible();
  const [third, context] = await person(browser);
  await comes(third, course, 2);
  await expect(page.getByRole('region', { name: 'At the door: 1' })).toBeVisible();
  await context.close();
  await expect(page.getByRole('region', { name: /At the door/ })).toHaveCount(0, { timeout: 12_000 });
  // What is no longer asked of who waits: they come in by themselves.
  const [late] = await person(browser);
  await comes(late, course, 2);
  await expect(waits(late)).toBeVisible();
  await setDoor(course, { classList: 'straight' });
  await expect(inside(late)).toBeVisible();
  await dismiss(page);
});

test('a locked door and one who was put out: neither by the page nor by a reload, and the log says why', async ({
  browser,
  page,
}) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 2, apart: true });
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0);
  await page.getByRole('button', { name: 'Lock the door' }).click();
  await expect(ana.getByText('The door is locked: nobody else comes in.')).toBeVisible();
  const [ben] = await person(browser);
  await comes(ben, course, 1);
  await expect(ben.getByText('The door is locked. Nobody else comes in for now.')).toBeVisible();
  await page.getByRole('button', { name: 'Unlock the door' }).click();
  await seat(page, 'Ana Lanyon').click();
  await page.getByRole('menuitem', { name: 'Put out …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Put Ana Lanyon out of the room?' });
  await dialog.getByRole('radio', { name: 'Not in this session' }).check();
  await dialog.getByRole('textbox', { name: 'Why' }).fill('Another class is heard.');
  await dialog.getByRole('button', { name: 'Put them out' }).click();
  await expect(ana.getByText(/put you out of this session. Another class is heard./)).toBeVisible();
  await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'false');
  await ana.reload();
  await throughDoor(ana);
  await expect(ana.getByText(/does not let you into this session/)).toBeVisible();
  await dismiss(page);
  const teacher = await account(MAREN);
  const log = await (await teacher.get(`/api/sessions/${course.session}/log`)).text();
  expect(log).toContain('Maren Oduya put out Ana Lanyon');
  const student = await byLink(course.students[1]!.link);
  expect(await (await student.get(`/api/sessions/${course.session}`)).text()).not.toContain('Another class');
});

test('by a raw line: who waits commands, hears and sends nothing, and who was put out is not in again', async ({
  page,
}) => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 2, apart: true });
  await setDoor(course, { classList: 'knocks' });
  await ringIn(page, course);
  const link = course.students[0]!.link.replace('/in/', '');
  const line = live({ link });
  const heard: string[] = [];
  line.onAny((name: string) => heard.push(name));
  const ask = (name: string, body: object) => line.timeout(5000).emitWithAck(name, body);
  const enter = () => ask('enter', { session: course.session, after: 0 });
  const reply = await enter();
  expect(Object.keys(reply).sort()).toEqual(['now', 'ok', 'porch']);
  for (const [name, body] of [
    ['command', { id: randomUUID(), command: { type: 'raiseHand' } }],
    ['watch', {}],
    ['publish', { sdp: 'v=0' }],
    ['signal', { what: 'typing' }],
    ['earlier', { before: 5 }],
    ['documentOpen', { place: 'class', name: 'notes' }],
  ] as const)
    expect(await ask(name, body), name).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  await page.getByRole('textbox', { name: 'Write' }).fill('For those who are in.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('For those who are in.')).toBeVisible();
  expect(heard.filter((name) => name !== 'relay')).toEqual([]);
  // Knocking again and again is one knock, and is stopped.
  const many = await Promise.all(Array.from({ length: 150 }, enter));
  expect(many.filter((r) => r.refusal?.code === 'too-many').length).toBeGreaterThan(20);
  await expect(page.getByRole('region', { name: 'At the door: 1' })).toBeVisible();
  await page.getByRole('button', { name: 'Turn away Ana Lanyon' }).click();
  await expect.poll(() => heard).toContain('put-out');
  await page.waitForTimeout(3000);
  expect(await enter()).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  line.disconnect();
  await dismiss(page);
});
