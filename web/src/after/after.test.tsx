import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Participation, TermThoughts } from '@nimble-bell/core/api';
import { COLLEGE_AFTER } from '@nimble-bell/core/after';
import { PartPage as OwnPart } from '../student/PartPage';
import { PartPage } from '../review/PartPage';
import { ThoughtsPage } from '../review/ThoughtsPage';
import { answerRequests, asked } from '../testing/answers';
import { inCourse, myCourse, show } from '../testing/render';
import Thought from './Thought';

const SESSION = { id: 's1', title: 'Lecture', number: 1, startsAt: Date.UTC(2026, 8, 1, 21, 30) };
const parts = (more: Partial<Participation> = {}): Participation => ({
  sessions: [SESSION, { ...SESSION, id: 's2', number: 2, startsAt: SESSION.startsAt + 7 * 86_400_000 }],
  rows: [
    {
      ...{ member: 'ana', name: 'Ana Lanyon', group: 'A' },
      cells: [{ spokenMs: 90_000, written: 2, hands: 1, answers: 1 }, null],
    },
    {
      ...{ member: 'ben', name: 'Ben Garrow', group: 'B' },
      cells: [null, { spokenMs: 0, written: 9, hands: 0, answers: 0 }],
    },
  ],
  rules: COLLEGE_AFTER,
  ...more,
});
const PATH = '/api/courses/course/participation';
const names = () =>
  within(screen.getByRole('table'))
    .getAllByRole('row')
    .slice(1)
    .map((r) => r.textContent);

test('who took part stands by what it is worth, over the term or in one class, by name or group', async () => {
  answerRequests({ [PATH]: parts() });
  inCourse({}, <PartPage />);
  await screen.findByRole('table');
  expect(names()).toEqual(['Ben Garrow B09009', 'Ana Lanyon A1.52117']);
  fireEvent.change(screen.getByLabelText('Which class'), { target: { value: 's1' } });
  expect(names()).toEqual(['Ana Lanyon A1.52117', 'Ben Garrow B00000']);
  fireEvent.change(screen.getByLabelText('Name or group'), { target: { value: 'garr' } });
  expect(names()).toEqual(['Ben Garrow B00000']);
  fireEvent.change(screen.getByLabelText('Name or group'), { target: { value: 'x' } });
  expect(screen.getByText('Nobody of this name or group.')).toBeTruthy();
});

test('what is counted is switched off for the course, and then nothing is shown', async () => {
  answerRequests({ [PATH]: parts(), 'PUT /api/courses/course/rules': { change: 'c' } });
  inCourse({ role: 'teacher' }, <PartPage />);
  fireEvent.click(await screen.findByRole('switch', { name: /^Count who takes part/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')?.body).toEqual({
      at: { layer: 'course' },
      after: { participation: false },
    }),
  );
  document.body.innerHTML = '';
  answerRequests({ [PATH]: parts({ sessions: [], rules: { ...COLLEGE_AFTER, participation: false } }) });
  inCourse({}, <PartPage />);
  expect(await screen.findByText('It is not counted in this course.')).toBeTruthy();
});

test('a student reads what is counted of them, or that nothing is', async () => {
  const [ana] = parts().rows;
  answerRequests({ '/api/my-course': myCourse(), [PATH]: parts({ rows: [ana!] }) });
  show(<OwnPart />);
  expect(
    await screen.findByText(
      'In all you spoke 1.5 min, wrote 2 lines, raised a hand 1 time, answered 1 question.',
    ),
  ).toBeTruthy();
});

const thoughts = (
  said: number,
  stars: TermThoughts['sessions'][number]['thoughts']['stars'],
  words: string[],
) => ({
  asked: true,
  sessions: [{ ...SESSION, thoughts: { said, stars, words } }],
});

test('what the class thought is shown from five on; before, that it is not', async () => {
  const path = '/api/courses/course/thoughts';
  answerRequests({ [path]: thoughts(4, [0, 0, 0, 0, 0], []) });
  inCourse({}, <ThoughtsPage />);
  expect(await screen.findByText('Not enough have answered.')).toBeTruthy();
  document.body.innerHTML = '';
  answerRequests({ [path]: thoughts(6, [0, 0, 1, 1, 3], ['Clear.', 'More board']) });
  inCourse({}, <ThoughtsPage />);
  expect(await screen.findByRole('img', { name: /one to five: Lecture 1: 4.4$/ })).toBeTruthy();
  expect(screen.getAllByRole('listitem').map((l) => l.textContent)).toEqual(['Clear.', 'More board']);
});

test('a thought is said once, with a word or without; nobody else is asked', async () => {
  const path = '/api/sessions/s1/thought';
  answerRequests({ [path]: { asked: true, given: false }, [`POST ${path}`]: {} });
  show(<Thought session="s1" title="Lecture 1" />);
  fireEvent.click(await screen.findByRole('radio', { name: '4' }));
  fireEvent.change(screen.getByLabelText('A word, if you like'), { target: { value: 'Good.' } });
  fireEvent.click(screen.getByRole('button', { name: 'Say it' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ stars: 4, words: 'Good.' }),
  );
  document.body.innerHTML = '';
  answerRequests({ [path]: { asked: true, given: true } });
  show(<Thought session="s1" title="Lecture 1" />);
  expect(await screen.findByText('You said what you thought of Lecture 1. Thank you.')).toBeTruthy();
});
