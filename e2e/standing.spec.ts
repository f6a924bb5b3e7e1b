import { expect, test, type APIRequestContext } from '@playwright/test';
import type { Socket } from 'socket.io-client';
import type { CollegeRules, MyCourse, SessionInfo, StoredEvent } from '@nimble-bell/core/api';
import { account, addSeries, byLink, detailOf, makeCourse, throughDoor } from './support/course';
import { live } from './support/live';
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

test('what the college says holds in every course that says nothing else, in a class that is on, and is taken back', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const rules = async (): Promise<CollegeRules> => (await api.get('/api/college/rules')).json();
  const drawing = async () => (await detailOf(api, course.id)).limits.draw;
  const socket = live({ link: course.students[0]!.link.replace('/in/', '') });
  const heard: StoredEvent[] = [];
  socket.on('events', (events: StoredEvent[]) => heard.push(...events));
  const standing = await socketRoom(api, course.id, socket);
  expect(standing.ok).toBe(true);
  await signIn(page, MAREN);
  await page.goto('/college/rules');
  await page.getByRole('radio', { name: 'Draw on the board: Open' }).click();
  await page.getByRole('button', { name: 'Save for every course' }).click();
  await expect(page.getByText('The college: draw on the board open')).toBeVisible();
  expect(await drawing()).toBe('open');
  // The open room has it, and says whose word it is.
  await expect
    .poll(() => heard.filter((e) => e.type === 'settingsChanged').map((e) => e.layer))
    .toEqual(['college']);
  // The course's own word is narrower; no course sets the college's.
  const limits = { draw: 'byHand' };
  const at = { layer: 'college' };
  expect((await api.put(`/api/courses/${course.id}/rules`, { data: { at, limits } })).status()).toBe(422);
  await api.put(`/api/courses/${course.id}/rules`, { data: { at: { layer: 'course' }, limits } });
  expect(await drawing()).toBe('byHand');
  // Two at once on one state: the second is told.
  const { on } = await rules();
  const put = (minutes: number) =>
    api.put('/api/college/rules', {
      data: { door: { lateMinutes: minutes } },
      headers: { 'if-match': `"${on}"` },
    });
  const both = await Promise.all([put(20), put(25)]);
  expect(both.map((r) => r.status()).sort()).toEqual([200, 409]);
  for (const left of [1, 0]) {
    const { latest } = await rules();
    const undone = await api.post('/api/college/rules/undo', { data: { change: latest!.id } });
    expect(undone.status()).toBe(200);
    expect(Object.keys({ ...(await rules()).limits, ...(await rules()).door })).toHaveLength(left);
  }
  socket.disconnect();
});

/** Opens a room that stands, and goes in. */
async function socketRoom(api: APIRequestContext, course: string, socket: Socket) {
  await addSeries(api, course, { title: 'Study room', kind: 'open', pattern: null });
  const [room] = (await detailOf(api, course)).standing;
  return socket.emitWithAck('enter', { session: room!.id, after: 0 });
}
