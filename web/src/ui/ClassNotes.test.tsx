import { act, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { answerRequests, asked } from '../testing/answers';
import { show } from '../testing/render';
import ClassNotes from './ClassNotes';

const NOTES = {
  notes: [
    { place: 'class', title: 'The class', text: 'Springs', by: [{ name: 'Ana Lanyon', letters: 7 }] },
    { place: 'table-1-1', title: 'Table 1', text: 'Two metres', by: [] },
  ],
};

test('what the class wrote is read with by whom it is, and what its tables did', async () => {
  answerRequests({ '/api/sessions/s1/notes': NOTES });
  show(<ClassNotes session="s1" name="Lecture 3" />);
  expect(await screen.findByText('Springs')).toBeTruthy();
  expect(screen.getByText(/^Written by/).textContent).toBe('Written by Ana Lanyon (7 letters).');
  fireEvent.click(screen.getByRole('radio', { name: 'Table 1' }));
  expect(screen.getByText('Two metres')).toBeTruthy();
  expect(screen.queryByText(/^Written by/)).toBeNull();
});

test('beside a recording they stand as they were at its moment, and as they became; no table’s', async () => {
  answerRequests({
    '/api/sessions/s1/notes': NOTES,
    '/api/recordings/r1/class-notes/24000': { text: '' },
    '/api/recordings/r1/class-notes/30000': { text: 'Springs at six' },
    '/api/recordings/r1/class-notes/26000': { text: 'Springs at' },
    '/api/recordings/r1/class-notes/31000': { text: 'Springs at seven' },
  });
  // It plays for a moment; somebody goes on in it, and back; then it plays for long.
  const moments = [24_000.4, 24_900, 30_000.2, 26_000, 27_000, 28_000, 29_000, 30_000, 31_000];
  function Recording() {
    const [i, setI] = useState(0);
    return (
      <>
        <button onClick={() => setI(i + 1)}>On</button>
        <ClassNotes session="s1" name="Lecture 3" beside={{ recording: 'r1', at: moments[i]! }} />
      </>
    );
  }
  show(<Recording />);
  const on = () => fireEvent.click(screen.getByRole('button', { name: 'On' }));
  expect(await screen.findByText('Nothing is written yet.')).toBeTruthy();
  expect(screen.queryByRole('radio', { name: 'Table 1' })).toBeNull();
  const then = () => asked.flatMap(({ path }) => path.match(/class-notes\/(\d+)$/)?.[1] ?? []);
  on();
  expect(then()).toEqual(['24000']);
  on();
  expect(await screen.findByText('Springs at six')).toBeTruthy();
  on();
  expect(await screen.findByText('Springs at')).toBeTruthy();
  for (let i = 0; i < 5; i++) on();
  expect(await screen.findByText('Springs at seven')).toBeTruthy();
  expect(then()).toEqual(['24000', '30000', '26000', '31000']);
  fireEvent.click(screen.getByRole('radio', { name: 'As they became' }));
  expect(screen.getByText('Springs')).toBeTruthy();
});

test('where nothing was written there is no panel', async () => {
  answerRequests({ '/api/sessions/s1/notes': { notes: [] } });
  show(<ClassNotes session="s1" name="Lecture 3" />);
  await act(async () => new Promise((resolve) => setTimeout(resolve, 30)));
  expect(screen.queryByText('Class notes')).toBeNull();
});
