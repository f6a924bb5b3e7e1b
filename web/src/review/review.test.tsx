import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CourseFound, RollBookInfo } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { inCourse, show } from '../testing/render';
import CourseSearch from '../watch/CourseSearch';
import { CorrectionDialog } from './CorrectionDialog';
import { LogPanel } from './LogPanel';
import { RollBookPage } from './RollBookPage';

const START = Date.UTC(2026, 8, 1, 21, 30);
const DAY = 24 * 3_600_000;
const book = (more: Partial<RollBookInfo> = {}): RollBookInfo => ({
  sessions: [0, 1, 2].map((i) => ({
    ...{ id: `s${i}`, title: 'Lecture', number: i + 1, minutes: 80 },
    startsAt: START + i * 7 * DAY,
  })),
  rows: [
    {
      ...{ member: 'ana', name: 'Ana Lanyon', group: 'A' },
      cells: [
        { mark: 'present', minutes: 80 },
        { mark: 'absent', minutes: 0 },
        { mark: 'absent', minutes: 0 },
      ],
    },
    {
      ...{ member: 'ben', name: 'Ben Garrow', group: null },
      cells: [{ mark: 'present', minutes: 78 }, { mark: 'late', minutes: 60, corrected: true }, null],
    },
  ],
  slipping: { ana: 'missed two of the last three' },
  rules: { lateAfterMinutes: 10, earlyBeforeMinutes: 10, enoughMinutes: 0 },
  ...more,
});
const open = (more: Partial<RollBookInfo> = {}) => {
  answerRequests({ '/api/courses/course/roll-book': book(more) });
  inCourse({}, <RollBookPage />);
};

test('the roll book says who is slipping and why, and is narrowed by name or group', async () => {
  open();
  const slipping = await screen.findByRole('region', { name: 'Who is slipping' });
  expect(within(slipping).getByRole('listitem').textContent).toBe('Ana Lanyon: missed two of the last three');
  const grid = () => screen.queryByRole('grid', { name: 'Roll of the term' });
  expect(grid()!.getAttribute('aria-rowcount')).toBe('3');
  fireEvent.change(screen.getByLabelText('Name or group'), { target: { value: 'garr' } });
  await waitFor(() => expect(grid()!.getAttribute('aria-rowcount')).toBe('2'));
  fireEvent.change(screen.getByLabelText('Name or group'), { target: { value: 'nobody' } });
  expect(await screen.findByText('Nobody of this name or kind.')).toBeTruthy();
});

test('before the first class the roll book says how it comes about; with nobody slipping it says so', async () => {
  open({ sessions: [], rows: [] });
  expect(await screen.findByText(/^No session has been held yet/)).toBeTruthy();
  document.body.innerHTML = '';
  open({ slipping: {} });
  expect(await screen.findByText('Nobody, by these signs.')).toBeTruthy();
});

test('a line of the roll is corrected with a reason, and what was corrected goes back to the rules', async () => {
  answerRequests({ 'PUT /api/sessions/s1/roll/ben': {} });
  const session = { id: 's1', title: 'Lecture', number: 2 };
  const cell = { mark: 'late', minutes: 60, corrected: true } as const;
  const close = jest.fn();
  inCourse({}, <CorrectionDialog of={{ member: 'ben', name: 'Ben Garrow', session, cell }} close={close} />);
  const save = (await screen.findByRole('button', { name: 'Correct it' })) as HTMLButtonElement;
  expect(save.disabled).toBe(true);
  fireEvent.click(screen.getByRole('radio', { name: 'excused' }));
  fireEvent.change(screen.getByLabelText(/^Why/), { target: { value: 'A letter from the clinic' } });
  fireEvent.click(save);
  await waitFor(() => expect(close).toHaveBeenCalled());
  const puts = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body);
  expect(puts()).toEqual([{ mark: 'excused', reason: 'A letter from the clinic' }]);
  fireEvent.click(screen.getByRole('button', { name: 'As the rules make it' }));
  await waitFor(() => expect(puts().at(-1)).toEqual({ mark: null, reason: '' }));
});

test('the log is asked for when it is opened, and searched by what happened or to whom', async () => {
  answerRequests({
    '/api/sessions/s1/log': [
      { at: START, text: 'Maren Oduya rang in.', members: ['maren'] },
      { at: START + 60_000, text: 'Ana Lanyon raised a hand.', members: ['ana'] },
    ],
  });
  show(<LogPanel session="s1" name="Lecture 2" zone="America/Halifax" />);
  fireEvent.click(screen.getAllByRole('button')[0]!);
  expect(await screen.findByText(/Ana Lanyon raised a hand/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Words in the log'), { target: { value: 'rang' } });
  await waitFor(() => expect(screen.queryByText(/Ana Lanyon raised a hand/)).toBeNull());
  expect(screen.getByText(/Maren Oduya rang in/)).toBeTruthy();
});

test('a search over the course leads to each moment, and says where there is nothing', async () => {
  const found: CourseFound[] = [
    {
      recording: 'r1',
      title: 'Lecture 2',
      startsAt: START,
      position: 65_000,
      kind: 'said',
      text: 'Neaps come',
    },
  ];
  answerRequests({
    '/api/courses/course/search?q=neaps': found,
    '/api/courses/course/search?q=kelp': [],
  });
  show(<CourseSearch course="course" to={(id) => `/watch/${id}`} begins />);
  const field = screen.getByLabelText('Search in all recordings');
  expect(document.activeElement).toBe(field);
  fireEvent.change(field, { target: { value: 'neaps' } });
  const link = await screen.findByRole('link', { name: 'Lecture 2, 1:05' });
  expect(link.getAttribute('href')).toBe('/watch/r1?at=65');
  fireEvent.change(field, { target: { value: 'kelp' } });
  expect(await screen.findByText('Nothing of these words.')).toBeTruthy();
});
