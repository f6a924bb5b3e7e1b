import { expect, test } from '@playwright/test';
import type { Delivery } from '@nimble-bell/core/api';
import { io } from 'socket.io-client';
import { account, byLink, dismiss, makeCourse, ringIn, throughDoor, walkIn } from './support/course';
import { MAREN, person } from './support/people';
import { BASE_URL, pidOf } from './support/product';

test('the server is killed in class and comes back: pages return by themselves and no acknowledged event is lost', async ({
  browser,
  page,
}) => {
  test.setTimeout(120_000);
  const course = await makeCourse({ record: true, limits: { speak: 'byHand', writeToClass: 'open' } });
  await ringIn(page, course, ['Microphone', 'Camera']);
  const ana = await walkIn(browser, course);
  await ana.getByRole('button', { name: 'Raise hand' }).click();
  await page.getByRole('radio', { name: 'Draw on the board: Open' }).click();
  await expect(page.getByRole('button', { name: 'Give the floor' })).toBeVisible();
  const pictureMoves = () =>
    ana.evaluate(() => Math.max(0, ...[...document.querySelectorAll('video')].map((v) => v.currentTime)));
  await expect.poll(pictureMoves, { timeout: 15_000 }).toBeGreaterThan(0.3);

  // A writer that notes which of its words were acknowledged, up to the moment of the kill and past it.
  const writer = io(BASE_URL, {
    path: '/live',
    transports: ['websocket'],
    auth: { link: course.students[1]!.link.replace('/in/', '') },
  });
  await writer.emitWithAck('enter', { session: course.session, after: 0 });
  const acknowledged: string[] = [];
  let writing = true;
  const write = (async () => {
    for (let i = 0; writing && i < 400; i++) {
      const text = `word ${i}`;
      const command = { type: 'say', addressee: { to: 'class' }, text };
      writer
        .timeout(3000)
        .emit(
          'command',
          { id: crypto.randomUUID(), command },
          (error: Error | null, reply: { ok: boolean }) => {
            if (!error && reply.ok) acknowledged.push(text);
          },
        );
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  await expect.poll(() => acknowledged.length).toBeGreaterThan(40);
  const before = pidOf('app');
  process.kill(before, 'SIGKILL');
  await expect(page.getByText('The connection is lost.')).toBeVisible();
  writing = false;
  await write;
  writer.disconnect();
  // Written while the server is away: kept, and sent when it is back.
  await ana.getByLabel('Write', { exact: true }).fill('Are we still on?');
  await ana.getByRole('button', { name: 'Say it' }).click();

  await expect
    .poll(async () => (await page.request.get('/api/health').catch(() => null))?.ok() ?? false, {
      intervals: [20],
    })
    .toBe(true);
  const returned = Date.now();
  for (const view of [page, ana])
    await expect(view.getByText('The connection is lost.')).toHaveCount(0, { timeout: 3000 });
  console.log(`pages were back ${Date.now() - returned} ms after the server`);
  expect(pidOf('app')).not.toBe(before);

  await expect(page.getByText('Are we still on?')).toHaveCount(1);
  for (const view of [page, ana]) {
    const said = await view.getByRole('log').locator('p').allInnerTexts();
    const words = said.filter((t) => t.startsWith('word '));
    expect(new Set(words).size).toBe(words.length);
    expect(acknowledged.filter((t) => !words.includes(t))).toEqual([]);
  }
  // The state is what it was: the hand, the live limit, the recording, and who is here.
  await expect(page.getByRole('button', { name: 'Give the floor' })).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Draw on the board: Open' })).toHaveAttribute(
    'aria-checked',
    'true',
  );
  await expect(page.getByTestId('recording-mark')).toHaveText('Being recorded');
  await expect
    .poll(
      () =>
        ana.evaluate(() =>
          [...document.querySelectorAll('video')].some(
            (v) => v.currentTime > 0.2 && !v.paused && v.videoWidth > 0,
          ),
        ),
      { timeout: 15_000 },
    )
    .toBe(true);

  await page.waitForTimeout(2500);
  await dismiss(page);
  const api = await account(MAREN);
  const recording = async () =>
    (await (await api.get(`/api/sessions/${course.session}`)).json()).recordings[0];
  await expect.poll(async () => (await recording()).state, { timeout: 40_000 }).toBe('ready');
  // One roll: the teacher reads of a student what the student reads.
  const { roll } = await (await api.get(`/api/sessions/${course.session}`)).json();
  const mine = await byLink(course.students[0]!.link);
  const [own] = await (await mine.get('/api/my-course/attendance')).json();
  expect(own.line).toEqual(roll.find((l: { member: string }) => l.member === course.students[0]!.id));
  await page.goto(`/course/${course.id}/watch/${(await recording()).id}`);
  await expect(page.getByText(/seconds? (is|are) missing, because the server was away/)).toBeVisible();
  await expect
    .poll(() => page.locator('audio').evaluate((a: HTMLAudioElement) => a.duration))
    .toBeGreaterThan(4);
});

test('without the relay the room goes on and says so; when it returns, sound and picture do too', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ limits: { writeToClass: 'open' } });
  await ringIn(page, course, ['Camera']);
  const ana = await walkIn(browser, course);
  const shows = () =>
    ana.evaluate(() =>
      [...document.querySelectorAll('video')].some((v) => v.currentTime > 0.2 && v.videoWidth > 0),
    );
  await expect.poll(shows, { timeout: 15_000 }).toBe(true);

  const said = ana.waitForFunction(() =>
    document.body.innerText.includes('Sound and picture are away for the moment'),
  );
  process.kill(pidOf('relay'), 'SIGKILL');
  await said;
  await ana.getByLabel('Write', { exact: true }).fill('I see no picture.');
  await ana.getByRole('button', { name: 'Say it' }).click();
  await expect(page.getByText('I see no picture.')).toBeVisible();

  await expect(ana.getByText('Sound and picture are away for the moment')).toHaveCount(0, {
    timeout: 15_000,
  });
  await expect.poll(shows, { timeout: 20_000 }).toBe(true);
  await dismiss(page);
});

