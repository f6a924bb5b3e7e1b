import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { account, makeCourse } from './support/course';
import { MAREN, signIn } from './support/people';

const weekly = (day: string, start = '18:30', minutes = 80) => ({
  kind: 'weekly',
  days: [{ day, start, minutes }],
  ends: { by: 'term' },
});

async function navigation(api: APIRequestContext) {
  const courses = await (await api.get('/api/courses')).json();
  return courses.find((c: { code: string }) => c.code === 'NAV-210').id as string;
}

test('a wrong password, an unknown address and a page without a right are refused in words', async ({
  page,
}) => {
  await page.goto('/');
  for (const [email, password] of [
    [MAREN, 'saltmarsch'],
    ['nobody@saltmarsh.example', 'saltmarsh'],
  ]) {
    await page.getByLabel('E-mail').fill(email!);
    await page.getByLabel('Password').first().fill(password!);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toHaveText('The e-mail address or the password is not right.');
  }
  await page.goto('/course/unknown/plan');
  await expect(page.getByRole('heading', { name: 'Sign in to see this page' })).toBeVisible();
  await page.goto('/in/2222222222222222');
  await expect(page.getByText('This link is not known. It may have been replaced')).toBeVisible();
  await page.goto('/nowhere/at/all');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});

test('a new course says what is missing, and an unfinished one shows empty states that lead on', async ({
  page,
}) => {
  await signIn(page, MAREN);
  await page.getByRole('button', { name: 'New course' }).click();
  await page.getByRole('button', { name: 'Create and plan it' }).click();
  await expect(page.getByText('Give a code such as NAV-210.')).toBeVisible();
  await page.getByLabel('Code').fill('NAV-210');
  await page.getByLabel('Title').fill('Taken already');
  await page.getByRole('button', { name: 'Create and plan it' }).click();
  await expect(page.getByText('This code is taken.')).toBeVisible();
  await page.getByLabel('Code').fill(`E-${Date.now() % 100_000}`);
  await page.getByRole('button', { name: 'Create and plan it' }).click();
  await expect(page.getByRole('heading', { name: 'A new series' })).toBeVisible();
  await expect(page.getByText('Say when it meets.')).toBeVisible();
  const stage = (name: string) =>
    page.getByRole('navigation').getByRole('link', { name: new RegExp(`^${name}`) });
  await expect(stage('Invite')).toContainText('not yet');
  await stage('Invite').click();
  await expect(page.getByText('There is nobody to invite yet.')).toBeVisible();
  await page.getByRole('link', { name: 'Go to the class list' }).click();
  await expect(page.getByText('No student is on the list yet.')).toBeVisible();
  await stage('Teach').click();
  await expect(page.getByText('No session is ahead in this term.')).toBeVisible();
  await stage('Review').click();
  await expect(page.getByText('No session has been held yet.')).toBeVisible();
  await stage('Recording').click();
  await expect(page.getByTestId('plan-in-force')).toHaveText('Nothing is recorded yet: there is no plan.');
});

