import { expect, test } from '@playwright/test';
import { CAPABILITIES, type Capability } from '@nimble-bell/core/limits';
import { account, makeCourse, ringIn } from './support/course';
import { MAREN, person } from './support/people';
import { Tampered } from './support/tampered';

/** Those that govern media: for each of them a page of one's own making tries everything. */
const GOVERNING = (Object.keys(CAPABILITIES) as Capability[]).filter((c) => CAPABILITIES[c].media);

test('what the limits close is not relayed, whatever a tampered page sends, and however often', async ({
  browser,
  page,
}) => {
  test.setTimeout(120_000);
  const closed = Object.fromEntries(GOVERNING.map((c) => [c, 'closed']));
  const course = await makeCourse({ students: 3, apart: true, limits: closed });
  await ringIn(page, course);
  const api = await account(MAREN);
  const [tamperedPage] = await person(browser);
  const [listenerPage] = await person(browser);
  for (const p of [tamperedPage, listenerPage]) await p.goto('/listed');
  const tampered = new Tampered(tamperedPage, course.students[0]!.link, course.session);
  const listener = new Tampered(listenerPage, course.students[1]!.link, course.session);
  for (const t of [tampered, listener]) expect((await t.enter()).ok).toBe(true);
  await listener.listen();

  const nothing = async (when: string) => {
    const before = await tampered.sent();
    expect(await listener.arriving(), when).toBe(0);
    expect((await tampered.sent()) - before, `sent ${when}`).toBeGreaterThan(20);
  };
  // At once; repeatedly, six times together; and after a cut line.
  expect(await tampered.publish()).toBe(true);
  await expect.poll(() => tampered.sent(), { timeout: 10_000 }).toBeGreaterThan(20);
  await nothing('at once');
  await Promise.all(Array.from({ length: 6 }, () => tampered.publish()));
  await nothing('after six at once');
  await tampered.reconnect();
  expect(await tampered.publish()).toBe(true);
  await nothing('after coming back');

  // The positive control: opened, and switched on, everything arrives, on all three sections.
  const open = async (state: 'Open' | 'Closed') => {
    for (const c of GOVERNING)
      await page.getByRole('radio', { name: `${CAPABILITIES[c].label}: ${state}` }).click();
  };
  await open('Open');
  const on = async () => {
    expect((await tampered.command({ type: 'microphone', on: true })).ok).toBe(true);
    expect((await tampered.command({ type: 'camera', on: true })).ok).toBe(true);
    expect((await tampered.command({ type: 'present', on: true })).ok).toBe(true);
  };
  await on();
  await expect
    .poll(async () => Object.values(await listener.received()).filter((n) => n > 3).length, {
      timeout: 15_000,
    })
    .toBe(3);
  expect(await listener.arriving()).toBeGreaterThan(30);

  // Hushed: what was on is not relayed, and neither is what is published anew during the hush.
  await page.locator('body').press('h');
  await expect(page.getByRole('button', { name: /Lift the hush/ })).toBeVisible();
  await listenerPage.waitForTimeout(300);
  await nothing('while hushed');
  expect(await tampered.publish()).toBe(true);
  await nothing('published during the hush');
  await page.getByRole('button', { name: /Lift the hush/ }).click();
  await expect.poll(() => listener.arriving(600), { timeout: 15_000 }).toBeGreaterThan(10);

  // The others' cameras closed: of three sections two arrive still, and nothing is learnt by listening anew.
  const limits = async (seeCameras: string) =>
    expect(
      (
        await api.put(`/api/courses/${course.id}/limits`, { data: { limits: { ...closed, seeCameras } } })
      ).ok(),
    ).toBe(true);
  const sections = async () => {
    const before = await listener.received();
    await listenerPage.waitForTimeout(800);
    return Object.entries(await listener.received()).filter(([mid, n]) => n - (before[mid] ?? 0) > 3).length;
  };
  await limits('closed');
  await expect.poll(sections, { timeout: 15_000 }).toBe(2);
  await listener.listen();
  await expect.poll(sections, { timeout: 15_000 }).toBe(2);
  await limits('open');
  await expect.poll(sections, { timeout: 15_000 }).toBe(3);

  // Each capability closed by itself closes its own media and no other.
  await page.getByRole('radio', { name: 'Speak: Closed' }).click();
  await expect.poll(() => listener.arriving(600)).toBeGreaterThan(10);
  await open('Closed');
  await listenerPage.waitForTimeout(300);
  await nothing('closed one by one');

  // Off the class list: out of the room, and out of the relay, whatever connection is open still.
  await open('Open');
  await on();
  await expect.poll(() => listener.arriving(600), { timeout: 15_000 }).toBeGreaterThan(10);
  const publishing = Array.from({ length: 6 }, () => tampered.publish());
  await api.post(`/api/courses/${course.id}/members`, {
    data: { edit: 'drop', members: [course.students[0]!.id] },
  });
  await Promise.all(publishing);
  await listenerPage.waitForTimeout(300);
  expect(await listener.arriving(2000), 'after being put out').toBe(0);
  expect(await tampered.publish()).toBe(false);
  expect(await listener.arriving()).toBe(0);
  for (const t of [tampered, listener]) t.close();
});
