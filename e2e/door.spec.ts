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
import { INES, MAREN, person, seat } from './support/people';

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
  const ask = (name: string, body: object) => line.timeout(15_000).emitWithAck(name, body);
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
  const began = performance.now();
  const many = await Promise.all(Array.from({ length: 400 }, enter));
  // 20 at once, and 4 a second: how many that is hangs on how fast they come.
  const allowed = 20 + 4 * Math.ceil((performance.now() - began) / 1000);
  const taken = many.filter((r) => r.refusal?.code !== 'too-many').length;
  expect(allowed).toBeLessThan(many.length);
  expect(taken).toBeLessThanOrEqual(allowed);
  await expect(page.getByRole('region', { name: 'At the door: 1' })).toBeVisible();
  await page.getByRole('button', { name: 'Otherwise, Ana Lanyon' }).click();
  await page.getByRole('menuitem', { name: 'Turn away with a word …' }).click();
  await page.getByRole('textbox', { name: 'A word to them' }).fill('On Thursday.');
  await page.getByRole('button', { name: 'Turn away', exact: true }).click();
  await expect.poll(() => heard).toContain('put-out');
  await page.waitForTimeout(3000);
  expect(await enter()).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  line.disconnect();
  await dismiss(page);
});

test('the door of one session: a visitor who may be somebody of the list, several at once, always, a name put right, by account, undone', async ({
  browser,
  page,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 3, apart: true });
  const api = await account(MAREN);
  const path = `/api/courses/${course.id}`;
  const door = { classList: 'knocks', visitors: 'knocks', accounts: 'not', arrivalsFor: 'everyone' };
  const at = { layer: 'session', ids: [course.session] };
  expect((await api.put(`${path}/rules`, { data: { at, door } })).ok()).toBe(true);
  expect((await api.put(`${path}/rules`, { data: { at, door: { late: 'never' } } })).status()).toBe(422);
  const link = await (await api.put(`${path}/class-link`, { data: { do: 'show' } })).json();
  await ringIn(page, course);
  const [visitor] = await person(browser);
  const came = await visitor.request.post(`/api${link.path}`, {
    data: { name: 'Anna Lanion', passcode: link.passcode },
  });
  await visitor.goto(`${(await came.json()).path}/room/${course.session}`);
  await throughDoor(visitor);
  await expect(waits(visitor)).toBeVisible();
  // In the meantime one tries camera and microphone, and may choose to come in seen.
  await visitor.getByRole('button', { name: 'Try camera and microphone' }).click();
  await visitor.getByRole('switch', { name: /^Come in with the camera on/ }).check();
  const others: Page[] = [];
  for (const n of [1, 2]) {
    const [other] = await person(browser);
    await comes(other, course, n);
    others.push(other);
  }
  const list = page.getByRole('region', { name: 'At the door: 3' });
  await expect(list).toContainText('Anna Lanion, visitor');
  await expect(list).toContainText('On the class list, and not here: Ana Lanyon');
  for (const name of ['Ben Garrow', course.students[2]!.name])
    await list.getByRole('checkbox', { name: `Choose ${name}` }).check();
  await list.getByRole('button', { name: 'Let in the 2 chosen' }).click();
  for (const other of others) await expect(inside(other)).toBeVisible();
  await page.getByRole('button', { name: 'Otherwise, Anna Lanion' }).click();
  await page.getByRole('menuitem', { name: 'Let in, and always' }).click();
  await expect(inside(visitor)).toBeVisible();
  await expect(visitor.getByRole('button', { name: 'Camera: on' })).toBeVisible();
  await expect(page.getByTestId('comings')).toContainText('Anna Lanion came in.');
  await expect(others[0]!.getByTestId('comings')).toContainText('Anna Lanion came in.');

  // A teacher puts a name right, for all and for good; nobody takes a teacher's.
  await seat(page, 'Anna Lanion').click();
  await page.getByRole('menuitem', { name: 'Correct the name …' }).click();
  const asked = page.getByRole('dialog', { name: 'What Anna Lanion is called' });
  await asked.getByRole('textbox', { name: 'Name' }).fill('maren ODUYA');
  await asked.getByRole('button', { name: 'Keep the name' }).click();
  await expect(
    page.getByText('Somebody who teaches here is called that. Choose another name.'),
  ).toBeVisible();
  await asked.getByRole('textbox', { name: 'Name' }).fill('Ana Lanyon, at her mother’s');
  await asked.getByRole('button', { name: 'Keep the name' }).click();
  await expect(seat(others[0]!, 'Ana Lanyon, at her mother’s')).toHaveAttribute('data-here', 'true');
  await visitor.reload();
  await throughDoor(visitor);
  await expect(seat(page, 'Ana Lanyon, at her mother’s')).toHaveAttribute('data-here', 'true');

  // Another's account comes by the class link without a passcode, as the door's rules say of accounts.
  const ines = await account(INES);
  const way = await (await ines.post(`/api${link.path}`, { data: {} })).json();
  expect(way.path).toBe(`/room/${course.session}`);
  const line = live({
    cookie: (await ines.storageState()).cookies.map((c) => `${c.name}=${c.value}`).join('; '),
  });
  const enter = () => line.timeout(5000).emitWithAck('enter', { session: course.session, after: 0 });
  expect(await enter()).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
  const { latest, always } = await (await api.get(`${path}/rules`)).json();
  expect(always).toMatchObject([{ name: 'Ana Lanyon, at her mother’s' }]);
  expect((await ines.delete(`${path}/always/${always[0].member}`)).status()).toBe(403);
  expect((await api.delete(`${path}/always/${always[0].member}`)).ok()).toBe(true);
  expect(latest.words).toContain('college accounts: do not come in');
  expect((await ines.post(`${path}/rules/undo`, { data: { change: latest.id } })).status()).toBe(403);
  expect((await api.post(`${path}/rules/undo`, { data: { change: latest.id } })).ok()).toBe(true);
  await expect.poll(async () => (await enter()).ok).toBe(true);
  expect(await enter()).toMatchObject({ info: { me: { role: 'guest' } } });
  line.disconnect();
  await dismiss(page);
});