test('nothing typed is lost by leaving: it is kept, on any machine, until it is saved or thrown away', async ({
  page,
  browser,
}) => {
  const course = await makeCourse();
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/plan`);
  const stage = (of: Page, name: string) =>
    of.getByRole('navigation').getByRole('link', { name: new RegExp(`^${name}`) });
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByLabel('Name of the series').fill('Clinic');
  await page.getByRole('button', { name: 'friday', exact: true }).click();
  await stage(page, 'Class').click();
  await expect(page.getByRole('heading', { name: 'The class', exact: true })).toBeVisible();

  const elsewhere = await (await browser.newContext()).newPage();
  await signIn(elsewhere, MAREN);
  await elsewhere.goto(`/course/${course.id}/plan`);
  await elsewhere.getByRole('button', { name: 'Add a series' }).click();
  await expect(elsewhere.getByText(/Taken up from what you typed/)).toBeVisible();
  await expect(elsewhere.getByLabel('Name of the series')).toHaveValue('Clinic');
  // Fifteen Fridays, less one of a long weekend and one of the reading week, and a Wednesday that follows Friday.
  await expect(elsewhere.getByTestId('session-count')).toHaveText('14');
  await elsewhere.getByRole('button', { name: 'Throw away what I typed' }).click();
  await elsewhere.getByRole('button', { name: 'Add a series' }).click();
  await expect(elsewhere.getByLabel('Name of the series')).toHaveValue('');
  await elsewhere.context().close();

  await stage(page, 'Limits').click();
  await page.getByLabel('Speak: Open').check();
  await stage(page, 'Teach').click();
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
  await stage(page, 'Limits').click();
  await expect(page.getByLabel('Speak: Open')).toBeChecked();
  await expect(page.getByText(/^Not in force yet/)).toBeVisible();
});

test('changing a pattern keeps what sessions have of their own', async () => {
  const api = await account(MAREN);
  const id = await navigation(api);
  const detail = async () => (await api.get(`/api/courses/${id}`)).json();
  const before = await detail();
  const lecture = before.series.find((s: { title: string }) => s.title === 'Lecture');
  const own = (d: { sessions: { seriesId: string; state: string }[] }) =>
    d.sessions.filter((s) => s.seriesId === lecture.id && ['held', 'cancelled', 'moved'].includes(s.state));
  expect(own(before).map((s) => s.state)).toEqual(expect.arrayContaining(['held', 'cancelled', 'moved']));

  const onlyTuesdays = {
    title: 'Lecture',
    pattern: { ...lecture.pattern, days: [{ ...lecture.pattern.days[0], minutes: 70 }] },
  };
  const change = (series: object) =>
    api.post(`/api/courses/${id}/plan`, { data: { edit: 'change-series', id: lecture.id, series } });
  expect((await change(onlyTuesdays)).ok()).toBe(true);
  const after = await detail();
  expect(
    own(after).map(({ state, ...s }) => [(s as unknown as { id: string; startsAt: number }).id, state]),
  ).toEqual(
    own(before).map(({ state, ...s }) => [(s as unknown as { id: string; startsAt: number }).id, state]),
  );
  const planned = after.sessions.filter(
    (s: { seriesId: string; state: string }) => s.seriesId === lecture.id && s.state === 'planned',
  );
  for (const s of planned) expect(s.minutes).toBe(70);
  const kept = planned.map((s: { id: string }) => s.id);
  const was = before.sessions.map((s: { id: string }) => s.id);
  expect(kept.every((session: string) => was.includes(session))).toBe(true);

  expect((await change({ title: 'Lecture', pattern: lecture.pattern })).ok()).toBe(true);
  const again = await detail();
  expect(again.sessions.map((s: { date: string }) => s.date).sort()).toEqual(
    before.sessions.map((s: { date: string }) => s.date).sort(),
  );
});

const BAD_SERIES: [string, object, string][] = [
  ['no weekday', { title: 'L', pattern: { ...weekly('monday'), days: [] } }, 'Choose at least one weekday.'],
  [
    'a weekday twice',
    {
      title: 'L',
      pattern: { ...weekly('monday'), days: [...weekly('monday').days, ...weekly('monday').days] },
    },
    'Each weekday can be chosen once.',
  ],
  ['an hour that is none', { title: 'L', pattern: weekly('monday', '25:00') }, 'Give a time such as 18:30.'],
  ['no length', { title: 'L', pattern: weekly('monday', '18:30', 0) }, 'A session lasts at least a minute.'],
  [
    'thirteen hours',
    { title: 'L', pattern: weekly('monday', '08:00', 780) },
    'A session lasts at most 12 hours.',
  ],
  [
    'a date that is none',
    { title: 'L', pattern: { ...weekly('monday'), ends: { by: 'date', date: '2026-02-30' } } },
    'Give a date such as',
  ],
  ['no name', { title: '  ', pattern: weekly('monday') }, 'Give the series a name.'],
  [
    'an end before the term',
    { title: 'L', pattern: { ...weekly('monday'), ends: { by: 'date', date: '2020-01-01' } } },
    'gives no session',
  ],
];

test('a series that cannot be is refused with its reason, and nothing is written', async () => {
  const course = await makeCourse();
  const api = await account(MAREN);
  const count = async () => (await (await api.get(`/api/courses/${course.id}`)).json()).sessions.length;
  const before = await count();
  for (const [name, data, reason] of BAD_SERIES) {
    const edit = { edit: 'add-series', series: [data] };
    const answer = await api.post(`/api/courses/${course.id}/plan`, { data: edit });
    expect(answer.status(), name).toBe(422);
    const { error } = await answer.json();
    expect(
      [error.message, ...(error.fields ?? []).map((f: { message: string }) => f.message)].join(' '),
      name,
    ).toContain(reason);
  }
  expect(await count()).toBe(before);
  const broken = await api.post(`/api/courses/${course.id}/plan`, {
    headers: { 'content-type': 'application/json' },
    data: Buffer.from('{"title":'),
  });
  expect(broken.status()).toBe(422);
  const huge = await api.post(`/api/courses/${course.id}/members/preview`, {
    data: { text: 'x'.repeat(7_000_000) },
  });
  expect(huge.status()).toBe(413);
});

test('a class list is imported once: known people are known again, and mended rows come in', async ({
  page,
}) => {
  const course = await makeCourse({ students: 3 });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/class`);
  await page.getByRole('button', { name: 'Import a class list' }).click();
  const list = page.getByLabel('The list');
  await list.fill(
    'Name\tE-mail\tGroup\nAna Lanyon\tana.lanyon@saltmarsh.example\tA\nDora Quill\tdora.quill@\tB',
  );
  await expect(page.getByTestId('roster-counts')).toHaveText('0 new, 1 changed, 2 not in it, 1 bad row');
  await expect(page.getByText('Line 3: "dora.quill@" is not an e-mail address.')).toBeVisible();
  await page.getByLabel('E-mail of line 3').fill('dora.quill@saltmarsh.example');
  await page.getByRole('button', { name: 'Mend' }).click();
  await expect(page.getByTestId('roster-counts')).toHaveText('1 new, 1 changed, 2 not in it, 0 bad rows');
  await page.getByRole('button', { name: 'Add 1 person, change 1' }).click();
  await expect(page.getByText('4 students', { exact: true })).toBeVisible();
  await page.getByLabel('Search the class list').fill('dora');
  await expect(page.getByRole('row', { name: /Dora Quill/ })).toContainText('B');
  await page.getByLabel('Search the class list').fill('nobody of that name');
  await expect(page.getByText('Nobody matches “nobody of that name”.')).toBeVisible();
});

