import fc from 'fast-check';
import { MeetingPattern } from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import { anyPattern } from '@nimble-bell/core/testing';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { draft } from '../app/course';
import { course, show } from '../testing/render';
import { SeriesEditor } from './SeriesEditor';
import { draftOf, emptyForm, formOf, toggleDay, togglePeriod } from './seriesForm';

test('a weekday takes the time of the one before it, in the order of the week, and is taken away again', () => {
  const thursday = toggleDay([], 'thursday');
  expect(thursday).toEqual([{ day: 'thursday', start: '18:30', minutes: 80, periods: [] }]);
  const both = toggleDay([{ day: 'thursday', start: '09:15', minutes: 45, periods: [] }], 'monday');
  expect(both.map((d) => [d.day, d.start, d.minutes])).toEqual([
    ['monday', '09:15', 45],
    ['thursday', '09:15', 45],
  ]);
  expect(toggleDay(both, 'thursday').map((d) => d.day)).toEqual(['monday']);
});

test('what the editor holds becomes what the server takes, and back', () => {
  const form = {
    ...emptyForm(),
    days: toggleDay([], 'tuesday'),
    lingerMinutes: 10,
    endsBy: 'count' as const,
    count: 8,
  };
  const draft = draftOf(form);
  expect(draft.pattern).toEqual({
    kind: 'weekly',
    every: 1,
    days: [{ day: 'tuesday', start: '18:30', minutes: 80 }],
    lingerMinutes: 10,
    ends: { by: 'count', count: 8 },
  });
  const dated = draftOf({ ...form, endsBy: 'date', endDate: '2026-10-20' });
  expect(dated.pattern!.ends).toEqual({ by: 'date', date: '2026-10-20' });
  expect(draftOf({ ...form, kind: 'open' }).pattern).toBeNull();
});

test('a pattern of any kind and periods comes through the form as it was', () => {
  fc.assert(
    fc.property(anyPattern, (any) => {
      const usesPeriods = any.kind === 'weekly' && any.days.some((d) => 'periods' in d);
      const pattern = MeetingPattern.parse(
        usesPeriods && any.kind === 'weekly'
          ? { ...any, bellTimes: 'bells', days: any.days.map(({ day }) => ({ day, periods: ['P1'] })) }
          : any,
      );
      const series = {
        id: 's',
        title: 'Any',
        kind: 'class' as const,
        pattern,
        group: null,
        expected: null,
        leads: [],
        listed: false,
        publishedAt: null,
      };
      const back = MeetingPattern.parse(draftOf(formOf(series)).pattern);
      const term = course().term;
      const periods = [{ name: 'P1', start: '09:00', end: '09:45' }];
      expect(sessionsOf(term, back, undefined, periods)).toEqual(
        sessionsOf(term, pattern, undefined, periods),
      );
    }),
  );
});

test('periods are pressed together into consecutive ones', () => {
  const order = ['P1', 'P2', 'P3', 'P4'];
  expect(togglePeriod([], 'P2', order)).toEqual(['P2']);
  expect(togglePeriod(['P2'], 'P4', order)).toEqual(['P2', 'P3', 'P4']);
  expect(togglePeriod(['P2', 'P3'], 'P3', order)).toEqual(['P3']);
  expect(togglePeriod(['P3'], 'P3', order)).toEqual([]);
});

beforeEach(() => {
  globalThis.fetch = jest.fn(async (url: unknown) => {
    const body = String(url).includes('/drafts')
      ? { draft: null }
      : { sessions: [], told: [], clashes: [], made: [] };
    return { ok: true, json: async () => body } as Response;
  }) as never;
});

async function edit() {
  show(<SeriesEditor course={course()} series={null} done={() => {}} />);
  await screen.findByLabelText('Name of the series');
}

test('every press redraws count, hours and skipped dates, and the draft on the ribbon', async () => {
  await edit();
  expect(screen.getByText(/Say when it meets/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'tuesday' }));
  await waitFor(() => expect(screen.getByTestId('session-count').textContent).toBe('14'));
  expect(screen.getByTestId('skipped').textContent).toContain('Tue 13 Oct: Reading week');
  expect(screen.getByText('18 h 40 min')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'thursday' }));
  await waitFor(() => expect(screen.getByTestId('session-count').textContent).toBe('28'));
  expect(draft.get()?.sessions).toHaveLength(28);
  fireEvent.click(screen.getByRole('radio', { name: 'A number' }));
  fireEvent.change(screen.getByLabelText('Sessions'), { target: { value: '40' } });
  await waitFor(() => expect(screen.getByText('12 sessions more than the term has room for.')).toBeTruthy());
});

test('the dates are checked against the number that is expected, with the first reason', async () => {
  await edit();
  fireEvent.click(screen.getByRole('button', { name: 'tuesday' }));
  fireEvent.change(screen.getByLabelText('Sessions you expect'), { target: { value: '15' } });
  await waitFor(() =>
    expect(screen.getByText('15 sessions expected, 14 fit: Tue 13 Oct is Reading week.')).toBeTruthy(),
  );
  fireEvent.change(screen.getByLabelText('Sessions you expect'), { target: { value: '14' } });
  await waitFor(() => expect(screen.getByText('As many as you expect.')).toBeTruthy());
});

test('nothing is saved without a weekday, a name or a length, and each fault stands at its field', async () => {
  await edit();
  fireEvent.change(screen.getByLabelText('Name of the series'), { target: { value: ' ' } });
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(screen.getByText('Choose at least one weekday.')).toBeTruthy());
  expect(screen.getByText('Give the series a name.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'monday' }));
  fireEvent.change(screen.getByLabelText('Minutes on monday'), { target: { value: '' } });
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(screen.getByText('Give whole minutes.')).toBeTruthy());
});
