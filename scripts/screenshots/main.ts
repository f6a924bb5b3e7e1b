import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { io, type Socket } from 'socket.io-client';
import config from '../../e2e/playwright.config';
import { account, throughDoor } from '../../e2e/support/course';
import { classList, MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL, ROOT, startProduct } from '../../e2e/support/product';

const folder = path.join(ROOT, 'docs/screenshots');
const PHONE = { width: 390, height: 844 };

async function open(browser: Browser, viewport = { width: 1280, height: 800 }): Promise<Page> {
  const context = await browser.newContext({
    baseURL: BASE_URL,
    viewport,
    timezoneId: 'America/Halifax',
    permissions: ['camera', 'microphone'],
    colorScheme: 'light',
    locale: 'en-GB',
    serviceWorkers: 'block',
  });
  return context.newPage();
}

/** A picture of a page at rest. */
async function shoot(page: Page, name: string) {
  await page.waitForLoadState('networkidle').catch(() => {});
  await page.waitForTimeout(500);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  process.stdout.write(`  ${name}\n`);
}

/** Students by their links, so that the room is not empty. */
async function fill(session: string, links: string[]): Promise<Socket[]> {
  const sockets = links.map((link) =>
    io(BASE_URL, {
      path: '/live',
      transports: ['websocket'],
      auth: { link: link.replace('/in/', '') },
      forceNew: true,
    }),
  );
  for (const socket of sockets) await socket.emitWithAck('enter', { session, after: 0 });
  return sockets;
}

const send = (socket: Socket, command: object) =>
  socket.emitWithAck('command', { id: crypto.randomUUID(), command });

async function planning(page: Page) {
  await signIn(page, MAREN);
  await page.getByText('Coastal Navigation').click();
  await page.waitForURL(/plan/);
  await page.getByRole('button', { name: 'Show the sessions' }).first().waitFor();
  await shoot(page, 'plan');
  const course = page.url().replace(/\/plan.*/, '');
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByLabel('Name of the series').fill('Drop-in clinic');
  for (const day of ['monday', 'wednesday'])
    await page.getByRole('button', { name: day, exact: true }).click();
  const expected = page.getByLabel('Sessions you expect');
  await expected.focus();
  await expected.fill('28');
  await shoot(page, 'series-editor');
  await page.getByRole('button', { name: 'Throw away what I typed' }).click();
  await page.goto(`${course}/plan/week`);
  await page.getByRole('button', { name: 'Week after' }).click();
  await page.getByLabel(/^Lecture, Tue 13 Oct/).click();
  await page.getByRole('dialog').getByText('This and later ones').click();
  await page.getByRole('dialog').getByLabel('Hour').fill('19');
  await page.getByTestId('outcome').waitFor();
  await shoot(page, 'change');
  await page.goto(`${course}/plan`);
  await page.getByRole('button', { name: 'Show the sessions' }).first().click();
  await page.getByRole('link', { name: 'Make it up' }).click();
  await page.getByTestId('slot').first().waitFor();
  await shoot(page, 'make-up');
  await page.goto(`${course}/class`);
  await page.getByLabel('Choose Bram Fontaine').check();
  await shoot(page, 'class');
  await page.getByRole('button', { name: 'Import a class list' }).click();
  await page.getByLabel('The list').fill(classList(12));
  await page.getByTestId('roster-counts').waitFor();
  await shoot(page, 'import');
  for (const stage of ['invite', 'limits', 'recording', 'teach']) {
    await page.goto(`${course}/${stage}`);
    await shoot(page, stage);
  }
  await page.goto(`${course}/limits/term`);
  for (const day of ['Tue 13 Oct', 'Thu 22 Oct'])
    await page.getByLabel(new RegExp(`^Rule sheet of ${day}`)).selectOption('Examination');
  await page.getByText('Lecture, Thu 22 Oct, 18:30: rule sheet Examination.').waitFor();
  await shoot(page, 'limits-term');
  await page.goto(`${course}/limits/run-sheets`);
  await page.getByText('80 minutes planned of 80').waitFor();
  await shoot(page, 'run-sheet');
  await page.goto(`${course}/review/roll-book`);
  await page.getByRole('grid').waitFor();
  await shoot(page, 'roll-book');
  await page.goto(`${course}/review`);
  await page
    .getByRole('table')
    .getByRole('link', { name: /Lecture/ })
    .first()
    .click();
  await page.getByTestId('roll').waitFor();
  await shoot(page, 'session');
  await page.getByRole('link', { name: 'Watch' }).click();
  await page.getByRole('combobox', { name: 'Captions', exact: true }).selectOption('en');
  await page.locator('audio').evaluate((a: HTMLAudioElement) => {
    a.currentTime = 45;
  });
  // Both pictures have followed.
  await page.waitForTimeout(1500);
  await shoot(page, 'watch');
  return course;
}

