import { screen } from '@testing-library/react';
import { freshSession, HOUR, inCourse } from '../testing/render';
import { TeachPage } from './TeachPage';

test('the next session leads into its room, and one in class comes before it', () => {
  const { unmount } = inCourse({ sessions: [freshSession()] }, <TeachPage />);
  expect(screen.getByText('In 30 min')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Open the room' }).getAttribute('href')).toBe('/room/session');
  unmount();
  inCourse(
    { sessions: [freshSession(), freshSession({ id: 'live', state: 'live', startsAt: Date.now() - HOUR })] },
    <TeachPage />,
  );
  expect(screen.getByRole('link', { name: 'Go back in' }).getAttribute('href')).toBe('/room/live');
});
