import { screen, waitFor } from '@testing-library/react';
import { noPreferences, type MyCourse } from '@nimble-bell/core/api';
import { answerRequests } from '../testing/answers';
import { freshSession, myCourse, show } from '../testing/render';
import { StudentPage } from './StudentPage';

const me = {
  now: Date.now(),
  person: { id: 'p', name: 'Maren Oduya', email: 'm@saltmarsh.example', zone: 'America/Halifax' },
  demo: false,
  preferences: noPreferences(),
};

const mine = (
  more: Partial<MyCourse['sessions'][number]>,
  recordings: MyCourse['recordings'] = [],
): MyCourse =>
  myCourse({
    sessions: [{ ...freshSession(), door: { open: false, because: 'teacher' }, ...more }],
    recordings,
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
  expect(await screen.findByText('There is no recording yet.')).toBeTruthy();
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
