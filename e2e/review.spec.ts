import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import type { Attended, RollBookInfo, RulesDetail } from '@nimble-bell/core/api';
import { account, byLink, dismiss, makeCourse, ringIn, walkIn } from './support/course';
import { countInteractions } from './support/interactions';
import { MAREN } from './support/people';

test('the roll writes itself, is corrected with a reason, judged by the course’s rules, and the log is signed', async ({
  page,
  browser,
}) => {
  const course = await makeCourse({ students: 3, apart: true });
  const api = await account(MAREN);
  const [ana, ben] = course.students;
  await ringIn(page, course);
  await walkIn(browser, course, 0);
  await expect(page.getByRole('region', { name: 'Seats: 2 of 4 are here' })).toBeVisible();
  await dismiss(page);
  const book = async (): Promise<RollBookInfo> =>
    (await api.get(`/api/courses/${course.id}/roll-book`)).json();
  const marks = async () => Object.fromEntries((await book()).rows.map((r) => [r.name, r.cells[0]?.mark]));
  expect(await marks()).toMatchObject({ 'Ana Lanyon': 'present', 'Ben Garrow': 'absent' });

  // One correction with its reason, in four interactions.
  const done = await countInteractions(page);
  await page.goto(`/course/${course.id}/review/roll-book`);
  const cell = page.getByRole('button', { name: /^Ben Garrow, Lecture \d+: absent/ });
  await expect(cell).toBeVisible();
  await page.evaluate(() => sessionStorage.removeItem('interactions'));
  await cell.click();
  await page.getByRole('radio', { name: 'excused' }).click();
  await page.getByLabel('Why').fill('His boat came in late');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(
    page.getByRole('button', { name: /^Ben Garrow, Lecture \d+: excused, corrected/ }),
  ).toBeVisible();
  const interactions = await done();
  console.log(`roll of one student corrected with a reason: ${interactions} (at most 4)`);
  expect(interactions).toBeLessThanOrEqual(4);
  expect(await marks()).toMatchObject({ 'Ben Garrow': 'excused' });
  // By key: to the cell, and back to it when the dialog is left.
  await page.getByRole('button', { name: /^Ana Lanyon, Lecture/ }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('corrected since');
  await page.keyboard.press('Escape');

  // The student sees the mark, and not why.
  const own: Attended[] = await (await (await byLink(ben!.link)).get('/api/my-course/attendance')).json();
  expect(own[0]!.line.corrected).toMatchObject({ mark: 'excused', reason: '' });
  // Without a reason, of somebody who is not on it, by another teacher: refused.
  const put = (of: string, data: object, by = api) =>
    by.put(`/api/sessions/${course.session}/roll/${of}`, { data });
  expect((await put(ben!.id, { mark: 'late', reason: ' ' })).status()).toBe(422);
  expect((await put('nobody', { mark: 'late', reason: 'Hm' })).status()).toBe(404);
  const other = await account('ines.calloway@saltmarsh.example');
  expect((await put(ben!.id, { mark: 'late', reason: 'Hm' }, other)).status()).toBe(403);
  expect((await other.get(`/api/courses/${course.id}/roll-book`)).status()).toBe(403);
  const student = await byLink(ana!.link);
  expect((await put(ben!.id, { mark: 'late', reason: 'Hm' }, student)).status()).toBe(403);

  // A rule of the course judges what was held; undone it is as before. What was corrected stays.
  await page.getByLabel('Absent, who was there for fewer minutes').fill('30');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect.poll(marks).toMatchObject({ 'Ana Lanyon': 'absent', 'Ben Garrow': 'excused' });
  const { latest }: RulesDetail = await (await api.get(`/api/courses/${course.id}/rules`)).json();
  await api.post(`/api/courses/${course.id}/rules/undo`, { data: { change: latest!.id } });
  expect(await marks()).toMatchObject({ 'Ana Lanyon': 'present', 'Ben Garrow': 'excused' });
  expect((await put(ben!.id, { mark: null, reason: '' })).status()).toBe(200);
  expect(await marks()).toMatchObject({ 'Ben Garrow': 'absent' });
  expect(await csvOf(page)).toMatch(/Ben Garrow,.*absent/);

  // The log: in words, found by them; signed, each line chained to the one before.
  await page.goto(`/course/${course.id}/session/${course.session}`);
  await page.getByRole('button', { name: 'Show the log' }).click();
  await page.getByLabel('Words in the log').fill('ana');
  const log = page.getByRole('list', { name: 'What happened' });
  await expect(log).toContainText('Ana Lanyon');
  await expect(log).not.toContainText('rang in');
  const signed = await (await api.get(`/api/sessions/${course.session}/log/signed`)).json();
  let hash = course.session;
  for (const line of signed.lines as { at: number; text: string; hash: string }[]) {
    hash = createHash('sha256').update(`${hash}\n${line.at}\n${line.text}`).digest('hex');
    expect(line.hash).toBe(hash);
  }
  expect(signed.signature).toMatch(/^[0-9a-f]{64}$/);
});

async function csvOf(page: Page): Promise<string> {
  const saved = page.waitForEvent('download');
  await page.reload();
  await page.getByRole('button', { name: 'Download as CSV' }).click();
  return readFile((await (await saved).path())!, 'utf8');
}
