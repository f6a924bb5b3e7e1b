import { readFile } from 'node:fs/promises';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import type { KeptBoardInfo } from '@nimble-bell/core/api';
import type { RoomCommand, StoredEvent } from '@nimble-bell/core/room';
import { violations } from './support/axe';
import { account, byLink, dismiss, makeCourse, ringIn, walkIn } from './support/course';
import { countPresses } from './support/interactions';
import { live } from './support/live';
import { MAREN } from './support/people';

const board = (page: Page, name: string | RegExp = /^Board/) => page.getByRole('img', { name });
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** A hand goes over the board, in fractions of it. */
async function drag(page: Page, from: [number, number], to: [number, number]) {
  const box = (await board(page).boundingBox())!;
  // The board is as high as nine sixteenths of its width, in the middle of its surface.
  const width = Math.min(box.width, (box.height * 16) / 9);
  const height = (width * 9) / 16;
  const at = ([x, y]: [number, number]): [number, number] => [
    box.x + (box.width - width) / 2 + x * width,
    box.y + (box.height - height) / 2 + y * height,
  ];
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 6 });
  await page.mouse.up();
}

test('a board is drawn on in figures, moved and wiped by those whose it is, cleared and put back; saved', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ limits: { draw: 'open', attachFiles: 'open' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  for (const view of [page, ana]) await view.getByText('Board', { exact: true }).click();
  await drag(page, [0.1, 0.1], [0.3, 0.3]);
  await press(ana, 'Arrow');
  await drag(ana, [0.5, 0.5], [0.8, 0.6]);
  await press(ana, 'Box');
  await drag(ana, [0.5, 0.7], [0.6, 0.9]);
  await expect(board(page, 'Board with 1 stroke and 2 shapes')).toBeVisible();
  // Her arrow is moved by its shaft; what another drew is not hers to take.
  await press(ana, 'Move');
  await drag(ana, [0.5, 0.5], [0.5, 0.3]);
  await drag(ana, [0.2, 0.2], [0.4, 0.4]);
  await press(ana, 'Wipe');
  await drag(ana, [0.05, 0.05], [0.35, 0.35]);
  await drag(ana, [0.45, 0.8], [0.55, 0.8]);
  await expect(board(page, 'Board with 1 stroke and 1 shape')).toBeVisible();
  await press(ana, 'Take back');
  await expect(board(page, 'Board with 1 stroke and 2 shapes')).toBeVisible();
  await ana.keyboard.press('Escape');
  const drawnAt = await board(page).locator('path[stroke]').first().getAttribute('d');
  expect(drawnAt).toMatch(/^M800\.0 270\.0L/);

  await page.getByLabel('Words for the board').fill('High water');
  await page.getByLabel('On a slip').check();
  await page.getByLabel('Words for the board').press('Enter');
  await expect(ana.getByRole('list', { name: 'What is on the board' })).toContainText(
    'by Maren Oduya: High water',
  );
  await press(page, 'Clear the board');
  await expect(board(ana, 'Board with 0 strokes')).toBeVisible();
  await press(page, 'Put back what was cleared');
  await expect(board(ana, 'Board with 1 stroke, 2 shapes and 1 text')).toBeVisible();

  await press(page, 'More');
  await page.getByLabel('Which side').selectOption('2');
  await expect(board(ana, 'Board with 0 strokes')).toBeVisible();
  await page.getByLabel('Ground').selectOption('squared');
  await drag(ana, [0.1, 0.1], [0.2, 0.2]);
  for (const [button, begin] of [
    ['Save a picture', '\x89PNG'],
    ['A drawing', '<svg '],
    ['All 2 sides, a PDF', '%PDF-1.4'],
  ] as const) {
    const [file] = await Promise.all([page.waitForEvent('download'), press(page, button)]);
    const saved = await readFile((await file.path())!, 'latin1');
    expect(saved.slice(0, begin.length)).toBe(begin);
    if (begin === '%PDF-1.4') expect(saved).toContain('/Count 2');
  }
  // A picture of a student's own is seen by all, as part of the board.
  const harbour = { name: 'The harbour.png', mimeType: 'image/png', buffer: await page.screenshot() };
  await ana.locator('input[type=file][accept*="webp"]').setInputFiles(harbour);
  await press(ana, 'Put it on');
  await expect(board(page, /and 1 picture$/)).toBeVisible();
  await expect(board(page).locator('image')).toHaveAttribute('href', /^data:image\/jpeg;base64,\/9j/);
  await expect(page.getByRole('list', { name: 'What is on the board' })).toContainText(
    `Picture, by ${course.students[0]!.name}: The harbour`,
  );
  for (const view of [page, ana]) expect.soft(await violations(view)).toEqual([]);

  // A place on it is asked for; whoever teaches alone sees the places until they are shown.
  await press(page, 'Put before everybody');
  await page.keyboard.press('a');
  await press(page, 'A place on it');
  const picture = ana.getByTestId('pointed');
  await picture.getByRole('group').click({ position: { x: 40, y: 30 } });
  await ana.keyboard.press('ArrowRight');
  await expect(picture.getByRole('group')).toHaveAccessibleName('Your mark is top left; arrows move it');
  await press(ana, 'Answer');
  const places = page.getByRole('list', { name: 'What was answered, 1 answer' });
  await expect(places).toContainText('Top left');
  await expect(page.getByTestId('pointed').locator('circle')).toHaveCount(1);
  expect.soft(await violations(ana), 'pointing').toEqual([]);
  await press(page, 'Show the class');
  await expect(picture.locator('circle')).toHaveCount(1);
  await dismiss(page);
});

