import { expect, test } from '@playwright/test';
import type { MyCourse, SessionInfo } from '@nimble-bell/core/api';
import { account, addSeries, byLink, detailOf, makeCourse, throughDoor } from './support/course';
import { MAREN, person, signIn } from './support/people';

test('a finding is settled by one press, worked out anew by the server', async ({ page }) => {
  const course = await makeCourse({ students: 2, record: true });
  const api = await account(MAREN);
  const plan = { automatic: true, keepUntil: '2026-11-01', studentsWatch: true, studentsDownload: false };
  await api.put(`/api/courses/${course.id}/recording-plan`, { data: plan });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/recording`);
  const finding = page.getByTestId('finding').filter({ hasText: 'but the term runs to' });
  await finding.getByRole('button', { name: /^Keep them until/ }).click();
  await expect(finding).toHaveCount(0);
  expect((await detailOf(api, course.id)).recordingPlan!.keepUntil).toBe('2027-01-05');
  const gone = await api.post(`/api/courses/${course.id}/fixes`, { data: { finding: 'kept-too-short' } });
  expect(gone.status()).toBe(409);
});

test('a room without dates is entered at any time and stands ready again; a capture is seen once it is posted', async ({
  browser,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  await addSeries(api, course.id, { title: 'Study room', kind: 'open', pattern: null });
  await addSeries(api, course.id, { title: 'Captures', kind: 'capture', pattern: null });
  const standing = async (title: string): Promise<SessionInfo> =>
    (await detailOf(api, course.id)).standing.find((s) => s.seriesTitle === title)!;
  const link = await byLink(course.students[0]!.link);
  const mine = async (): Promise<MyCourse> => (await link.get('/api/my-course')).json();
  expect((await mine()).rooms.map((r) => [r.seriesTitle, r.door.open])).toEqual([['Study room', true]]);
  const capture = await standing('Captures');
  expect((await link.get(`/api/sessions/${capture.id}`)).status()).toBe(403);

  const [page] = await person(browser);
  await signIn(page, MAREN);
  await page.goto(`/room/${capture.id}`);
  await throughDoor(page);
  await page.getByRole('button', { name: 'Ring in' }).click();
  await page.getByRole('button', { name: /^Camera/ }).click();
  await expect.poll(async () => (await standing('Captures')).state).toBe('live');
  expect((await mine()).sessions.filter((s) => s.seriesTitle === 'Captures')).toEqual([]);
  await page.waitForTimeout(4000);
  await page.getByRole('button', { name: 'Dismiss' }).click();
  await page.getByRole('button', { name: 'Dismiss for everyone' }).click();
  await expect(page.getByRole('heading', { name: 'The class is dismissed' })).toBeVisible();
  expect((await standing('Captures')).id).not.toBe(capture.id);
  const held = (await detailOf(api, course.id)).sessions.find((s) => s.id === capture.id)!;
  expect(held.state).toBe('held');
  expect(held.endsAt - held.startsAt).toBeLessThan(120_000);
  const recordings = async () => (await mine()).recordings.filter((r) => r.state === 'ready').length;
  expect(await recordings()).toBe(0);
  await api.put(`/api/sessions/${capture.id}/posted`, { data: { posted: true } });
  await expect.poll(recordings, { timeout: 30_000 }).toBe(1);
  await api.put(`/api/sessions/${capture.id}/posted`, { data: { posted: false } });
  expect(await recordings()).toBe(0);
});

test('a session at whose door somebody was can be planned away, and comes back by undo', async ({
  browser,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const { series, sessions } = await detailOf(api, course.id);
  const [page, context] = await person(browser);
  await signIn(page, MAREN);
  await page.goto(`/room/${course.session}`);
  await throughDoor(page);
  await expect(page.getByRole('button', { name: 'Ring in' })).toBeVisible();
  await context.close();
  const edit = (data: object) => api.post(`/api/courses/${course.id}/plan`, { data });
  const removed = await edit({ edit: 'remove-series', id: series[0]!.id });
  expect(removed.ok(), await removed.text()).toBe(true);
  expect((await detailOf(api, course.id)).sessions).toEqual([]);
  const { changeId } = await removed.json();
  const undone = await api.post(`/api/courses/${course.id}/plan/undo`, { data: { change: changeId } });
  expect(undone.ok(), await undone.text()).toBe(true);
  expect((await detailOf(api, course.id)).sessions.map((s) => s.id)).toEqual(sessions.map((s) => s.id));
});
