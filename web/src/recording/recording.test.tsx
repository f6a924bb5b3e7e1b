import { screen } from '@testing-library/react';
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
    'Every session is recorded by itself when class begins, and kept until Thu 11 Feb 2027. Students on the class list may watch; downloads are off.',
  );
  expect(screen.getByText(/1 session ahead, 1 h 20 min: about 0.6 GB/)).toBeTruthy();
});
