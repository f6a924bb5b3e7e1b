import { fireEvent, screen } from '@testing-library/react';
import type { SeatPerson } from '@nimble-bell/core/api';
import { CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { inSeatOrder, ordering, orderSeats } from './ordering';
import SeatOrder from './SeatOrder';
import { Seats } from './Seats';

const person = (member: string, group: string | null = null): SeatPerson => ({
  ...{ member, name: member, role: 'student', group },
});
const LIST = [person('ana', 'West'), person('ben', 'East'), person('cleo'), person('dot', 'East')];
const by = (how: Partial<ReturnType<typeof ordering.get>>, quiet: Record<string, number> = {}) =>
  inSeatOrder(LIST, { by: 'list', hand: [], ...how }, (m) => quiet[m] ?? null)
    .map((p) => p.member)
    .join(' ');

test('seats stand by the list, by group, by who is quiet for longest, or as they were put', () => {
  expect(by({})).toBe('ana ben cleo dot');
  expect(by({ by: 'group' })).toBe('ben dot ana cleo');
  expect(by({ by: 'quiet' }, { cleo: 5, ben: 9 })).toBe('cleo ben ana dot');
  expect(by({ by: 'hand', hand: ['dot', 'gone', 'ana'] })).toBe('dot ana ben cleo');
});

test('they are put in an order by arrows, on this device; the seats follow', () => {
  orderSeats({ by: 'list', hand: [] });
  const { tools } = roomTools(maren, CLASS);
  showInRoom(
    tools,
    <>
      <Seats />
      <SeatOrder />
    </>,
  );
  const seats = () => screen.getAllByTestId('seat').map((s) => s.getAttribute('data-name'));
  const before = seats();
  fireEvent.click(screen.getByRole('radio', { name: 'My own order' }));
  const last = screen.getAllByRole('button', { name: /^Earlier: / }).at(-1)!;
  expect(screen.getAllByRole('button', { name: /^Earlier: / })[0]).toHaveProperty('disabled', true);
  const name = last.getAttribute('aria-label')!.replace('Earlier: ', '');
  for (let i = 1; i < before.length; i++)
    fireEvent.click(screen.getByRole('button', { name: `Earlier: ${name}` }));
  expect(seats()[0]).toBe(name);
  expect(JSON.parse(localStorage.getItem('nb-seats')!).by).toBe('hand');
  fireEvent.click(screen.getByRole('radio', { name: 'The class list' }));
  expect(seats()).toEqual(before);
});
