import type { Weekday } from './plan';
import { toClock, toMinutes } from './localDate';
import { countWords } from './words';

/** When groups may meet. */
export interface SlotWindow {
  days: readonly Weekday[];
  /** Clock times, the end of the last session included. */
  from: string;
  to: string;
}

export interface GroupSlot {
  day: Weekday;
  start: string;
  minutes: number;
}

/**
 * A weekly slot for each group. Simultaneous ones all begin with the window; staggered ones follow on one another, with
 * `gap` minutes between, on the first weekday until it is full, then on the next. In words, where they do not fit.
 */
export function groupSlots(
  groups: number,
  window: SlotWindow,
  minutes: number,
  gap: number,
  way: 'staggered' | 'simultaneous',
): GroupSlot[] | string {
  const [from, to] = [toMinutes(window.from), toMinutes(window.to)];
  if (window.days.length === 0) return 'Choose at least one weekday.';
  const perDay = Math.max(0, Math.floor((to - from + gap) / (minutes + gap)));
  if (perDay === 0)
    return `A session of ${minutes} minutes does not fit between ${window.from} and ${window.to}.`;
  if (way === 'simultaneous')
    return Array.from({ length: groups }, () => ({ day: window.days[0]!, start: window.from, minutes }));
  const room = perDay * window.days.length;
  if (groups > room)
    return `${countWords(groups, 'group')} of ${minutes} minutes do not fit: there is room for ${room}. Widen the window, add a weekday or shorten the session.`;
  return Array.from({ length: groups }, (_, i) => ({
    day: window.days[Math.floor(i / perDay)]!,
    start: toClock(from + (i % perDay) * (minutes + gap)),
    minutes,
  }));
}
