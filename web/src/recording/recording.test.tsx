import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { SeriesInfo } from '@nimble-bell/core/api';
import { NOTHING } from '../limits/places';
import { answerRequests, asked } from '../testing/answers';
import { freshSession, inCourse } from '../testing/render';
import { RecordingPage } from './RecordingPage';

test('the recording page says what is in force and how much is ahead', () => {
  const recordingPlan = {
    automatic: true,
    keepUntil: '2027-02-11',
    studentsWatch: true,
    studentsDownload: false,
  };
  inCourse(
    {
      recordingPlan,
      sessions: [
        freshSession(),
        freshSession({ id: 'x', state: 'cancelled' }),
        freshSession({ id: 'y', startsAt: 0, endsAt: 1 }),
      ],
    },
    <RecordingPage />,
  );
  expect(screen.getByTestId('plan-in-force').textContent).toBe(
    'Every session is recorded from ring-in to dismissal, and kept until Thu 11 Feb 2027. Students on the class list may watch; downloads are off.',
  );
  expect(screen.getByText(/1 session ahead, 1 h 20 min: about 0.60 GB/)).toBeTruthy();
});

test('what recordings take is forecast by what they took; where the space ends that is said; what goes is kept by one press', async () => {
  answerRequests({
    '/api/courses/course/recording-space': {
      free: 1e9,
      quota: 3e9,
      taken: 2e9,
      perMinute: 9e6,
      soon: [{ day: '2026-10-20', sessions: ['a', 'b'] }],
    },
    'PUT /api/courses/course/rules': { change: 'c' },
  });
  const sessions = [1, 2].map((n) => freshSession({ id: String(n), startsAt: Date.now() + n * 86_400_000 }));
  inCourse({ sessions, recordingPlan: null }, <RecordingPage />);
  expect(
    await screen.findByText(/about 1.4 GB .*Kept now: 2.0 GB. Free for this course: 1.0 GB of 3.0 GB/),
  ).toBeTruthy();
  expect(screen.getByRole('img', { name: /recordings grow to 1.4 GB; the space ends with/ })).toBeTruthy();
  expect(screen.getByText('2 recordings kept until Tue 20 Oct 2026')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Keep until Sat 19 Dec 2026' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')?.body).toEqual({
      at: { layer: 'session', ids: ['a', 'b'] },
      recording: { keepUntil: '2026-12-19' },
    }),
  );
});

test('from the second segment, sound and screen only: said for the term with four presses', async () => {
  answerRequests({ 'PUT /api/courses/course/recording-plan': {} });
  inCourse({ recordingPlan: null }, <RecordingPage />);
  let presses = 0;
  const press = (target: HTMLElement) => {
    presses++;
    fireEvent.click(target);
  };
  press(screen.getByRole('combobox', { name: 'Sessions are recorded' }));
  press(await screen.findByRole('option', { name: 'from segment 2 on' }));
  press(screen.getByRole('radio', { name: 'Sound and screen' }));
  press(screen.getByRole('button', { name: 'Save the recording plan' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')?.body).toMatchObject({
      ...{ automatic: true, begins: 2, ends: 'dismissal' },
      leavesOut: ['teachersCameras', 'board', 'writing', 'notes'],
    }),
  );
  expect(presses).toBeLessThanOrEqual(5);
});

test('place by place: what is said here, what the wider place has, what is empty goes by that', async () => {
  const said = (value: unknown) => ({ value, by: 'maren', at: 1 });
  answerRequests({
    'PUT /api/courses/course/rules': { change: 'c' },
    '/api/courses/course/rules': {
      ...{ sheets: [], college: NOTHING, series: [], sessions: [], exceptions: [], always: [] },
      ...{ names: {}, latest: null, on: '' },
      course: { ...NOTHING, recording: { begins: said('start'), watchForDays: said(7) } },
    },
  });
  const recordingPlan = {
    automatic: true,
    keepUntil: '2027-02-11',
    studentsWatch: true,
    studentsDownload: false,
  };
  const session = freshSession();
  const series = [
    { id: session.seriesId, title: 'Lecture', kind: 'class', pattern: null },
  ] as unknown as SeriesInfo[];
  inCourse({ recordingPlan, series, sessions: [session] }, <RecordingPage />);
  const field = (name: RegExp) => screen.findByLabelText<HTMLInputElement>(name);
  expect((await field(/^Recorded from: The whole course/)).value).toBe('start');
  const days = await field(/^Watched for so many days: The whole course/);
  expect(days.value).toBe('7');
  const here = await field(/^Recorded from: Lecture\W/);
  expect(here.textContent).toContain('As above: from the planned start');
  fireEvent.change(here, { target: { value: '3' } });
  fireEvent.change(await field(/^Students’ cameras are kept: Lecture\W/), { target: { value: 'yes' } });
  fireEvent.change(days, { target: { value: '' } });
  fireEvent.blur(days);
  const puts = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body);
  await waitFor(() => expect(puts()).toHaveLength(3));
  expect(puts()).toMatchObject([
    { at: { layer: 'session' }, recording: { begins: 3 } },
    { at: { layer: 'session' }, recording: { studentsCameras: true } },
    { at: { layer: 'course' }, recording: { watchForDays: null } },
  ]);
});
