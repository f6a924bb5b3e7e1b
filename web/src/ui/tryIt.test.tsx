import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { freshSession, inCourse } from '../testing/render';
import TryIt from './TryIt';

test('a class of a size that can be is asked for, as large as the list at first', async () => {
  answerRequests({ 'POST /api/sessions/session/rehearsal': { session: 'tried' } });
  inCourse({ sessions: [freshSession()] }, <TryIt session="session" students={34} />);
  fireEvent.click(screen.getByRole('button', { name: 'Try it' }));
  const many = (await screen.findByLabelText('How many come')) as HTMLInputElement;
  expect(many.value).toBe('34');
  const begin = screen.getByRole('button', { name: 'Begin' });
  for (const no of ['0', '301', '']) {
    fireEvent.change(many, { target: { value: no } });
    fireEvent.click(begin);
    expect(await screen.findByText('1 to 300')).toBeTruthy();
  }
  expect(asked).toEqual([]);
  fireEvent.change(many, { target: { value: '300' } });
  fireEvent.click(begin);
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'POST', body: { size: 300 } }));
});
