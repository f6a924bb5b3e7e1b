import { expect, test, type APIRequestContext } from '@playwright/test';
import type { CourseCard, LetterDetail, MemberInfo, SessionInfo } from '@nimble-bell/core/api';
import { account, addSeries, byLink, detailOf, makeCourse } from './support/course';
import { countInteractions } from './support/interactions';
import { MAREN, signIn } from './support/people';

const weekly = (day: string) => ({
  kind: 'weekly',
  days: [{ day, start: '10:00', minutes: 50 }],
  ends: { by: 'term' },
});

async function otherTerm(api: APIRequestContext, more: object = {}): Promise<string> {
  const term = {
    name: `Winter ${Date.now() % 1e7}`,
    zone: 'America/Halifax',
    firstDay: '2027-01-04',
    lastDay: '2027-04-11',
    daysOff: [],
    daySwaps: [],
    ...more,
  };
  return (await (await api.post('/api/terms', { data: term })).json()).id;
}

const card = async (api: APIRequestContext, id: string): Promise<CourseCard | undefined> =>
  (await (await api.get('/api/courses')).json()).find((c: CourseCard) => c.id === id);

test('a course nobody was told of moves to another term by its weekdays, and can go; then nothing of it is left', async () => {
  const api = await account(MAREN);
  const { id } = await makeCourse({ students: 2 });
  const term = await otherTerm(api);
  const path = `/api/courses/${id}`;
  const before = await detailOf(api, id);
  expect((await api.post(`${path}/move`, { data: { term: before.termId } })).status()).toBe(422);
  expect((await api.post(`${path}/move`, { data: { term: 'nowhere' } })).status()).toBe(404);
  expect((await api.post(`${path}/move`, { data: { term } })).ok()).toBe(true);
  const after = await detailOf(api, id);
  expect(after.termId).toBe(term);
  expect((await card(api, id))!.term).toBe(after.term.name);
  expect(after.sessions).toHaveLength(14);
  expect(after.sessions[0]).toMatchObject({ date: '2027-01-05', state: 'planned' });
  // What came before cannot be taken back: it belongs to other dates.
  const history = await (await api.get(`${path}/plan/history`)).json();
  expect(history.some((h: { undoable: boolean }) => h.undoable)).toBe(false);
  expect((await api.post(`${path}/plan/undo`, { data: { change: history[0].id } })).status()).toBe(409);

  const away = await api.put(`${path}/archived`, { data: { archived: true } });
  expect([away.status(), (await away.json()).error.message]).toEqual([
    409,
    '14 sessions of it are ahead. Cancel what is not to take place, then put it away.',
  ]);
  expect((await api.delete(path)).ok()).toBe(true);
  expect(await card(api, id)).toBeUndefined();
  expect((await api.get(path)).status()).toBe(403);
});

test('what people were told of stays in its term; with nothing ahead it is put away, and brought back', async () => {
  const api = await account(MAREN);
  const course = await makeCourse({ students: 1, apart: true });
  const path = `/api/courses/${course.id}`;
  expect((await api.post(`${path}/invitations`, { data: {} })).ok()).toBe(true);
  const term = await otherTerm(api);
  for (const refused of [await api.post(`${path}/move`, { data: { term } }), await api.delete(path)])
    expect((await refused.json()).error).toMatchObject({
      code: 'must-stay',
      message: expect.stringMatching(/^1 person/),
    });
  const off = { edit: 'cancel-days', from: '2026-10-01', to: '2026-12-31', reason: 'The college is closed' };
  expect((await api.post(`${path}/plan`, { data: off })).ok()).toBe(true);
  for (const archived of [true, false]) {
    expect((await api.put(`${path}/archived`, { data: { archived } })).ok()).toBe(true);
    expect((await card(api, course.id))!.archivedAt !== null).toBe(archived);
  }
});