async function teaching(browser: Browser, page: Page, course: string) {
  const api = await account(MAREN);
  const id = course.split('/').at(-1);
  const members = await (await api.get(`/api/courses/${id}/members`)).json();
  const links: string[] = members
    .filter((m: { role: string }) => m.role === 'student')
    .map((m: { link: string }) => m.link);
  await page.goto(`${course}/teach`);
  const next = page.getByRole('region', { name: 'Next session' });
  await next.getByRole('link', { name: 'Open the room' }).click();
  await page.getByRole('button', { name: 'Ring in' }).click();
  await page.getByRole('button', { name: /^Camera/ }).click();
  await page.getByRole('button', { name: /^Microphone/ }).click();
  const session = page.url().split('/').at(-1)!;
  const student = await open(browser, PHONE);
  await student.goto(links[3]!);
  await student.getByRole('link', { name: 'Enter the class' }).waitFor();
  await shoot(student, 'student-page');
  await student.getByRole('link', { name: 'Enter the class' }).click();
  const class_ = await fill(session, links.slice(4, 25));
  await page
    .getByLabel('Write', { exact: true })
    .fill('Good evening. Chart 4012 on the table, please, and a sharp pencil.');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Next: Lecture/ }).click();
  await send(class_[2]!, {
    type: 'say',
    addressee: { to: 'class' },
    text: 'Is the tidal diamond B the one off the breakwater?',
  });
  await send(class_[5]!, {
    type: 'say',
    addressee: { to: 'teachers' },
    text: 'I am on a ferry and may drop out for a minute.',
  });
  await send(class_[2]!, { type: 'raiseHand' });
  await send(class_[7]!, { type: 'raiseHand' });
  await page.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Slides').click();
  await page.getByRole('button', { name: 'Show Tidal streams.pdf' }).click();
  await page.locator('canvas[data-drawn="1"]').waitFor();
  await page.keyboard.press('PageDown');
  for (const view of [page, student]) await view.locator('canvas[data-drawn="2"]').waitFor();
  await page.waitForTimeout(2500);
  await shoot(page, 'room-teacher');
  await student.getByRole('button', { name: /^Microphone/ }).click();
  await shoot(student, 'room-student');
  await student.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Hush/ }).click();
  await page.evaluate(() => localStorage.setItem('mantine-color-scheme-value', 'dark'));
  await page.reload();
  await throughDoor(page);
  await page.getByText('Board', { exact: true }).click();
  const board = page.getByRole('img', { name: /^Board/ });
  const box = (await board.boundingBox())!;
  await page.mouse.move(box.x + 120, box.y + 220);
  await page.mouse.down();
  for (let i = 0; i <= 60; i++)
    await page.mouse.move(box.x + 120 + i * 7, box.y + 220 + 70 * Math.sin(i / 8));
  await page.mouse.up();
  await shoot(page, 'room-hush-dark');
  for (const socket of class_) socket.disconnect();
}

async function screenshots() {
  mkdirSync(folder, { recursive: true });
  const stop = await startProduct();
  // Without a camera in the machine the product's own stand-ins are seen.
  const args = config.use!.launchOptions!.args!.filter((a) => !a.includes('fake-device'));
  const browser = await chromium.launch({ ...config.use!.launchOptions, args });
  try {
    const page = await open(browser);
    const course = await planning(page);
    await teaching(browser, page, course);
  } finally {
    await browser.close();
    await stop();
  }
}

await screenshots();
