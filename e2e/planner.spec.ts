import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import type { CourseDetail, MyCourse } from '@nimble-bell/core/api';
import { readCalendar } from '@nimble-bell/core/calendar';
import { account, addSeries, byLink, detailOf, makeCourse, type MadeCourse } from './support/course';
import { countInteractions } from './support/interactions';
import { lettersShown, letterTo } from './support/letters';
import { MAREN, signIn } from './support/people';

const weekly = (day: string, start = '10:00', minutes = 50) => ({
  kind: 'weekly',
  days: [{ day, start, minutes }],
  ends: { by: 'term' },
});

async function edit(api: APIRequestContext, course: string, body: object) {
  const answer = await api.post(`/api/courses/${course}/plan`, { data: body });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
}

const planOf = async (page: Page, course: MadeCourse, part = '') => {
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/plan${part}`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
};

/** The session rows of a series, opened. */
async function openSessions(page: Page, series = 'Lecture') {
  const section = page.getByRole('region', { name: series, exact: true });
  await section.getByRole('button', { name: 'Show the sessions' }).click();
  return section;
}

test('the lectures of a term are planned from nothing in at most nine interactions', async ({ page }) => {
  await signIn(page, MAREN);
  const counted = await countInteractions(page);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  await page.getByRole('button', { name: 'New course' }).click();
  await page.keyboard.type(`N-${Date.now() % 1_000_000}`);
  await page.keyboard.press('Tab');
  await page.keyboard.type('Reading the Coast');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'tuesday', exact: true }).click();
  await page.getByRole('button', { name: 'thursday', exact: true }).click();
  await page.getByLabel('Linger').click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('10');
  await page.getByRole('button', { name: 'Save 27 sessions' }).click();
  await expect(page.getByText('Tue and Thu 18:30–19:50, Halifax time, 10 min to linger')).toBeVisible();
  const count = await counted();
  console.log(`Planning the lectures from nothing, the course made as well: ${count} interactions.`);
  expect(count).toBeGreaterThan(5);
  expect(count).toBeLessThanOrEqual(9);
});

test('a draft is for those who teach; students see it once it is published, and are told', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await api.post(`/api/courses/${course.id}/invitations`);
  const student = await byLink(course.students[0]!.link);
  const seen = async () => {
    const mine: MyCourse = await (await student.get('/api/my-course')).json();
    return new Set(mine.sessions.map((s) => s.seriesTitle));
  };
  const id = await addSeries(
    api,
    course.id,
    { title: 'Clinic', kind: 'office', pattern: weekly('monday') },
    { draft: true },
  );
  expect(await seen()).toEqual(new Set(['Lecture']));
  const session = (await detailOf(api, course.id)).sessions.find((s) => s.seriesTitle === 'Clinic')!;
  expect((await student.get(`/api/sessions/${session.id}`)).status()).toBe(403);
  const { told } = await edit(api, course.id, { edit: 'publish', ids: [id] });
  expect(told).toHaveLength(2);
  expect(await seen()).toEqual(new Set(['Lecture', 'Clinic']));
});

test('a change shows what it does and who is told before it is saved, is mailed, and can be undone', async ({
  page,
}) => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  await api.post(`/api/courses/${course.id}/invitations`);
  const before = await detailOf(api, course.id);
  await planOf(page, course);
  const section = await openSessions(page);
  await section.getByRole('button', { name: /Change the session of Tue 20 Oct/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Hour').fill('17');
  await dialog.getByLabel('This and later ones').check();
  // Six Tuesdays from then, Lantern Night among the skipped.
  await expect(dialog.getByTestId('outcome')).toContainText(
    'Lecture: Tue 20 Oct, 18:30 moves to Tue 20 Oct, 17:30',
  );
  await expect(dialog.getByTestId('outcome')).toContainText(
    '2 people will be told: Ana Lanyon and Ben Garrow.',
  );
  const ahead = await lettersShown(dialog);
  expect((await detailOf(api, course.id)).sessions).toEqual(before.sessions);
  await dialog.getByRole('button', { name: 'Move it and tell 2 people' }).click();
  await expect(dialog).toBeHidden();
  const after = await detailOf(api, course.id);
  const changed = after.sessions.filter((s, i) => s.startsAt !== before.sessions[i]!.startsAt);
  expect(changed.map((s) => s.date)).toEqual(
    before.sessions.filter((s) => s.date >= '2026-10-20').map((s) => s.date),
  );
  for (const s of changed) expect(s).toMatchObject({ state: 'moved', own: ['time'] });

  const letter = await letterTo(page, 'ana.lanyon', `${after.code} Made for a test: the plan has changed`);
  // Six that move alike are one line, in the reader's own time.
  expect(letter.text).toContain(
    'Lecture: Tue 20:30–21:50, on Tue 27 Oct 19:30–20:50 instead of Tue 21:30–22:50, on Tue 27 Oct 20:30–21:50, from Tue 20 Oct on, 6 sessions',
  );
  // What was shown is what was sent, to the letter.
  expect(ahead.get('Ana Lanyon')).toBe(letter.html);
  const [entry] = letter.calendars;
  expect(entry!.content).toContain('RECURRENCE-ID;TZID=America/Halifax:20261020T183000');
  expect(Number(/SEQUENCE:(\d+)/.exec(entry!.content)![1])).toBeGreaterThan(0);

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^Undone: Lecture of Tue 20 Oct/).first()).toBeVisible();
  expect((await detailOf(api, course.id)).sessions).toEqual(before.sessions);
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('undone', { exact: true })).toBeVisible();
  await expect(page.getByText(/Maren Oduya, .*2 people told/).first()).toBeVisible();
});

test('a session keeps what it has of its own through a change of the pattern, and says so', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const [first, second, third] = (await detailOf(api, course.id)).sessions.filter(
    (s) => s.startsAt > Date.UTC(2026, 9, 8),
  );
  const change = (id: string, what: object) =>
    edit(api, course.id, { edit: 'change-session', id, scope: 'one', change: what });
  await change(first!.id, { do: 'rename', title: 'Guest evening' });
  await change(second!.id, { do: 'lengthen', minutes: 120 });
  await change(third!.id, { do: 'cancel' });
  const { series } = await detailOf(api, course.id);
  const { pattern } = series[0]!;
  // Tuesdays become Wednesdays: each session goes along within its week.
  const moved = { ...pattern, days: [{ day: 'wednesday', start: '12:00', minutes: 45 }] };
  await edit(api, course.id, {
    edit: 'change-series',
    id: series[0]!.id,
    series: { title: 'Lecture', pattern: moved },
  });
  const sessions = new Map((await detailOf(api, course.id)).sessions.map((s) => [s.id, s]));
  expect(sessions.get(first!.id)).toMatchObject({ title: 'Guest evening', minutes: 45 });
  expect(sessions.get(second!.id)).toMatchObject({ minutes: 120, own: ['length'] });
  expect(sessions.get(third!.id)).toMatchObject({ state: 'cancelled' });
  for (const s of [first!, second!, third!])
    expect(new Date(`${sessions.get(s.id)!.date}T00:00Z`).getUTCDay()).toBe(3);
});

test('a clash with another course is shown before saving, with names and minutes, and found afterwards', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  await planOf(page, course);
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByLabel('Name of the series').fill('Workshop');
  await page.getByRole('button', { name: 'wednesday', exact: true }).click();
  const clashes = page.getByTestId('clashes');
  await expect(clashes).toContainText('Maren Oduya has MET-140 Lecture');
  await expect(clashes).toContainText('80 minutes overlap');
  await page.getByRole('button', { name: /^Save \d+ sessions$/ }).click();
  const found = page.getByRole('region', { name: 'Workshop', exact: true }).getByTestId('finding');
  await expect(found.first()).toContainText('Stops: Maren Oduya has MET-140 Lecture at the same time');
  await expect(page.getByRole('navigation').getByRole('link', { name: /^Plan/ })).toContainText('finding');
});

test('a lost session is made up for by one press on a ranked slot', async ({ page }) => {
  const course = await makeCourse({ students: 3 });
  const api = await account(MAREN);
  await api.post(`/api/courses/${course.id}/invitations`);
  const lost = (await detailOf(api, course.id)).sessions.find((s) => s.date === '2026-10-13')!;
  await edit(api, course.id, { edit: 'change-session', id: lost.id, scope: 'one', change: { do: 'cancel' } });
  await planOf(page, course);
  await page
    .getByRole('button', { name: /to consider|more/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Find a make-up' }).click();
  const best = page.getByTestId('slot').first();
  await expect(page.getByTestId('common')).toContainText('nobody of 3 has another class');
  // A week as a map: an hour's number is how many are hindered, and it is chosen by one press as well.
  const map = page.getByRole('grid', { name: 'Open slots of the week' });
  await map.getByRole('button').first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-at]:focus')).toHaveAttribute('aria-label', /people with another class/);
  await best.getByRole('button', { name: 'Choose it' }).click();
  await page.getByRole('button', { name: /^Book it/ }).click();
  await expect(page.getByRole('heading', { name: 'The plan' })).toBeVisible();
  const booked = (await detailOf(api, course.id)).sessions.find((s) => s.replaces === lost.id)!;
  expect(booked).toMatchObject({ own: ['added'], minutes: 80 });
  expect(booked.startsAt).toBeGreaterThan(Date.UTC(2026, 9, 8, 21));
  const again = await api.post(`/api/courses/${course.id}/plan`, {
    data: {
      edit: 'add-session',
      seriesId: lost.seriesId,
      date: '2026-10-30',
      start: '10:00',
      minutes: 50,
      replaces: lost.id,
    },
  });
  expect(again.status()).toBe(422);
});

test('a class is split into groups with slots of their own; a student who moves takes their sessions along', async ({
  page,
}) => {
  const course = await makeCourse({ students: 12 });
  const api = await account(MAREN);
  await planOf(page, course, '/groups');
  await page.getByLabel('At most').fill('4');
  await page.getByRole('button', { name: 'Split', exact: true }).click();
  for (const group of ['A', 'B', 'C'])
    await expect(page.getByRole('region', { name: `Group ${group}` }).getByLabel(/^Drag/)).toHaveCount(4);
  await page.getByLabel("Plan the groups' sessions here").check();
  await expect(page.getByRole('region', { name: 'Group B' })).toContainText('fri 17:35, 30 min');
  await page.getByRole('button', { name: 'Save the groups' }).click();
  await expect.poll(async () => (await detailOf(api, course.id)).series.length).toBe(4);
  const { series } = await detailOf(api, course.id);
  const groups = series.filter((s) => s.kind === 'group');
  expect(groups.map((s) => s.group)).toEqual(['A', 'B', 'C']);
  await edit(api, course.id, { edit: 'publish', ids: groups.map((s) => s.id) });

  const student = course.students[0]!;
  const link = await byLink(student.link);
  const own = async () => {
    const mine: MyCourse = await (await link.get('/api/my-course')).json();
    return [...new Set(mine.sessions.map((s) => s.group).filter(Boolean))];
  };
  const [group] = await own();
  const other = ['A', 'B', 'C'].find((g) => g !== group)!;
  await page.reload();
  await page.getByLabel(`Group of ${student.name}`).selectOption(other);
  await page.getByRole('button', { name: /^Save the groups/ }).click();
  await expect.poll(own).toEqual([other]);
});

test('dragged in the week view, a session is moved after its preview; undragged nothing is', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  await planOf(page, course, '/week');
  await page.getByRole('button', { name: 'Week after' }).click();
  const block = page.getByLabel(/^Lecture, Tue 13 Oct/);
  const box = (await block.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 20, { steps: 4 });
  await page.mouse.move(box.x + 20 + 164 * 2, box.y + 12 - 48, { steps: 6 });
  await page.mouse.up();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByTestId('outcome')).toContainText('Tue 13 Oct, 18:30 moves to Thu 15 Oct, 17:30');
  await dialog.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByLabel(/^Lecture, Thu 15 Oct 17:30: moved/)).toBeVisible();
});

test('bell times are followed: their change says which sessions move before it moves them', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const name = `Mornings ${Date.now() % 100_000}`;
  const bells = await (
    await api.post('/api/bell-times', {
      data: {
        name,
        periods: [
          { name: 'M1', start: '08:45', end: '09:30' },
          { name: 'M2', start: '09:35', end: '10:20' },
        ],
      },
    })
  ).json();
  const pattern = {
    kind: 'weekly',
    bellTimes: bells.id,
    days: [{ day: 'saturday', periods: ['M1', 'M2'] }],
    ends: { by: 'term' },
  };
  await addSeries(api, course.id, { title: 'Double hour', pattern });
  const first = (d: CourseDetail) =>
    d.sessions.find((s) => s.seriesTitle === 'Double hour' && s.date > '2026-10-08')!;
  expect(first(await detailOf(api, course.id)).minutes).toBe(95);

  await signIn(page, MAREN);
  await page.goto('/college');
  const row = page.getByText(name).locator('..').locator('..');
  await row.getByRole('button', { name: 'Change' }).click();
  await page.getByLabel('End of M2, hour').fill('10');
  await page.getByLabel('End of M2, minute').fill('50');
  await page.getByRole('button', { name: 'Save the bell times' }).click();
  const question = page.getByRole('alertdialog', { name: 'What this moves' });
  await expect(question).toContainText('lasts 2 h 5 min instead of 1 h 35 min');
  expect(first(await detailOf(api, course.id)).minutes).toBe(95);
  await question.getByRole('button', { name: 'Save', exact: true }).click();
  await expect.poll(async () => first(await detailOf(api, course.id)).minutes).toBe(125);
  expect((await api.delete(`/api/bell-times/${bells.id}`)).status()).toBe(409);
});

test('days dragged over in a new term become days off, an academic calendar is read, and a course is carried there', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const name = `Summer ${Date.now() % 100_000}`;
  await signIn(page, MAREN);
  await page.goto('/college?term=new');
  await page.getByLabel('Name of the term').fill(name);
  const day = (n: number) => page.locator('[data-day]').nth(n);
  await day(15).hover();
  await page.mouse.down();
  await day(17).hover();
  await page.mouse.up();
  await page.getByLabel('What they are called').fill('Regatta days');
  await page.getByRole('button', { name: 'Make them days off' }).click();
  await expect(page.getByText(/: Regatta days/)).toBeVisible();
  await page.getByLabel('Read days off from an .ics file').setInputFiles({
    name: 'year.ics',
    mimeType: 'text/calendar',
    buffer: Buffer.from(await holidays(page)),
  });
  await page.getByLabel(/Founders’ Day/).uncheck();
  await page.getByRole('button', { name: 'Take 1' }).click();
  await expect(page.getByText(/: Lifeboat Sunday/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the term' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();

  await page.goto(`/course/${course.id}/plan/reuse`);
  await page.getByPlaceholder('Choose a term').click();
  await page.getByRole('option', { name: new RegExp(name) }).click();
  await expect(page.getByText(/is Regatta days/)).toBeVisible();
  await page.getByRole('button', { name: /^Carry T-/ }).click();
  await expect(page.getByRole('heading', { name: 'The plan' })).toBeVisible();
  const carried = await detailOf(api, page.url().split('/')[4]!);
  expect(carried.term.name).toBe(name);
  // The Tuesday of the regatta goes to the Friday of its week; no session lies on a day off.
  expect(carried.sessions.length).toBeGreaterThan(10);
  expect(carried.sessions.filter((s) => s.own.includes('added'))).toHaveLength(1);
  for (const s of carried.sessions)
    expect(carried.term.daysOff.some((o) => o.from <= s.date && s.date <= o.to)).toBe(false);
});

/** A calendar with two days off within the term that is being made. */
async function holidays(page: Page): Promise<string> {
  const at = async (n: number) =>
    new Date(Number(await page.locator('[data-day]').nth(n).getAttribute('data-day')) * 86_400_000)
      .toISOString()
      .slice(0, 10)
      .replaceAll('-', '');
  const event = (uid: string, date: string, summary: string) =>
    ['BEGIN:VEVENT', `UID:${uid}`, `DTSTART;VALUE=DATE:${date}`, `SUMMARY:${summary}`, 'END:VEVENT'].join(
      '\r\n',
    );
  return [
    'BEGIN:VCALENDAR',
    event('a', await at(30), 'Founders’ Day'),
    event('b', await at(41), 'Lifeboat Sunday'),
    'END:VCALENDAR',
  ].join('\r\n');
}

test('a feed holds the plan as it stands, and its old address is dead once it is replaced', async ({
  request,
}) => {
  const course = await makeCourse({ students: 1 });
  const link = await byLink(course.students[0]!.link);
  const { path } = await (await link.post('/api/feeds', { data: {} })).json();
  const meetings = async (at: string) => {
    const answer = await request.get(at);
    expect(answer.headers()['content-type']).toContain('text/calendar');
    return readCalendar(await answer.text(), 'UTC', '2026-08-01', '2026-12-31').events.flatMap(
      (e) => e.meetings,
    );
  };
  const mine: MyCourse = await (await link.get('/api/my-course')).json();
  expect((await meetings(path)).map((m) => m.startsAt)).toEqual(mine.sessions.map((s) => s.startsAt));
  const api = await account(MAREN);
  const session = mine.sessions.at(-1)!;
  await edit(api, course.id, {
    edit: 'change-session',
    id: session.id,
    scope: 'one',
    change: { do: 'cancel' },
  });
  expect(await meetings(path)).toHaveLength(mine.sessions.length - 1);
  const replaced = await (await link.post('/api/feeds', { data: { replace: true } })).json();
  expect(replaced.path).not.toBe(path);
  expect((await request.get(path)).status()).toBe(404);
  expect((await request.get(replaced.path)).status()).toBe(200);
  // A link of one course cannot ask for another's.
  const other = await makeCourse({ students: 1 });
  const asked = await (await link.post('/api/feeds', { data: { course: other.id } })).json();
  expect(asked.path).toBe(replaced.path);
});

test('a timetable file becomes drafts after a preview in which each series can be left', async ({ page }) => {
  const course = await makeCourse({ students: 1 });
  await planOf(page, course, '/calendars');
  await page
    .getByLabel('Or paste it here')
    .fill(
      [
        'Series;Date;Start;End',
        'Tides;2026-10-07;10:00;11:00',
        'Tides;2026-10-14;10:00;11:00',
        'Tides;2026-10-21;10:00;11:00',
        'Boats;2026-10-09;09:00;10:30',
        'Boats;never;09:00;10:30',
      ].join('\n'),
    );
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByLabel('Tides: Wed 10:00–11:00')).toBeChecked();
  await expect(page.getByText('Line 6: "never" is not a date such as 2026-10-06.')).toBeVisible();
  await page.getByLabel(/^Boats/).uncheck();
  await page.getByRole('button', { name: 'Add 1 series' }).click();
  await page.getByRole('link', { name: 'Series', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Tides', exact: true })).toContainText('draft');
  await expect(page.getByRole('region', { name: 'Boats', exact: true })).toHaveCount(0);
});

test('an address replaced three times at once is replaced once more: one stands', async () => {
  const course = await makeCourse({ students: 1 });
  const api = await account(MAREN);
  const replace = () => api.post('/api/feeds', { data: { course: course.id, replace: true } });
  const answers = await Promise.all([replace(), replace(), replace()]);
  expect(answers.map((a) => a.status())).toEqual([200, 200, 200]);
  const { path } = await (await api.post('/api/feeds', { data: { course: course.id } })).json();
  expect((await api.get(path)).status()).toBe(200);
});
