import { noPreferences } from '@nimble-bell/core/api';
import { screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { show } from '../testing/render';
import { EntrancePage } from './EntrancePage';

const me = {
  now: Date.now(),
  person: { id: 'p', name: 'Maren Oduya', email: 'm@saltmarsh.example', zone: 'America/Halifax' },
  demo: false,
  preferences: noPreferences(),
};

test('without the demo the entrance is a sign-in and nothing else', async () => {
  answerRequests({ '/api/me': { ...me, person: null } });
  show(<EntrancePage />);
  expect(screen.getByRole('button', { name: 'Sign in' })).toBeTruthy();
  await waitFor(() => expect(asked.length).toBeGreaterThan(0));
  expect(screen.queryByText(/a demo/)).toBeNull();
});
