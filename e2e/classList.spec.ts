import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import type { MemberInfo } from '@nimble-bell/core/api';
import { account, byLink, detailOf, makeCourse, type MadeCourse } from './support/course';
import { MAREN, signIn } from './support/people';

const file = (name: string, content: string | Buffer) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(content),
});
const classPage = async (page: Page, course: MadeCourse) => {
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/class`);
};
const members = async (course: MadeCourse): Promise<MemberInfo[]> =>
  (await (await account(MAREN)).get(`/api/courses/${course.id}/members`)).json();

test('a OneRoster set of three files gives its classes, and the list of the one chosen', async ({ page }) => {
  const course = await makeCourse({ students: 0 });
  await classPage(page, course);
  await page
    .locator('input[type=file]')
    .setInputFiles([
      file(
        'enrollments.csv',
        'sourcedId,classSourcedId,schoolSourcedId,userSourcedId,role\ne1,c1,s,u1,student\ne2,c1,s,u2,student\ne3,c1,s,u3,teacher',
      ),
      file(
        'classes.csv',
        'sourcedId,status,title,courseSourcedId,classCode\nc1,,Coastal Navigation,k,NAV\nc2,,Weather,k,MET',
      ),
      file(
        'users.csv',
        `sourcedId,status,enabledUser,givenName,familyName,email\nu1,,true,Rhona,Tides,rhona.${course.id}@saltmarsh.example\nu2,,true,Sam,Quill,\nu3,,true,Maren,Oduya,${MAREN}`,
      ),
    ]);
  await page.getByRole('combobox', { name: 'Which class of the set' }).click();
  await page.getByRole('option', { name: 'NAV Coastal Navigation (2 students)' }).click();
  await expect(page.getByTestId('roster-counts')).toHaveText('1 new, 0 changed, 0 not in it, 1 bad row');
  await page.getByRole('button', { name: 'Add 1 person' }).click();
  await expect(page.getByText('1 student', { exact: true })).toBeVisible();
  expect((await members(course)).map((m) => m.name)).toContain('Rhona Tides');
});

test('a file of an old spreadsheet is read with its accents, and its columns can be said otherwise', async ({
  page,
}) => {
  const course = await makeCourse({ students: 0 });
  await classPage(page, course);
  const latin = Buffer.from(
    `Prénom;Nom;Courriel;Niveau\nZoë;Müller;zoe.${course.id}@saltmarsh.example;B2`,
    'latin1',
  );
  await page.locator('input[type=file]').setInputFiles([file('liste.csv', latin)]);
  await expect(page.getByText('liste.csv, read as windows-1252')).toBeVisible();
  await page.getByLabel('Niveau').selectOption({ label: 'Group' });
  await page.getByRole('button', { name: 'Add 1 person' }).click();
  const list = page.getByRole('grid', { name: 'Class list' });
  await expect(list.getByRole('row', { name: /Zoë Müller/ })).toContainText('B2');
});

test('what is downloaded is read in again as nothing new, and no cell of it is a formula', async ({
  page,
}) => {
  const course = await makeCourse({ students: 3 });
  const api = await account(MAREN);
  await api.post(`/api/courses/${course.id}/members`, {
    data: {
      edit: 'add',
      invite: false,
      person: { name: '=HYPERLINK("x")', email: `formula.${course.id}@saltmarsh.example` },
    },
  });
  await classPage(page, course);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download as CSV' }).click(),
  ]);
  const csv = readFileSync((await download.path())!, 'utf8');
  expect(csv).toContain(`"'=HYPERLINK(""x"")"`);
  await page.getByRole('button', { name: 'Import a class list' }).click();
  await page.locator('input[type=file]').setInputFiles([file('again.csv', csv)]);
  await expect(page.getByTestId('roster-counts')).toContainText('0 new');
  await expect(page.getByTestId('roster-counts')).toContainText('0 not in it');
});

test('the list is worked by keyboard: found, chosen, edited, taken off, and taken back', async ({ page }) => {
  const course = await makeCourse({ students: 4, apart: true });
  await classPage(page, course);
  const grid = page.getByRole('grid', { name: 'Class list' });
  // One stop of the Tab key; arrows go from cell to cell, and focus with them.
  await grid.locator('[tabindex="0"]').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(grid.getByRole('gridcell', { name: 'Ana Lanyon', exact: true })).toBeFocused();
  await page.keyboard.press('Enter');
  const cell = page.getByLabel('Name of Ana Lanyon');
  await expect(cell).toBeFocused();
  await page.keyboard.type('Ana M. Lanyon');
  await page.keyboard.press('Enter');
  await expect(grid.getByText('Ana M. Lanyon')).toBeVisible();
  await expect(grid.getByRole('gridcell', { name: 'Ana M. Lanyon', exact: true })).toBeFocused();
  // Each of the others that can be changed, by key alone; what cannot be is not opened.
  for (const heading of ['E-mail', 'Role', 'Group', 'Zone, time there']) {
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('F2');
    const editor = page.getByLabel(`${heading} of Ana M. Lanyon`);
    await expect(editor).toHaveCount(heading === 'Role' ? 0 : 1);
    await page.keyboard.press('Escape');
  }
  // The heading above sorts, and stays where it is.
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('columnheader', { name: /Name/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect(page.getByRole('button', { name: /^Name/ })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 people chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Take off the list' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByTestId('list-outcome')).toContainText('Ana M. Lanyon leaves');
  await expect(dialog.getByText('Nobody is written to.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 2 people off' }).press('Enter');
  await expect(page.getByText('2 students', { exact: true })).toBeVisible();
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).press('Enter');
  await expect(page.getByText('4 students', { exact: true })).toBeVisible();
  await grid.locator('[tabindex="0"]').focus();
  await page.keyboard.press('Control+a');
  await expect(page.getByText('5 people chosen')).toBeVisible();
});

test('a student moved to another group has its sessions, and loses the other’s', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  const [ana] = course.students;
  const plan = (group: string) => ({
    title: `Lab ${group}`,
    kind: 'group',
    group,
    pattern: { kind: 'weekly', days: [{ day: 'friday', start: '17:30', minutes: 45 }], ends: { by: 'term' } },
  });
  const series = await api.post(`/api/courses/${course.id}/plan`, {
    data: { edit: 'add-series', series: [plan('A'), plan('B')] },
  });
  await api.post(`/api/courses/${course.id}/plan`, {
    data: { edit: 'publish', ids: (await series.json()).made },
  });
  const put = (group: string) =>
    api.post(`/api/courses/${course.id}/members`, {
      data: { edit: 'change', members: [ana!.id], fields: { group } },
    });
  const labs = async () => {
    const mine = await (await (await byLink(ana!.link)).get('/api/my-course')).json();
    return [...new Set(mine.sessions.map((s: { seriesTitle: string }) => s.seriesTitle))].sort();
  };
  await put('A');
  expect(await labs()).toEqual(['Lab A', 'Lecture']);
  const moved = await (await put('B')).json();
  expect(moved.people).toMatchObject([{ words: 'group B instead of A' }]);
  expect(await labs()).toEqual(['Lab B', 'Lecture']);
});

test('a file is sent with its progress and taken away; one of a kind that is not taken says so', async ({
  page,
}) => {
  const course = await makeCourse({ students: 1 });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/invite/files`);
  await page
    .locator('input[type=file]')
    .setInputFiles([file('Chart.pdf', '%PDF-1.4'), file('setup.exe', 'MZ')]);
  await expect(page.getByText(/setup\.exe A file of this kind is not taken/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'Chart.pdf' })).toBeVisible();
  const link = await byLink(course.students[0]!.link);
  const [material] = await (await link.get(`/api/courses/${course.id}/materials`)).json();
  const sent = await link.get(material.url);
  expect(sent.headers()['content-disposition']).toContain('attachment');
  expect(sent.headers()['x-content-type-options']).toBe('nosniff');
  expect(
    (
      await link.get(
        material.url.replace(/ticket=(.)/, (_all: string, c: string) => `ticket=${c === 'x' ? 'y' : 'x'}`),
      )
    ).status(),
  ).toBe(401);
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByText('There is no file or link yet.')).toBeVisible();
  expect((await link.get(material.url)).status()).toBe(404);
});

