import { expect, test } from '@playwright/test';
import type { StoredEvent } from '@nimble-bell/core/room';
import { account, dismiss, makeCourse, ringIn, throughDoor, walkIn, readyRecording } from './support/course';
import { live } from './support/live';
import { MAREN, seat } from './support/people';
import { askStore, storedEvents } from './support/store';

test('a class is asked, answers, and sees what it said: no more than each may know, kept, counted and replayed', async ({
  page,
  browser,
}) => {
  const course = await makeCourse({ students: 3, record: true, apart: true });
  await ringIn(page, course);
  const phone = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 } });
  // A student with a script: what the socket is told, and no page between.
  const script = live({ link: course.students[1]!.link.replace('/in/', '') });
  const told: StoredEvent[] = [];
  script.on('events', (events: StoredEvent[]) => told.push(...events));
  const entered = await script.emitWithAck('enter', { session: course.session, after: 0 });
  expect(entered.ok).toBe(true);
  await expect(seat(page, course.students[1]!.name)).toHaveAttribute('data-here', 'true');

  const maren = await account(MAREN);
  const bank = `/api/courses/${course.id}/questions`;
  const question = { text: 'Which way does it set?', kind: 'one', options: ['Ebb', 'Flood'], right: 1 };
  const kept = { question: { ...question, anonymous: false }, part: '', seconds: null };
  expect((await maren.post(bank, { data: kept })).status()).toBe(201);
  const two = { ...kept, question: { ...kept.question, options: ['Ebb', 'ebb'] } };
  expect((await maren.post(bank, { data: two })).status()).toBe(422);
  await page.keyboard.press('a');
  await page
    .getByRole('list', { name: 'Prepared questions' })
    .getByRole('button', { name: /Which way does it set/ })
    .click();
  await phone.getByRole('button', { name: 'B Flood' }).click();
  await expect(phone.getByRole('button', { name: 'B Flood', pressed: true })).toBeVisible();
  await expect(page.getByTestId('asked')).toContainText('1 of 2 have answered');
  await expect.poll(() => told.some((e) => e.type === 'asked')).toBe(true);
  const { seq } = told.find((e) => e.type === 'asked')!;
  const answer = (value: unknown) =>
    script.emitWithAck('command', {
      id: crypto.randomUUID(),
      command: { type: 'answer', question: seq, answer: value },
    });
  expect((await answer(7)).ok).toBe(false);
  expect((await answer(0)).ok).toBe(true);
  await expect(page.getByTestId('asked')).toContainText('2 of 2 have answered');
  // Neither the right answer nor the others' have gone over the wire; nor do they to a page that comes late.
  const late = live({ link: course.students[2]!.link.replace('/in/', '') });
  const second = await late.emitWithAck('enter', { session: course.session, after: 0 });
  for (const heard of [told, second]) {
    expect(JSON.stringify(heard)).not.toContain('"right":1');
    expect(JSON.stringify(heard)).not.toContain('"answer":1');
  }
  late.disconnect();

  await page.getByRole('button', { name: 'Show with the right answer' }).click();
  await expect(phone.getByRole('list', { name: /^What was answered/ })).toContainText('B Flood right yours');
  await expect.poll(() => told.some((e) => e.type === 'answersShown')).toBe(true);
  expect((await answer(1)).ok).toBe(false);
  await page.getByRole('button', { name: 'Put it away' }).click();

  // Without names: the answer is counted, and nobody who teaches is told whose it is.
  await page.keyboard.press('a');
  await page.getByRole('switch', { name: 'Without names' }).click({ force: true });
  await page.getByRole('button', { name: 'Yes or no' }).click();
  await phone.getByRole('button', { name: 'No', exact: true }).click();
  await expect(page.getByTestId('asked')).toContainText('No names are kept');
  await expect(page.getByTestId('asked')).toContainText('1 of 2 have answered');
  await page.reload();
  await throughDoor(page);
  await expect(page.getByTestId('asked')).toContainText('1 of 2 have answered');
  await expect(page.getByTestId('asked')).not.toContainText('Who answered what');

  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'In words' }).click();
  // The one before stands there until the new one comes: it is chosen, and not written.
  await phone.getByRole('textbox', { name: 'Your answer' }).fill('Xylophone');
  await phone.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(page.getByTestId('asked')).toContainText('1 of 2 have answered');
  await page.getByRole('button', { name: 'Show the class' }).click();
  await expect(phone.getByTestId('asked')).toContainText('Xylophone');

  // A time that rings by itself, and one of the two, by lot.
  await page.keyboard.press('t');
  await page.getByLabel('What for').fill('Work in pairs');
  await page.getByLabel('Another length, minutes').fill('0.1');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(phone.getByTestId('time')).toContainText('Work in pairs');
  await expect(phone.getByTestId('time')).toBeHidden();
  await page.keyboard.press('o');
  await expect(phone.getByTestId('pick')).toContainText('asked');
  script.disconnect();
  await dismiss(page);

  const [asked] = await (await maren.get(bank)).json();
  expect(asked.askedAt).not.toBeNull();
  const [first, nameless] = await (await maren.get(`/api/sessions/${course.session}/asked`)).json();
  expect(first.rounds[0].answers.map((a: { name: string }) => a.name)).toEqual(
    course.students.slice(0, 2).map((s) => s.name),
  );
  expect(nameless.rounds[0]).toMatchObject({ answers: null, tally: { answered: 1 } });
  const part = await (await maren.get(`/api/courses/${course.id}/participation`)).json();
  const answers = (name: string): number =>
    part.rows.find((r: { name: string }) => r.name === name).cells.at(-1)?.answers ?? 0;
  expect(course.students.map((s) => answers(s.name))).toEqual([2, 1, 0]);
  const lots = await askStore<{ times: number }>('SELECT times FROM asked_by_lot WHERE session_id = ?', [
    course.session,
  ]);
  expect(lots.map((l) => l.times)).toEqual([1]);

  const recording = await readyRecording(maren, course.session);
  await page.goto(`/course/${course.id}/watch/${recording}`);
  await page
    .getByRole('button', { name: /Asked: Which way does it set/ })
    .first()
    .click();
  await expect(page.getByTestId('held-then')).toContainText('Which way does it set?');

  // Whoever is forgotten takes their words along, out of what was shown as well.
  const words = async () => JSON.stringify(await storedEvents(course.session));
  expect(await words()).toContain('Xylophone');
  const gone = await maren.delete(`/api/courses/${course.id}/members/${course.students[0]!.id}/data`);
  expect(gone.status()).toBe(200);
  expect(await words()).not.toContain('Xylophone');
});
