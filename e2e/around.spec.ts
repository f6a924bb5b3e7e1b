import { expect, test } from '@playwright/test';
import { account, makeCourse, ringIn, throughDoor, walkIn } from './support/course';
import { live } from './support/live';
import { MAREN, person, seat } from './support/people';

test('somebody is brought in, words are taken back, time is said, some go and one stays', async ({
  page,
  browser,
}) => {
  const course = await makeCourse({ students: 3, apart: true, limits: { writeToClass: 'open' } });
  await ringIn(page, course);
  await expect(page.getByText('You cannot be heard or seen yet.')).toBeVisible();
  const ana = await walkIn(browser, course, 0, { viewport: { width: 390, height: 844 } });

  // Without an address: a link to be read out, by which they come in, and no letter.
  await page.getByRole('button', { name: 'Bring somebody in' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Rhona Quay');
  await page.getByRole('button', { name: 'Make their link' }).click();
  const said = await page.getByTestId('their-link').innerText();
  await page.getByRole('button', { name: 'Done' }).click();
  const [guest] = await person(browser);
  await guest.goto(`/in/${said.split('/in/')[1]!.replaceAll(' ', '')}`);
  await guest.getByRole('link', { name: 'Enter the class' }).click();
  await throughDoor(guest);
  await expect(seat(page, 'Rhona Quay')).toHaveAttribute('data-here', 'true');
  const maren = await account(MAREN);
  const letters = await (await maren.get(`/api/courses/${course.id}/deliveries`)).json();
  expect(letters.filter((l: { name: string }) => l.name === 'Rhona Quay')).toEqual([]);

  const write = async (text: string) => {
    await ana.getByLabel('Write', { exact: true }).fill(text);
    await ana.getByLabel('Write', { exact: true }).press('Enter');
    await expect(page.getByText(text, { exact: true })).toBeVisible();
  };
  const act = async (word: string) => {
    await page.getByRole('button', { name: 'What to do with this message' }).last().click();
    await page.getByRole('button', { name: word, exact: true }).click();
  };
  await write('Why is it later?');
  await act('Keep for later');
  await expect(ana.getByText('for later', { exact: true })).toBeVisible();
  await act('Answer');
  await page.keyboard.type('The wave slows down.');
  await page.keyboard.press('Enter');
  await expect(ana.getByText('The wave slows down.', { exact: true })).toBeVisible();
  await write('Xylophone');
  await act('Take back');
  await expect(ana.getByText('Taken back by a teacher.')).toBeVisible();
  // Nor has it who comes later, by any way.
  const late = live({ link: course.students[2]!.link.replace('/in/', '') });
  for (const after of [0, 1])
    expect(JSON.stringify(await late.emitWithAck('enter', { session: course.session, after }))).not.toContain(
      'Xylophone',
    );
  late.disconnect();

  const end = async (word: string) => {
    await page.getByRole('button', { name: 'Dismiss', exact: true }).click();
    await page.getByRole('button', { name: word }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await end('Say so to everybody');
  await expect(ana.getByTestId('notice')).toHaveText('5 minutes left.');
  await end('Let them go, stay for questions');
  await expect(ana.getByText('Class is over. Stay if you have a question.')).toBeVisible();
  await ana.getByRole('main').getByRole('button', { name: 'Leave' }).first().click();
  await expect(seat(page, course.students[0]!.name)).toHaveAttribute('data-here', 'false');
  await expect(guest.getByText('Class is over. Stay if you have a question.')).toBeVisible();
  await end('Dismiss for everyone');
  await expect(guest.getByText('The class is dismissed')).toBeVisible();
});
