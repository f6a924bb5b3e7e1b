import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../../testing/answers';
import { CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import RehearsalStrip from './RehearsalStrip';

const INFO = {
  ...{ of: 'lecture', course: 'nav', size: 12, refused: 3, lent: [] },
  tried: [
    { id: 'ringIn', words: 'Ring in', done: true },
    { id: 'hush', words: 'Hush', done: false },
  ],
};

test('what is not tried yet is counted and listed, and something is let happen by two presses', async () => {
  const { tools } = roomTools(maren, CLASS);
  const path = `/api/sessions/${tools.connection.view.info!.session.id}/rehearsal`;
  answerRequests({ [`GET ${path}`]: INFO, [`POST ${path}/prompt`]: {} });
  showInRoom(tools, <RehearsalStrip />);
  fireEvent.click(await screen.findByRole('button', { name: '1 not tried yet' }));
  const all = (await screen.findAllByRole('listitem')).map((li) => li.textContent);
  expect(all).toEqual(['Ring in, tried', 'Hush, not yet']);
  expect(screen.getByText('What is closed was tried, and refused: 3 times.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Let something happen' }));
  fireEvent.click(await screen.findByRole('menuitem', { name: 'Connections are lost' }));
  await waitFor(() => expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ what: 'lines' }));
});

test('a student reads that it is a rehearsal, and is asked nothing', () => {
  const { tools } = roomTools({ member: 'ana', role: 'student' }, CLASS);
  answerRequests({});
  showInRoom(tools, <RehearsalStrip />);
  expect(screen.getByText(/nothing of it is kept/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
  expect(asked).toEqual([]);
});
