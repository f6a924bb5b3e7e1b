import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { CourseDetail, MyCourse, SessionInfo } from '@nimble-bell/core/api';
import { CourseContext } from './app/course';
import { EntrancePage } from './app/EntrancePage';
import { LimitsPage } from './limits/LimitsPage';
import { PlanPage } from './plan/PlanPage';
import { RecordingPage } from './recording/RecordingPage';
import { StudentPage } from './student/StudentPage';
import { TeachPage } from './teach/TeachPage';
import { answerRequests, asked } from './testing/answers';
import { course, roomInfo, show } from './testing/render';
import type { ReactNode } from 'react';

const HOUR = 3_600_000;
const me = {
  now: Date.now(),
  person: { id: 'p', name: 'Maren Oduya', email: 'm@saltmarsh.example', zone: 'America/Halifax' },
  demo: false,
};
const inCourse = (detail: Partial<CourseDetail>, page: ReactNode) =>
  show(<CourseContext value={course(detail)}>{page}</CourseContext>);
const session = (more: Partial<SessionInfo> = {}): SessionInfo => {
  const startsAt = Date.now() + HOUR / 2;
  return {
    ...roomInfo({ member: 'm', role: 'teacher' }).session,
    startsAt,
    endsAt: startsAt + 80 * 60_000,
    state: 'planned',
    ...more,
  };
};
test('without the demo the entrance is a sign-in and nothing else', async () => {
  answerRequests({ '/api/me': { ...me, person: null } });
  show(<EntrancePage />);
  expect(screen.getByRole('button', { name: 'Sign in' })).toBeTruthy();
  await waitFor(() => expect(asked.length).toBeGreaterThan(0));
  expect(screen.queryByText(/a demo/)).toBeNull();
});

test('an assistant sees the plan, and no way to change it', () => {
  const series = [
    {
      id: 's',
      title: 'Lecture',
      group: null,
      kind: 'class' as const,
      expected: null,
      leads: [],
      publishedAt: 1,
      listed: false,
      pattern: {
        kind: 'weekly' as const,
        every: 1,
        lingerMinutes: 0,
        ends: { by: 'term' as const },
        days: [{ day: 'tuesday' as const, start: '18:30', minutes: 80 }],
      },
    },
  ];
  inCourse({ role: 'assistant', series, sessions: [session({ seriesId: 's' })] }, <PlanPage />);
  expect(screen.getByText(/Tue 18:30–19:50, Halifax time/)).toBeTruthy();
  expect(screen.getByText(/Skipped: Tue 13 Oct \(Reading week\)/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Change' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Add a series' })).toBeNull();
});

test('the limits page proves what is in force and saves all of it at once', async () => {
  answerRequests({ 'PUT /api/courses/course/limits': {} });
  inCourse({ limitsSet: { by: 'Maren Oduya', at: Date.UTC(2026, 9, 6, 21, 30) } }, <LimitsPage />);
  expect(screen.getByText('Set by Maren Oduya, Tue 6 Oct, 18:30')).toBeTruthy();
  expect(screen.getByTestId('in-force').textContent).toContain('By hand: speak');
  expect((screen.getByRole('button', { name: 'Save the limits' }) as HTMLButtonElement).disabled).toBe(true);
  fireEvent.click(screen.getByLabelText('Speak: Closed'));
  fireEvent.click(screen.getByRole('button', { name: 'Save the limits' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toMatchObject({
    limits: { speak: 'closed', camera: 'open', writeToTeachers: 'open' },
  });
});

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
        session(),
        session({ id: 'x', state: 'cancelled' }),
        session({ id: 'y', startsAt: 0, endsAt: 1 }),
      ],
    },
    <RecordingPage />,
  );
  expect(screen.getByTestId('plan-in-force').textContent).toBe(
    'Every session is recorded by itself when class begins, and kept until Thu 11 Feb 2027. Students on the class list may watch; downloads are off.',
  );
  expect(screen.getByText(/1 session ahead, 1 h 20 min: about 0.6 GB/)).toBeTruthy();
});

test('the next session leads into its room, and one in class comes before it', () => {
  const { unmount } = inCourse({ sessions: [session()] }, <TeachPage />);
  expect(screen.getByText('In 30 min')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Open the room' }).getAttribute('href')).toBe('/room/session');
  unmount();
  inCourse(
    { sessions: [session(), session({ id: 'live', state: 'live', startsAt: Date.now() - HOUR })] },
    <TeachPage />,
  );
  expect(screen.getByRole('link', { name: 'Go back in' }).getAttribute('href')).toBe('/room/live');
});

const mine = (
  more: Partial<MyCourse['sessions'][number]>,
  recordings: MyCourse['recordings'] = [],
): MyCourse => ({
  course: { id: 'course', code: 'TID-101', title: 'Reading the Tides', term: course().term },
  me: { member: 'ana', name: 'Ana Lanyon', preferredName: null, zone: 'Atlantic/Azores', role: 'student' },
  telephone: null,
  teachers: ['Maren Oduya'],
  sessions: [{ ...session(), door: { open: false, because: 'teacher' }, ...more }],
  recordings,
  rooms: [],
  door: course().door,
  notices: [],
  materials: [],
  replies: [],
});

test('a student reads when the door opens, in their own time, and enters with one button', async () => {
  answerRequests({
    '/api/me': me,
    '/api/my-course': mine({
      door: { open: false, because: 'early', opensAt: Date.UTC(2026, 9, 6, 21, 15) },
    }),
  });
  const { unmount } = show(<StudentPage />);
  await waitFor(() =>
    expect(screen.getByTestId('door').textContent).toBe('The door opens Tue 6 Oct, 21:15.'),
  );
  expect(screen.getByText(/Times are Azores time/)).toBeTruthy();
  expect(screen.getByText('There is no recording yet.')).toBeTruthy();
  unmount();
  answerRequests({ '/api/me': me, '/api/my-course': mine({ state: 'live', door: { open: true } }) });
  show(<StudentPage />);
  await waitFor(() => expect(screen.getByRole('link', { name: 'Enter the class' })).toBeTruthy());
});

test('a link that is not known is said in words, with a way out', async () => {
  answerRequests({ '/api/me': me });
  show(<StudentPage />);
  await waitFor(() => expect(screen.getByText('There is nothing at this address.')).toBeTruthy());
  expect(screen.getByRole('link', { name: 'Go to the entrance' })).toBeTruthy();
});