test('a board for each: nobody sees another’s but those who teach, who show one with the name or without', async ({
  browser,
  page,
}) => {
  const course = await makeCourse({ limits: { draw: 'closed' } });
  await ringIn(page, course);
  const ana = await walkIn(browser, course);
  const ben = await walkIn(browser, course, 1);
  for (const view of [page, ana, ben]) await view.getByText('Board', { exact: true }).click();
  const script = live({ link: course.students[2]!.link.replace('/in/', '') });
  const heard: StoredEvent[] = [];
  script.on('events', (events: StoredEvent[]) => heard.push(...events));
  const asked = async (command: RoomCommand): Promise<string> =>
    (await script.emitWithAck('command', { id: crypto.randomUUID(), command })).refusal?.code ?? 'ok';
  const entered = await script.emitWithAck('enter', { session: course.session, after: 0 });
  const own = `own-${entered.info.me.member}`;
  const stroke = { points: [0.1, 0.1, 0.4, 0.4], colour: 'ink' as const };
  expect(await asked({ type: 'draw', stroke, at: own })).toBe('no-board');
  await press(page, 'More');
  await press(page, 'A board for each');
  await expect(ana.getByRole('button', { name: 'My own board' })).toBeVisible();
  await drag(ana, [0.1, 0.1], [0.6, 0.4]);
  await ana.getByLabel('Words for the board').fill('The ebb runs west');
  await ana.getByLabel('Words for the board').press('Enter');
  await expect(page.getByText('1 of 3 have drawn something.')).toBeVisible();
  expect.soft(await violations(page), 'the wall').toEqual([]);

  // A script draws on its own, and on no other; and has nothing of anybody else's.
  expect(await asked({ type: 'draw', stroke, at: own })).toBe('ok');
  const hers = heard.find((e) => e.type === 'entered')?.member ?? '';
  for (const [command, code] of [
    [{ type: 'draw', stroke, at: `own-${hers}` }, 'no-board'],
    [{ type: 'draw', stroke, at: 'table-1-1' }, 'no-board'],
    [{ type: 'draw', stroke }, 'closed'],
    [{ type: 'showWork', place: own, named: true }, 'teachers-only'],
    [{ type: 'giveBoards', given: false }, 'teachers-only'],
  ] as [RoomCommand, string][])
    expect([command.type, await asked(command)]).toEqual([command.type, code]);
  const again = await script.emitWithAck('enter', { session: course.session, after: 0 });
  expect(JSON.stringify([heard, again.room.board])).not.toContain('The ebb runs west');
  expect(again.room.board.marks).toHaveLength(1);

  const name = course.students[0]!.name;
  const presses = await countPresses(page);
  await page.getByRole('button', { name: `Show the board of ${name} without the name` }).click();
  expect(await presses()).toBeLessThanOrEqual(2);
  await expect(ben.getByText('What one of you made')).toBeVisible();
  await expect(ben.getByRole('list', { name: 'What is on the board' })).toContainText('The ebb runs west');
  const shown = heard.find((e) => e.type === 'workShown');
  expect(shown).toMatchObject({ from: '', title: 'one of you', unnamed: true });
  expect(JSON.stringify(shown)).not.toContain(name);
  await page.getByRole('button', { name: `Show the board of ${name} to all` }).click();
  await expect(ben.getByText(`What ${name} made`)).toBeVisible();
  for (const view of [page, ben]) expect.soft(await violations(view), 'shown').toEqual([]);

  await press(page, 'The class’s own board');
  await press(page, 'The board for all');
  if (!(await page.getByRole('button', { name: 'Put their own boards away' }).isVisible()))
    await press(page, 'More');
  await press(page, 'Put their own boards away');
  await expect(ana.getByRole('button', { name: 'My own board' })).toHaveCount(0);
  expect(await asked({ type: 'draw', stroke, at: own })).toBe('no-board');
  script.disconnect();
  await dismiss(page);

  // What is kept is had by whom it was for: their own, and the class's; by those who teach, all.
  await expect
    .poll(async () => {
      const titles = async (api: APIRequestContext) =>
        ((await (await api.get(`/api/sessions/${course.session}/boards`)).json()) as KeptBoardInfo[]).map(
          (b) => b.title,
        );
      const [student, teacher] = [await byLink(course.students[0]!.link), await account(MAREN)];
      const other = await byLink(course.students[1]!.link);
      const foreign = await other.get(`/api/sessions/${course.session}/boards/own-${hers}`);
      return [await titles(student), (await titles(teacher)).length, await titles(other), foreign.status()];
    })
    .toEqual([['Your own'], 2, [], 404]);
  await page.goto(`/course/${course.id}/session/${course.session}`);
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('dialog', { name: `Board: ${name}` })).toBeVisible();
  await expect(page.getByRole('list', { name: 'What is on the board' })).toContainText('The ebb runs west');
  expect.soft(await violations(page, '[role=dialog]'), 'a board that is kept').toEqual([]);
});