test('pressing invite again reaches only those who were added since, and each letter comes once', async ({
  request,
}) => {
  const course = await makeCourse({ students: 5 });
  const api = await account(MAREN);
  const invite = async () => (await (await api.post(`/api/courses/${course.id}/invitations`)).json()).queued;
  expect(await invite()).toBe(5);
  expect(await invite()).toBe(0);
  await api.post(`/api/courses/${course.id}/members`, {
    data: {
      edit: 'add',
      invite: false,
      person: { name: 'Late Comer', email: 'late.comer@saltmarsh.example' },
    },
  });
  expect(await invite()).toBe(1);
  const states = async () =>
    (await (await api.get(`/api/courses/${course.id}/deliveries`)).json()).map(
      (d: { state: string }) => d.state,
    );
  await expect.poll(states, { timeout: 20_000 }).toEqual(Array(6).fill('sent'));
  const { code } = await (await api.get(`/api/courses/${course.id}`)).json();
  const letters = (await (await request.get('/api/mailbox')).json()).filter((l: { subject: string }) =>
    l.subject.startsWith(`${code} `),
  );
  expect(letters).toHaveLength(6);
  expect(new Set(letters.map((l: { to: string }) => l.to)).size).toBe(6);
  const letter = await (await request.get(`/api/mailbox/${letters[0].id}`)).json();
  expect(letter.calendars[0].content).toContain(`mailto:${letter.to}`);
  expect(letter.html).toContain('Go to your class page');
});

async function ribbon(page: Page) {
  const label = await page.getByRole('img', { name: /Autumn evenings/ }).getAttribute('aria-label');
  return label ?? '';
}

test('the ribbon is the map: it tells the term and leads to a session', async ({ page }) => {
  await signIn(page, MAREN);
  await page.getByText('Coastal Navigation').click();
  await expect(page.getByRole('heading', { name: 'The plan' })).toBeVisible();
  expect(await ribbon(page)).toMatch(/\d+ sessions, \d+ held, from 2026-08-24 to 2026-12-06/);
  await page.locator('[data-sessions]:has([data-state=cancelled]) > rect').first().click();
  // Two of one week are pressed together: to their week, and from there to the session.
  await page.getByRole('button', { name: /: cancelled$/ }).press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Restore');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Course: NAV-210/ }).click();
  await page.getByRole('menuitem', { name: /MET-140/ }).click();
  await expect(page.getByText('Weather at Sea').first()).toBeVisible();
});
