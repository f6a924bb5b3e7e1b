import type { MeetingPattern } from '../api/plan';
import { toClock, toLocalDate, toMinutes } from './localDate';
import { weekdayIndex } from './term';
import { toWall, type Instant } from './zone';

const SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Tue 6 Oct" from `2026-10-06`. */
export function dateWords(date: string): string {
  const d = new Date(`${date}T00:00Z`);
  return `${SHORT[(d.getUTCDay() + 6) % 7]} ${d.getUTCDate()} ${MONTHS[d.getUTCMonth()]}`;
}

/** "Tue 6 Oct 2026", for days that may lie in another year. */
export const dayWords = (date: string): string => `${dateWords(date)} ${date.slice(0, 4)}`;

/** "Tue 6 Oct, 18:30" in the given zone. */
export function instantWords(instant: Instant, zone: string): string {
  const wall = toWall(zone, instant);
  return `${dateWords(toLocalDate(wall.day))}, ${toClock(wall.minutes)}`;
}

/** The date it is in a zone at an instant, `YYYY-MM-DD`. */
export const dateIn = (zone: string, instant: Instant): string => toLocalDate(toWall(zone, instant).day);

/** "18:30" in the given zone. */
export const clockWords = (instant: Instant, zone: string): string => toClock(toWall(zone, instant).minutes);

/** The city of a zone, as people say it: "Halifax" from `America/Halifax`, "St Johns" from `America/St_Johns`. */
export const zoneWords = (zone: string): string => zone.slice(zone.lastIndexOf('/') + 1).replaceAll('_', ' ');

/** "Tue and Thu 18:30–19:50", each time said once. */
export function patternWords(pattern: MeetingPattern): string {
  const byTime = new Map<string, string[]>();
  const sorted = [...pattern.days].sort((a, b) => weekdayIndex(a.day) - weekdayIndex(b.day));
  for (const d of sorted) {
    const time = `${d.start}–${toClock(toMinutes(d.start) + d.minutes)}`;
    byTime.set(time, [...(byTime.get(time) ?? []), SHORT[weekdayIndex(d.day)]!]);
  }
  const days = [...byTime].map(([time, names]) => `${listWords(names)} ${time}`).join(', ');
  return pattern.every > 1 ? `every ${pattern.every} weeks, ${days}` : days;
}

/** "a, b and c". */
export function listWords(items: readonly string[]): string {
  if (items.length < 2) return items.join('');
  return `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`;
}

/** "1 h 20 min", "45 min". */
export function durationWords(minutes: number): string {
  const h = Math.floor(minutes / 60);
  const m = Math.round(minutes % 60);
  return [h ? `${h} h` : '', m || !h ? `${m} min` : ''].filter(Boolean).join(' ');
}

/** "1 person", "3 people". */
export const countWords = (n: number, one: string, many = `${one}s`): string =>
  `${n} ${n === 1 ? one : many}`;
