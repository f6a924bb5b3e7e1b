import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { inCourse } from '../testing/render';
import { LimitsPage } from './LimitsPage';

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
