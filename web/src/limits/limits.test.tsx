import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { inCourse } from '../testing/render';
import { LimitsPage } from './LimitsPage';

test('the limits page proves what is in force and saves all of it at once', async () => {
  answerRequests({
    'PUT /api/courses/course/limits': {},
    '/api/drafts?key=limits%2Fcourse': { draft: null },
    '/api/drafts?key=door%2Fcourse': { draft: null },
  });
  inCourse({ limitsSet: { by: 'Maren Oduya', at: Date.UTC(2026, 9, 6, 21, 30) } }, <LimitsPage />);
  expect(await screen.findByText('Set by Maren Oduya, Tue 6 Oct, 18:30')).toBeTruthy();
  expect(screen.getByTestId('in-force').textContent).toContain('By hand: speak');
  expect((screen.getByRole('button', { name: 'Save the limits' }) as HTMLButtonElement).disabled).toBe(true);
  fireEvent.click(screen.getByLabelText('Speak: Closed'));
  fireEvent.click(screen.getByRole('button', { name: 'Save the limits' }));
  const saved = () => asked.find((a) => a.path === '/api/courses/course/limits');
  await waitFor(() => expect(saved()).toBeTruthy());
  expect(saved()!.body).toMatchObject({
    limits: { speak: 'closed', camera: 'open', writeToTeachers: 'open' },
  });
});

test('what was chosen and not saved is there again, and said not to be in force', async () => {
  answerRequests({
    '/api/drafts?key=limits%2Fcourse': { draft: { body: { speak: 'closed' }, at: 0 } },
    '/api/drafts?key=door%2Fcourse': { draft: null },
  });
  inCourse({}, <LimitsPage />);
  const speak = (await screen.findByLabelText('Speak: Closed')) as HTMLInputElement;
  expect(speak.checked).toBe(true);
  expect(screen.getByText(/^Not in force yet/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Back to what is saved' }));
  expect(speak.checked).toBe(false);
});

test('the door says who comes in how, and saves it whole', async () => {
  answerRequests({
    'PUT /api/courses/course/door': {},
    '/api/drafts?key=limits%2Fcourse': { draft: null },
    '/api/drafts?key=door%2Fcourse': { draft: { body: { classList: 'knocks', late: 'not' }, at: 0 } },
  });
  inCourse({}, <LimitsPage />);
  // What was left half done is there: late is late from a minute on.
  expect(await screen.findByLabelText('Late is')).toBeTruthy();
  fireEvent.click(screen.getByRole('switch', { name: 'Not before a teacher has rung in' }));
  fireEvent.click(screen.getByRole('button', { name: 'Save the door' }));
  const saved = () => asked.find((a) => a.path === '/api/courses/course/door');
  await waitFor(() => expect(saved()).toBeTruthy());
  expect(saved()!.body).toMatchObject({
    classList: 'knocks',
    guests: 'straight',
    late: 'not',
    lateMinutes: 15,
  });
});
