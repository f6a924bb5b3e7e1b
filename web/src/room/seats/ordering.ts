import type { SeatPerson } from '@nimble-bell/core/api';
import { told } from '../../app/told';

/** By what people sit: as the class list has them, by group, who was seen to do nothing for longest first, or by hand. */
export const ORDERS = ['list', 'group', 'quiet', 'hand'] as const;
export type Order = (typeof ORDERS)[number];

/** How one has the seats; kept on this device. By hand: the ids of those who were moved, in their order. */
export interface Ordering {
  by: Order;
  hand: string[];
}

const KEY = 'nb-seats';
const USUAL: Ordering = { by: 'list', hand: [] };

function kept(): Ordering {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Ordering>) };
  } catch {
    return USUAL;
  }
}

export const ordering = told<Ordering>(kept());

export function orderSeats(more: Partial<Ordering>) {
  ordering.set({ ...ordering.get(), ...more });
  try {
    localStorage.setItem(KEY, JSON.stringify(ordering.get()));
  } catch {
    // It holds until the page is left.
  }
}

/** Sorts people who are in the class list's order; `quiet` gives since when somebody is quiet, an instant or null. */
export function inSeatOrder(
  people: readonly SeatPerson[],
  { by, hand }: Ordering,
  quiet: (member: string) => number | null,
): SeatPerson[] {
  const place: Record<Order, (p: SeatPerson) => number | string> = {
    list: () => 0,
    // Who is in no group comes last.
    group: (p) => p.group ?? '\uffff',
    quiet: (p) => quiet(p.member) ?? Infinity,
    hand: (p) => (hand.includes(p.member) ? hand.indexOf(p.member) : Infinity),
  };
  const placed = people.map((p) => ({ p, at: place[by](p) }));
  return placed.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0)).map(({ p }) => p);
}