test('a notice is written with the day’s plan in it, and read on the student’s page', async ({ page }) => {
  const course = await makeCourse({ students: 1 });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/invite/notices`);
  await page.getByRole('button', { name: 'Write a notice' }).click();
  await page.getByLabel('Title').fill('Bring chart 4012');
  await page.getByRole('textbox', { name: 'Text of the notice' }).click();
  await page.keyboard.type('A sharp pencil too.');
  await page.getByRole('button', { name: "Put in that day's plan" }).click();
  await page.getByRole('button', { name: 'Put it up' }).click();
  await expect(page.getByRole('region', { name: 'Bring chart 4012' })).toContainText('18:30–19:50');
  await page.goto(course.students[0]!.link);
  const notice = page.getByRole('article', { name: 'Bring chart 4012' });
  await expect(notice).toContainText('A sharp pencil too.');
  await expect(notice).toContainText('21:30–22:50');
  await page.goto(`/course/${course.id}/invite/notices`);
  await page.getByRole('button', { name: 'Take down' }).click();
  await page.getByRole('button', { name: 'Take it down' }).click();
  await expect(page.getByText('Nothing is on the board.', { exact: false })).toBeVisible();
});

test('the invitation is rewritten in place, seen as one person gets it, and kept', async ({ page }) => {
  const course = await makeCourse({ students: 2 });
  await signIn(page, MAREN);
  await page.goto(`/course/${course.id}/invite`);
  await page.getByLabel('Text', { exact: true }).fill('Hello {name}, [come in]({link}) to {course}.');
  await page.getByText('Plain text').click();
  await expect(page.getByText(/^Hello Ana Lanyon, come in \(http/)).toBeVisible();
  await page.getByLabel('Text', { exact: true }).fill('Hello {nobody}');
  await expect(page.getByText('There is no field {nobody}.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this letter' })).toBeDisabled();
  await page.getByLabel('Text', { exact: true }).fill('Hello {name}, {link}');
  await page.getByRole('button', { name: 'Keep this letter' }).click();
  await expect(page.getByText('The letter is kept.')).toBeVisible();
  expect((await detailOf(await account(MAREN), course.id)).invitation?.text).toBe('Hello {name}, {link}');
});
