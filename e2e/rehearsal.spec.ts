import { expect, test } from '@playwright/test';
import { account, byLink, makeCourse } from './support/course';
import { INES, MAREN, signIn } from './support/people';
import { BASE_URL } from './support/product';
import { askStore } from './support/store';

const SIZE = 10;

/** Wherever in the database something of these ids is. */
async function whereStill(ids: readonly string[]): Promise<string[]> {
  const columns = await askStore<{ t: string; c: string }>(
    `SELECT TABLE_NAME AS t, COLUMN_NAME AS c FROM information_schema.COLUMNS
      WHERE TABLE_SCHEMA = DATABASE() AND COLUMN_TYPE = 'char(12)'`,
  );
  expect(columns.length).toBeGreaterThan(30);
  const found: string[] = [];
  for (const { t, c } of columns) {
    const [row] = await askStore<{ n: number }>(`SELECT COUNT(*) AS n FROM \`${t}\` WHERE \`${c}\` IN (?)`, [
      [...ids],
    ]);
    if (Number(row!.n)) found.push(`${t}.${c}`);
  }
  return found;
}

test('a session is tried with a made-up class that obeys its limits, and nothing of it stays', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const course = await makeCourse({ students: 3, limits: { speak: 'closed', writeToClass: 'open' } });
  const maren = await account(MAREN);
  const listed = async () => JSON.stringify(await (await maren.get('/api/courses')).json());
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/session/${course.session}`);
  await page.getByRole('button', { name: 'Try it' }).click();
  const many = page.getByRole('textbox', { name: 'How many come' });
  await many.fill('500');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('1 to 300')).toBeVisible();
  await many.fill(String(SIZE));
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.waitForURL(/\/room\//);
  const session = page.url().split('/').at(-1)!;
  expect(session).not.toBe(course.session);
  const [own] = await askStore<{ id: string }>('SELECT course_id AS id FROM sessions WHERE id = ?', [
    session,
  ]);
  const members = await askStore<{ id: string; person: string; link: string; role: string }>(
    'SELECT id, person_id AS person, link_code AS link, role FROM enrolments WHERE course_id = ?',
    [own!.id],
  );
  expect(members).toHaveLength(SIZE + 1);

  await page.getByRole('button', { name: 'Ring in' }).click();
  const here = page.locator('[data-testid=seat][data-here=true]');
  await expect.poll(() => here.count(), { timeout: 30_000 }).toBeGreaterThanOrEqual(SIZE - 3);

  // In no list, no letter and nobody's calendar; another teacher and the class itself may do nothing with it.
  expect(await listed()).toContain(course.id);
  expect(await listed()).not.toContain(own!.id);
  const path = `/api/sessions/${session}/rehearsal`;
  const ines = await account(INES);
  const standIn = await byLink(`/in/${members.find((m) => m.role === 'student')!.link}`);
  for (const asker of [ines, standIn, await byLink(course.students[0]!.link)]) {
    expect((await asker.get(path)).status()).toBe(403);
    expect((await asker.post(`${path}/prompt`, { data: { what: 'hands' } })).status()).toBe(403);
    expect((await asker.delete(path)).status()).toBe(403);
  }
  expect((await maren.post(path, { data: { size: 2 } })).status()).toBe(422);

  // They answer, do what is let happen, and are refused what is closed.
  await page.getByRole('button', { name: /^Ask/ }).click();
  await page.getByRole('button', { name: 'Yes or no' }).click();
  await page.getByRole('button', { name: 'Let something happen' }).click();
  await page.getByRole('menuitem', { name: 'Some do what is closed' }).click();
  await page.getByRole('button', { name: 'Let something happen' }).click();
  await page.getByRole('menuitem', { name: 'Hands go up' }).click();
  const events = async (type: string) =>
    Number(
      (
        await askStore<{ n: number }>(
          "SELECT COUNT(*) AS n FROM room_events WHERE session_id = ? AND JSON_VALUE(body, '$.type') = ?",
          [session, type],
        )
      )[0]!.n,
    );
  await expect.poll(() => events('handRaised'), { timeout: 20_000 }).toBeGreaterThan(2);
  await expect.poll(() => events('answered'), { timeout: 30_000 }).toBeGreaterThan(SIZE / 2);
  const info = async () => (await maren.get(path)).json() as Promise<{ refused: number }>;
  await expect.poll(async () => (await info()).refused, { timeout: 20_000 }).toBeGreaterThan(0);
  expect(await events('microphone')).toBe(0);

  await page.getByRole('button', { name: /not tried yet/ }).click();
  const list = page.getByRole('list', { name: 'What to try' });
  await expect(list.getByText('Ask the class a question, tried')).toBeVisible();
  await expect(list.getByText('Hush, not yet')).toBeVisible();
  await page.keyboard.press('Escape');

  const ids = [own!.id, session, ...members.map((m) => m.id)];
  const people = members.filter((m) => m.role !== 'teacher').map((m) => m.person);
  expect((await whereStill(ids)).length).toBeGreaterThan(4);
  await page.getByRole('button', { name: 'End the rehearsal' }).click();
  await page.waitForURL(`${BASE_URL}/course/${course.id}/session/${course.session}`);
  await expect.poll(async () => (await maren.get(path)).status(), { timeout: 15_000 }).toBe(404);
  await expect.poll(() => whereStill([...ids, ...people]), { timeout: 15_000 }).toEqual([]);
  // What was rehearsed is as it was.
  expect((await (await maren.get(`/api/sessions/${course.session}`)).json()).session.state).toBe('planned');
});
