import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import type { CutTable, RecordingDetail, RoomCommand, StoredEvent } from '@nimble-bell/core/api';
import { violations } from './support/axe';
import {
  account,
  byLink,
  dismiss,
  makeCourse,
  readyRecording,
  ringIn,
  throughDoor,
  walkIn,
} from './support/course';
import { countPresses } from './support/interactions';
import { cookie, live } from './support/live';
import { MAREN, seat } from './support/people';
import { DATA } from './support/product';
import { OPEN_AT_TABLES } from '@nimble-bell/core/limits';

/** A press that draws, from one point of the board to another. */
async function drawOn(page: Page) {
  await page.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Board').click();
  const box = (await page.getByRole('img', { name: /^Board with/ }).boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + 140, box.y + 70, { steps: 5 });
  await page.mouse.up();
}

/** A microphone that hears somebody speak on and on, as the relay knows a voice. */
const speakOn = (page: Page) =>
  page.evaluate(() => {
    const audio = new AudioContext();
    const out = audio.createMediaStreamDestination();
    const tone = new OscillatorNode(audio, { frequency: 220 });
    tone.connect(new GainNode(audio, { gain: 0.6 })).connect(out);
    tone.start();
    navigator.mediaDevices.getUserMedia = async () => out.stream.clone();
  });

