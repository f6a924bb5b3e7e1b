import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { LetterAhead } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { show } from '../testing/render';
import { LettersAhead } from './LettersAhead';

const letter = (more: Partial<LetterAhead>): LetterAhead => ({
  topic: 'update',
  subject: 'TID-101: the plan has changed',
  text: '',
  html: '<p>moves to Thu 8 Oct</p>',
  entries: ['TID-101 Lecture, 1 session brought up to date'],
  dueAt: 0,
  names: ['Ana'],
  zone: 'Atlantic/Azores',
  ...more,
});
const path = '/courses/course/plan/letters';
const open = (letters: LetterAhead[]) => {
  answerRequests({ [`POST /api${path}`]: letters });
  show(<LettersAhead path={path} body={{ edit: 'publish', ids: ['s'] }} />);
  expect(asked).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Read what they get' }));
};

test('the letters are asked for when they are wanted, a kind each, with who gets it', async () => {
  open([
    letter({ names: ['Ana', 'Ben', 'Cleo', 'Dora', 'Emil'] }),
    letter({ zone: 'America/Halifax', entries: [] }),
  ]);
  const first = await screen.findByRole('button', { name: /5 people: TID-101: the plan has changed/ });
  expect(first.textContent).toContain('Ana, Ben, Cleo and 2 more, Azores time');
  expect(asked[0]!.body).toEqual({ edit: 'publish', ids: ['s'] });
  fireEvent.click(first);
  expect((await screen.findAllByTitle('The letter to Ana'))[0]!.getAttribute('srcdoc')).toContain(
    'Thu 8 Oct',
  );
  expect(screen.getByText('In their calendar: TID-101 Lecture, 1 session brought up to date')).toBeTruthy();
  expect(screen.getByText('Nothing is written into their calendar')).toBeTruthy();
});

test('of very many kinds the rest are counted, and no letter is said as well', async () => {
  open(Array.from({ length: 14 }, (_, i) => letter({ names: [`P${i}`], dueAt: Date.now() + 9e6 })));
  expect(await screen.findByText('and 2 more kinds of letter to 2 people')).toBeTruthy();
  expect(screen.getAllByText(/, leaves /)).toHaveLength(12);
});

test('one letter alone is open at once', async () => {
  open([letter({})]);
  const only = await screen.findByRole('button', { name: /1 person: TID-101: the plan has changed/ });
  expect(only.getAttribute('aria-expanded')).toBe('true');
});

test('where calendars are right already, no letter leaves', async () => {
  open([]);
  await waitFor(() => expect(screen.getByText(/No letter leaves/)).toBeTruthy());
});
