import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CollegeOutcome, TermInfo } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { course, show } from '../testing/render';
import { AcademicYearPreview } from './AcademicYearPreview';
import { BellTimesPanel } from './BellTimesPanel';
import { TermEditor } from './TermEditor';

const known: TermInfo = { ...course().term, id: 't', courses: 1 };
const moves: CollegeOutcome = {
  courses: [
    {
      code: 'TID-101',
      id: 'c',
      title: 'Tides',
      told: ['a', 'b', 'd'].map((member) => ({ member, name: member })),
      sessions: [
        { sessionId: 'x', title: 'Lecture', was: null, becomes: null, words: 'Tue 6 Oct, 18:30 is gone' },
      ],
    },
  ],
};
jest.setTimeout(30_000);
const sent = (method: string, path: string) =>
  asked.filter((a) => a.method === method && a.path === `/api${path}`).map((a) => a.body);
const edit = () => show(<TermEditor known={known} fresh={course().term} made={() => {}} />);

// The worker's own work, without the thread that jsdom does not have.
jest.mock('../plan/calendarReader', () => ({ daysOffFrom: jest.fn() }));

test('days are chosen by keyboard and made days off; what that moves is said before it is saved', async () => {
  answerRequests({ 'POST /api/terms/t/preview': moves, 'PUT /api/terms/t': moves });
  edit();
  const day = screen.getByLabelText('Tue 6 Oct');
  day.focus();
  fireEvent.keyDown(day, { key: 'ArrowRight', shiftKey: true });
  expect(screen.getByRole('group', { name: 'Tue 6 Oct to Wed 7 Oct' })).toBeTruthy();
  fireEvent.change(screen.getByLabelText('What they are called'), { target: { value: 'Harbour Days' } });
  fireEvent.click(screen.getByRole('button', { name: 'Make them days off' }));
  expect(screen.getByLabelText('Wed 7 Oct: Harbour Days')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Save the term' }));
  const question = await screen.findByRole('alertdialog', { name: 'What this moves' });
  expect(question.textContent).toContain('TID-101 Tides');
  expect(sent('PUT', '/terms/t')).toEqual([]);
  fireEvent.click(within(question).getByRole('button', { name: 'Save and tell 3 people' }));
  await waitFor(() => expect(sent('PUT', '/terms/t')).toHaveLength(1));
  expect((sent('PUT', '/terms/t')[0] as TermInfo).daysOff).toContainEqual({
    from: '2026-10-06',
    to: '2026-10-07',
    name: 'Harbour Days',
  });
});

test('a single day can follow another weekday, and is shown with it', () => {
  edit();
  fireEvent.click(screen.getByLabelText('Wed 7 Oct'));
  fireEvent.click(screen.getByRole('button', { name: 'Swap it' }));
  expect(screen.getByText('Wed 7 Oct follows Monday')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Remove Monday timetable' }));
  expect(screen.queryByText(/follows Monday/)).toBeNull();
});

test('a term that ends before it begins is not saved, and says why', async () => {
  show(<TermEditor known={null} fresh={{ ...course().term, lastDay: '2026-01-01' }} made={() => {}} />);
  expect(screen.getByText(/Give a first and a last day/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Make the term' }));
  expect(await screen.findByText('The term ends before it begins.')).toBeTruthy();
});

test('of an academic calendar each day is taken or left', () => {
  const take = jest.fn();
  const off = [
    { from: '2026-10-12', to: '2026-10-12', name: 'Harvest' },
    { from: '2026-11-11', to: '2026-11-11', name: 'Lantern Night' },
  ];
  show(
    <AcademicYearPreview
      year={{
        daysOff: off,
        daySwaps: [],
        bad: [{ title: 'Exam', reason: 'It has times of day.' }],
        fault: null,
      }}
      take={take}
      leave={() => {}}
    />,
  );
  expect(screen.getByText('Exam: It has times of day.')).toBeTruthy();
  fireEvent.click(screen.getByLabelText(/Harvest/));
  fireEvent.click(screen.getByRole('button', { name: 'Take 1' }));
  expect(take).toHaveBeenCalledWith({ daysOff: [off[1]], daySwaps: [] });
});

test('bell times grow by a period of the same length, and a wrong one is refused at its field', async () => {
  show(<BellTimesPanel sets={[]} />);
  expect(screen.getByText(/There are no bell times yet/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'New bell times' }));
  fireEvent.click(screen.getByRole('button', { name: 'Add a period' }));
  expect(screen.getByDisplayValue('P2')).toBeTruthy();
  fireEvent.change(screen.getByDisplayValue('P2'), { target: { value: 'P1' } });
  fireEvent.click(screen.getByRole('button', { name: 'Save the bell times' }));
  expect(await screen.findByText('Each period has a name of its own.')).toBeTruthy();
  expect(screen.getByText('Give it a name.')).toBeTruthy();
});
