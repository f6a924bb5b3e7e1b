import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { show } from '../testing/render';
import { WriteButton } from './WriteButton';

const TO = ['Ana Lanyon', 'Ben Garrow'].map((name, i) => ({ member: `m${i}`, name }));

test('a word is written to some of the class, each alone, about a recording where there is one', async () => {
  answerRequests({ 'POST /api/courses/c/words': { count: 2 } });
  show(<WriteButton label="Write to them …" course="c" to={TO} begin="You missed it." recording="r" />);
  fireEvent.click(screen.getByRole('button', { name: 'Write to them …' }));
  expect(await screen.findByText('To Ana Lanyon and Ben Garrow, each alone.')).toBeTruthy();
  const field = screen.getByLabelText('What you write');
  fireEvent.change(field, { target: { value: ' ' } });
  const send = () => screen.getByRole('button', { name: 'Send it' }) as HTMLButtonElement;
  expect(send().disabled).toBe(true);
  fireEvent.change(field, { target: { value: 'Come back.' } });
  fireEvent.click(send());
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')?.body).toEqual({
      members: ['m0', 'm1'],
      text: 'Come back.',
      recording: 'r',
    }),
  );
});
