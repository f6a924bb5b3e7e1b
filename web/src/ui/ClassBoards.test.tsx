import { act, fireEvent, screen, within } from '@testing-library/react';
import { answerRequests } from '../testing/answers';
import { show } from '../testing/render';
import ClassBoards from './ClassBoards';

const stroke = (seq: number) => ({
  ...{ kind: 'stroke', seq, by: '', side: 1, place: 'class', colour: 'ink' },
  points: [0.1, 0.1, 0.2, 0.2],
});

test('the boards of a class are looked at side by side, each by its name, and taken along', async () => {
  answerRequests({
    '/api/sessions/s1/boards': [
      { place: 'class', title: 'The class', sides: 2 },
      { place: 'own-ana', title: 'Your own', sides: 1 },
    ],
    '/api/sessions/s1/boards/class': {
      ...{ place: 'class', title: 'The class' },
      sides: [
        { ground: 'plain', marks: [stroke(1)] },
        { ground: 'squared', marks: [stroke(2), stroke(3)] },
      ],
    },
  });
  show(<ClassBoards session="s1" name="Lecture 3" />);
  expect(await screen.findByRole('button', { name: 'Your own' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'The class, 2 sides' }));
  const dialog = await screen.findByRole('dialog', { name: 'Board: The class' });
  expect(await within(dialog).findByText('Side 1 of 2')).toBeTruthy();
  const drawn = () => within(dialog).getByRole('img').getAttribute('aria-label');
  const first = drawn();
  fireEvent.click(within(dialog).getByRole('button', { name: 'Next side' }));
  expect(within(dialog).getByText('Side 2 of 2')).toBeTruthy();
  expect(drawn()).not.toBe(first);
  expect(within(dialog).getByRole('button', { name: 'All 2 sides, a PDF' })).toBeTruthy();
});

test('where nothing was drawn there is no panel', async () => {
  answerRequests({ '/api/sessions/s1/boards': [] });
  show(<ClassBoards session="s1" name="Lecture 3" />);
  await act(async () => new Promise((resolve) => setTimeout(resolve, 30)));
  expect(screen.queryByText('Boards')).toBeNull();
});
