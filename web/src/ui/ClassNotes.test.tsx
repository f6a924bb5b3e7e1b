import { act, fireEvent, screen } from '@testing-library/react';
import { answerRequests } from '../testing/answers';
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
    '/api/recordings/r1/class-notes/20000': { text: '' },
  });
  const at = (ms: number) => (
    <ClassNotes session="s1" name="Lecture 3" beside={{ recording: 'r1', at: ms }} />
  );
  show(at(24_000));
  expect(await screen.findByText('Nothing is written yet.')).toBeTruthy();
  expect(screen.queryByRole('radio', { name: 'Table 1' })).toBeNull();
  fireEvent.click(screen.getByRole('radio', { name: 'As they became' }));
  expect(screen.getByText('Springs')).toBeTruthy();
});

test('where nothing was written there is no panel', async () => {
  answerRequests({ '/api/sessions/s1/notes': { notes: [] } });
  show(<ClassNotes session="s1" name="Lecture 3" />);
  await act(async () => new Promise((resolve) => setTimeout(resolve, 30)));
  expect(screen.queryByText('Class notes')).toBeNull();
});