test('a class goes to tables: heard, seen, written and drawn by those at each alone; looked after, called back, shown', async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  const course = await makeCourse({ students: 4, record: true, apart: true });
  const maren = await account(MAREN);
  const recording = { studentsWatch: true, tables: true };
  await maren.put(`/api/courses/${course.id}/rules`, { data: { at: { layer: 'course' }, recording } });
  const [anaName, benName, cleoName] = course.students.map((s) => s.name) as [string, string, string];
  const given: { id: string }[] = [];
  for (const [name, whose] of [
    ['Chart.txt', 'class'],
    ['Answers.txt', 'teachers'],
  ]) {
    const to = `/api/courses/${course.id}/materials?name=${name}&for=${whose}`;
    const sent = await maren.post(to, {
      data: 'High water at six.',
      headers: { 'content-type': 'text/plain' },
    });
    given.push(await sent.json());
  }
  await ringIn(page, course);
  const ana = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 } });
  const ben = await walkIn(browser, course, 1);
  const cleo = await walkIn(browser, course, 2);

  const picture = seat(cleo, 'Maren Oduya').locator('video');
  await page.getByRole('button', { name: /^Camera/ }).click();
  await expect(picture).toBeVisible();

  // What the class has not is given to no table, by whoever teaches either.
  const desk = live({ cookie: await cookie(maren) });
  await desk.emitWithAck('enter', { session: course.session, after: 0 });
  const forged = {
    ...{ type: 'layTables', tables: [{ name: 'North', members: [] }], seconds: null, limits: OPEN_AT_TABLES },
    files: [{ material: given[1]!.id, name: 'Answers.txt' }],
  };
  const refused = await desk.emitWithAck('command', { id: crypto.randomUUID(), command: forged });
  expect(refused.refusal.code).toBe('not-found');
  desk.disconnect();

  // Two tables for ten minutes: whoever is at which is said by hand, so that it is known here.
  const presses = await countPresses(page);
  await page.getByRole('button', { name: /^Tables/ }).click();
  expect.soft(await violations(page), 'laying tables').toEqual([]);
  const first = await presses();
  const choice = page.getByRole('group', { name: 'Files for it' });
  await choice.getByRole('button', { name: 'Chart.txt' }).click();
  await expect(choice.getByRole('button', { name: 'Answers.txt' })).toHaveCount(0);
  await presses();
  await page.getByRole('button', { name: 'To the tables' }).click();
  expect(first + (await presses())).toBeLessThanOrEqual(3);
  await expect(ana.getByTestId('tables')).toContainText(/Table [12]/);
  const chart = ana.getByTestId('tables').getByRole('link', { name: 'Chart.txt' });
  const read = await ana.request.get((await chart.getAttribute('href'))!);
  expect(await read.text()).toBe('High water at six.');
  const at = (name: string) => page.getByRole('region', { name, exact: true });
  const sit = async (who: string, table: string) => {
    const name = page.getByRole('button', { name: who, exact: true });
    await expect(name).toBeVisible();
    if (await at(table).getByRole('button', { name: who }).count()) return;
    await name.click();
    await at(table).getByRole('button', { name: 'Seat here' }).click();
    await expect(at(table).getByRole('button', { name: who })).toBeVisible();
  };
  // By dragging, and by pressing a name and then a table.
  const drag = async (who: string, table: string) => {
    await page.getByRole('button', { name: who, exact: true }).hover();
    await page.mouse.down();
    const { x, y, width, height } = (await at(table).boundingBox())!;
    await page.mouse.move(x + width / 2, y + height / 2, { steps: 8 });
    await page.mouse.up();
    await expect(at(table).getByRole('button', { name: who })).toBeVisible();
  };
  for (const table of ['Table 1', 'Table 2', 'Table 1']) await drag(anaName, table);
  await sit(anaName, 'Table 1');
  await sit(benName, 'Table 1');
  await sit(cleoName, 'Table 2');
  for (const [who, table] of [
    [ana, 'Table 1'],
    [ben, 'Table 1'],
    [cleo, 'Table 2'],
  ] as const)
    await expect(who.getByTestId('tables')).toContainText(table);
  await expect(ana.getByTestId('tables')).toContainText('recorded, for this table');

  // Speaking is by hand in class; here it is open, and heard by who sits there.
  await speakOn(ana);
  await ana.getByRole('button', { name: /^Microphone/ }).click();
  await expect(seat(ben, anaName)).toHaveAttribute('data-speaking', 'true', { timeout: 20_000 });
  await expect(seat(cleo, anaName)).toHaveAttribute('data-speaking', 'false');
  await expect(seat(page, anaName)).toHaveAttribute('data-speaking', 'false');
  await expect(at('Table 1').getByRole('img', { name: 'speaking' })).toBeVisible();

  // Nor has she the picture of the class any more.
  await expect(picture).toHaveCount(0);

  await ben.getByLabel('Write', { exact: true }).fill('Only at table one');
  await ben.getByLabel('Write', { exact: true }).press('Enter');
  await expect(ana.getByText('Only at table one', { exact: true })).toBeVisible();
  await drawOn(ben);
  await expect(at('Table 1').getByRole('img', { name: 'Board with 1 stroke' })).toBeVisible();

  // A script at another table has nothing of it, by any way; nor a seat at a table that is not theirs.
  const other = live({ link: course.students[2]!.link.replace('/in/', '') });
  const heard: StoredEvent[] = [];
  other.on('events', (events: StoredEvent[]) => heard.push(...events));
  const send = (command: RoomCommand) => other.emitWithAck('command', { id: crypto.randomUUID(), command });
  const mine = await other.emitWithAck('enter', { session: course.session, after: 0 });
  const since = await other.emitWithAck('enter', { session: course.session, after: 1 });
  for (const reply of [mine, since]) expect(JSON.stringify(reply)).not.toContain('Only at table one');
  expect(mine.room.board.marks).toEqual([]);
  const [one] = mine.room.tables.laid.tables;
  expect((await send({ type: 'goTo', place: one.place })).refusal.code).toBe('stays');
  const opened = await other.emitWithAck('documentOpen', { place: one.place, name: 'notes' });
  expect(opened.ok).toBe(false);
  expect((await send({ type: 'showWork', place: one.place })).refusal.code).toBe('teachers-only');
  await drawOn(ben);
  await expect(at('Table 1').getByRole('img', { name: 'Board with 2 strokes' })).toBeVisible();
  expect(heard.some((e) => e.type === 'drawn')).toBe(false);
  other.disconnect();

  // A call is in the queue until somebody comes, who hears and reads what is there.
  await ana.getByRole('button', { name: 'Call a teacher' }).click();
  await expect(ana.getByText('A teacher comes to you next.')).toBeVisible();
  await expect(page.getByTestId('aloud')).toContainText('Table 1 asks for you.');
  await page.getByRole('button', { name: 'Go to Table 1' }).click();
  await expect(ana.getByRole('button', { name: 'Call a teacher' })).toBeVisible();
  await expect(seat(page, anaName)).toHaveAttribute('data-speaking', 'true', { timeout: 20_000 });
  await expect(page.getByText('Only at table one', { exact: true })).toBeVisible();

  for (const [view, what] of [
    [page, 'all tables'],
    [ana, 'at a table'],
  ] as const)
    expect.soft(await violations(view), what).toEqual([]);

  // Whoever loads the page again, or comes late, is at a table at once.
  await cleo.reload();
  await throughDoor(cleo);
  await expect(cleo.getByTestId('tables')).toContainText('Table 2');
  const dora = await walkIn(browser, course, 3);
  await expect(dora.getByTestId('tables')).toContainText('Table 2');

  const word = page.getByRole('textbox', { name: 'A word to all tables' });
  await word.fill('Two minutes');
  await word.press('Enter');
  for (const who of [ana, cleo]) await expect(who.getByTestId('tables')).toContainText('Two minutes');
  await presses();
  await page.getByRole('button', { name: 'Everybody back' }).click();
  expect(await presses()).toBe(1);
  await expect(dora.getByTestId('tables')).toContainText('then all are back');
  await page.getByRole('button', { name: 'Back at once' }).click();
  for (const who of [page, ana, cleo]) await expect(who.getByTestId('tables')).toHaveCount(0);
  // In the class speaking is by hand again, and what was open is off.
  await expect(ana.getByRole('button', { name: /^Microphone/ })).toHaveAttribute('aria-pressed', 'false');
  await expect(cleo.getByText('Only at table one')).toHaveCount(0);
  await expect(picture).toBeVisible();

  await page.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Board').click();
  await page.getByRole('button', { name: 'Table 1', exact: true }).click();
  await expect(cleo.getByText('What Table 1 made').first()).toBeVisible();
  await expect(cleo.getByRole('img', { name: 'Board with 2 strokes' })).toBeVisible();
  await page.getByRole('button', { name: 'The class’s own board' }).click();
  await expect(cleo.getByRole('img', { name: 'Board with 0 strokes' })).toBeVisible();
  await dismiss(page);

  // What was said at table one is heard by who sat there and by those who teach; by nobody who asks for it otherwise.
  const id = await readyRecording(maren, course.session);
  const [anas, cleos] = await Promise.all([0, 2].map((i) => byLink(course.students[i]!.link)));
  const told = async (who: APIRequestContext) =>
    (await (await who.get(`/api/recordings/${id}`)).json()) as RecordingDetail;
  await expect.poll(async () => (await told(maren)).tables, { timeout: 60_000 }).not.toBeNull();
  const [sound, ...more] = (await told(anas!)).tables!;
  expect([sound?.name, sound?.members, more]).toEqual(['Table 1', [], []]);
  const heardBack = await anas!.get(sound!.path);
  expect([heardBack.status(), heardBack.headers()['content-type']]).toEqual([200, 'audio/webm']);
  expect((await heardBack.body()).length).toBeGreaterThan(5000);
  const cleoTold = await told(cleos!);
  expect(cleoTold.tables).toEqual([]);
  const ticket = new URL(cleoTold.mediaPath, 'http://x').search;
  expect((await cleos!.get(`/api/recordings/${id}/tables/${sound!.place}${ticket}`)).status()).toBe(404);
  expect((await told(maren)).tables!.map((t) => t.members.includes(anaName))).toEqual([true]);
  // By a link for anybody nothing of it is had, but that the class was at tables meanwhile.
  const until = (await (await maren.get('/api/me')).json()).now + 86_400_000;
  const { path: link } = await (await maren.post(`/api/recordings/${id}/shares`, { data: { until } })).json();
  const shared = (await (await cleos!.get(`/api${link}`)).json()) as RecordingDetail;
  expect([shared.tables, shared.gaps.map((g) => g.why)]).toEqual([[], ['tables']]);
  // Its beginning is cut out, and is there again: what was said at the table stays where it was.
  const cuts = `/api/recordings/${id}/cuts`;
  const cutIs = async () => (await (await maren.get(cuts)).json()) as CutTable;
  const marks = [
    { from: 0, fate: 'out' },
    { from: 500, fate: 'kept' },
  ];
  const cut = await maren.put(cuts, { data: { marks, nobody: [], after: null } });
  expect(cut.status()).toBe(200);
  await expect.poll(async () => (await cutIs()).state, { timeout: 30_000 }).toBe('ready');
  const back = { number: null, after: (await cut.json()).number };
  expect((await maren.put(`${cuts}/in-force`, { data: back })).status()).toBe(200);
  const files = () => readdir(path.join(DATA, 'recordings', 'ready', id));
  await expect.poll(files, { timeout: 30_000 }).not.toContain('cut-1-sound.webm');
  expect((await anas!.get((await told(anas!)).tables![0]!.path)).status()).toBe(200);
  await page.goto(`/course/${course.id}/watch/${id}`);
  await expect(page.getByRole('region', { name: 'At the tables' }).locator('audio')).toHaveCount(1);
  await expect(page.getByText(/the class was at tables for/)).toBeVisible();
});