test('a week is cancelled in all series with its reason, in at most 4 presses and entries; students are told why', async ({
  page,
}) => {
  const api = await account(MAREN);
  const course = await makeCourse({ students: 1, apart: true });
  await addSeries(api, course.id, { title: 'Talks', pattern: weekly('friday') });
  await api.post(`/api/courses/${course.id}/invitations`, { data: {} });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/plan`);
  const count = await countInteractions(page);
  await page.reload();
  await page.getByRole('button', { name: 'Cancel a week' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Why').fill('');
  await dialog.getByLabel('Why').pressSequentially('The ferry does not run');
  await expect(dialog.getByTestId('outcome')).toContainText('2 sessions change');
  await dialog.getByRole('button', { name: /^Cancel 2 sessions and tell 1 person/ }).click();
  await expect(dialog).toBeHidden();
  const used = await count();
  process.stdout.write(`    a week cancelled, with its reason, in ${used} presses and entries\n`);
  expect(used).toBeLessThanOrEqual(4);
  const { sessions } = await detailOf(api, course.id);
  const off = sessions.filter((s) => s.state === 'cancelled');
  expect(off.map((s) => [s.seriesTitle, s.date, s.reason])).toEqual([
    ['Lecture', '2026-10-06', 'The ferry does not run'],
    ['Talks', '2026-10-09', 'The ferry does not run'],
  ]);
  const student = await byLink(course.students[0]!.link);
  const mine: { sessions: SessionInfo[] } = await (await student.get('/api/my-course')).json();
  expect(mine.sessions.filter((s) => s.state === 'cancelled').map((s) => s.reason)).toEqual([
    'The ferry does not run',
    'The ferry does not run',
  ]);
  const { code } = await detailOf(api, course.id);
  const news = async () => {
    const all: LetterDetail[] = await (await api.get('/api/mailbox')).json();
    const one = all.find((l) => l.subject.startsWith(code) && l.subject.includes('has changed'));
    return one ? (await (await api.get(`/api/mailbox/${one.id}`)).json()).text : '';
  };
  await expect.poll(news, { timeout: 20_000 }).toContain('is cancelled: The ferry does not run');
  // Taken back, nothing of the reason stays.
  const [latest] = await (await api.get(`/api/courses/${course.id}/plan/history`)).json();
  await api.post(`/api/courses/${course.id}/plan/undo`, { data: { change: latest.id } });
  expect((await detailOf(api, course.id)).sessions.every((s) => s.reason === null)).toBe(true);
  const backwards = { edit: 'cancel-days', from: '2026-10-09', to: '2026-10-06' };
  expect((await api.post(`/api/courses/${course.id}/plan`, { data: backwards })).status()).toBe(422);
});

test('a course for another term takes at most 4 presses and entries more; a session of the week opens with one press', async ({
  page,
}) => {
  const api = await account(MAREN);
  const name = `Spring ${Date.now() % 1e7}`;
  await otherTerm(api, { name });
  await signIn(page, MAREN);
  await page.goto('/courses');
  const count = await countInteractions(page);
  await page.reload();
  await page.getByRole('button', { name: 'New course' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Code').pressSequentially(`NT-${Date.now() % 1e6}`);
  await dialog.getByLabel('Title').pressSequentially('Next term');
  const before = await count();
  await dialog.getByRole('combobox', { name: 'Term' }).click();
  await page.getByRole('option', { name }).click();
  const more = (await count()) - before;
  await dialog.getByRole('button', { name: 'Create and plan it' }).click();
  await expect(page).toHaveURL(/\/course\/\w+\/plan/);
  process.stdout.write(`    a course for another term takes ${more} presses and entries more\n`);
  expect(more).toBeLessThanOrEqual(4);

  const course = await makeCourse({ students: 1 });
  await page.goto(`/course/${course.id}/plan/week`);
  await page.getByLabel(/^Lecture, Tue 6 Oct 18:30/).click();
  await expect(page.getByRole('dialog')).toContainText('Lecture, Tue 6 Oct, 18:30');
  await page.keyboard.press('Escape');
  await page.getByLabel(/^Lecture, Tue 6 Oct 18:30/).press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Lecture, Tue 6 Oct, 18:30');
});

test('the letters of an invitation are read before they are sent; one that comes back is seen at once, and the stage is open again', async ({
  page,
}) => {
  const api = await account(MAREN);
  const course = await makeCourse({ students: 1, apart: true });
  const path = `/api/courses/${course.id}`;
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/invite`);
  await page.getByRole('button', { name: 'Read what they get' }).click();
  await expect(page.getByTestId('letters-ahead')).toContainText('1 person');
  expect((await (await api.get(`${path}/deliveries`)).json()) as unknown[]).toEqual([]);
  await page.getByRole('button', { name: 'Invite 1 person' }).click();
  const stage = page.getByRole('link', { name: /^Invite/ });
  await expect(stage).toContainText('done', { timeout: 20_000 });
  // Somebody whose address takes no post, added beside this page.
  const person = { name: 'Gone Away', email: `gone.away.${course.id}@saltmarsh.example` };
  await api.post(`${path}/members`, { data: { edit: 'add', invite: true, person } });
  const gone = async () => {
    const all: MemberInfo[] = await (await api.get(`${path}/members`)).json();
    return all.find((m) => m.name === 'Gone Away')!.invitation;
  };
  await expect.poll(gone, { timeout: 20_000 }).toBe('bounced');
  await expect(stage).toContainText('needs you', { timeout: 15_000 });
  await page.getByRole('link', { name: /^Class/ }).click();
  await expect(page.getByRole('grid', { name: 'Class list' })).toContainText('came back');
});
