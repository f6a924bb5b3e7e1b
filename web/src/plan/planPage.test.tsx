import { screen } from '@testing-library/react';
import { freshSession, inCourse } from '../testing/render';
import { PlanPage } from './PlanPage';

test('an assistant sees the plan, and no way to change it', () => {
  const series = [
    {
      id: 's',
      title: 'Lecture',
      group: null,
      kind: 'class' as const,
      expected: null,
      leads: [],
      publishedAt: 1,
      listed: false,
      pattern: {
        kind: 'weekly' as const,
        every: 1,
        lingerMinutes: 0,
        ends: { by: 'term' as const },
        days: [{ day: 'tuesday' as const, start: '18:30', minutes: 80 }],
      },
    },
  ];
  inCourse({ role: 'assistant', series, sessions: [freshSession({ seriesId: 's' })] }, <PlanPage />);
  expect(screen.getByText(/Tue 18:30–19:50, Halifax time/)).toBeTruthy();
  expect(screen.getByText(/Skipped: Tue 13 Oct \(Reading week\)/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Change' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Add a series' })).toBeNull();
});