test('mail that is not taken is tried again and said, and arrives when the mailbox is back', async () => {
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  process.kill(pidOf('mailbox'), 'SIGKILL');
  await api.post(`/api/courses/${course.id}/invitations`);
  const deliveries = async (): Promise<Delivery[]> =>
    (await api.get(`/api/courses/${course.id}/deliveries`)).json();
  await expect
    .poll(async () => (await deliveries()).map((d) => d.state), { timeout: 40_000 })
    .toEqual(['sent', 'sent']);
});

test('the server is killed while one waits at the door: they knock again by themselves, once, and are let in', async ({
  browser,
  page,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const door = await api.put(`/api/courses/${course.id}/door`, { data: { classList: 'knocks' } });
  expect(door.ok()).toBe(true);
  await ringIn(page, course);
  const [ana] = await person(browser);
  const [ben, goes] = await person(browser);
  for (const [i, view] of [ana, ben].entries()) {
    await view.goto(`${course.students[i]!.link}/room/${course.session}`);
    await throughDoor(view);
    await expect(view.getByRole('heading', { name: 'You have knocked' })).toBeVisible();
  }
  await expect(page.getByRole('region', { name: 'At the door: 2' })).toBeVisible();
  await page.getByRole('button', { name: 'Lock the door' }).click();
  process.kill(pidOf('app'), 'SIGKILL');
  await expect(page.getByText('The connection is lost.')).toBeVisible();
  // Who gives up while the server is away knocks no more.
  await goes.close();
  await expect(page.getByText('The connection is lost.')).toHaveCount(0, { timeout: 30_000 });
  // The lock is what it was, and whoever waited meets it: it is read from the room’s events.
  await expect(page.getByRole('button', { name: 'Unlock the door' })).toBeVisible();
  await expect(ana.getByText('The door is locked. Nobody else comes in for now.')).toBeVisible({
    timeout: 15_000,
  });
  await expect(page.getByRole('region', { name: /^At the door/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Unlock the door' }).click();
  await ana.reload();
  await throughDoor(ana);
  await expect(page.getByRole('region', { name: 'At the door: 1' })).toContainText('Ana Lanyon');
  process.kill(pidOf('app'), 'SIGKILL');
  await expect(page.getByText('The connection is lost.')).toBeVisible();
  await expect(page.getByText('The connection is lost.')).toHaveCount(0, { timeout: 30_000 });
  const again = page.getByRole('region', { name: 'At the door: 1' });
  await expect(again).toContainText('Ana Lanyon', { timeout: 15_000 });
  await page.getByRole('button', { name: 'Let in Ana Lanyon' }).click();
  await expect(ana.getByRole('group', { name: 'Your desk' })).toBeVisible();
  await dismiss(page);
});
