import type { DaySwap, MeetingPattern, Period, WeeklyPattern } from './plan';
import { timeOfDay } from './bellTimes';
import { toLocalDate, toMinutes } from './localDate';
import { dayOfMonthWords, styleNow, timeWords } from './style';
import { weekdayIndex } from './term';
import { toWall, type Instant } from './zone';

const SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Tue 6 Oct" from `2026-10-06`, as the reader is used to it: this and all that follows is written in their style. */
export function dateWords(date: string): string {
  const d = new Date(`${date}T00:00Z`);
  return `${SHORT[(d.getUTCDay() + 6) % 7]} ${dayOfMonthWords(d.getUTCDate(), MONTHS[d.getUTCMonth()]!)}`;
}

/** "6 Oct" from `2026-10-06`, where there is little room. */
export function shortDayWords(date: string): string {
  const d = new Date(`${date}T00:00Z`);
  return dayOfMonthWords(d.getUTCDate(), MONTHS[d.getUTCMonth()]!);
}

/** "Tue 6 Oct 2026", for days that may lie in another year. */
export const dayWords = (date: string): string =>
  `${dateWords(date)}${styleNow().order === 'month first' ? ',' : ''} ${date.slice(0, 4)}`;

/** "Tue 6 Oct, 18:30" in the given zone. */
export function instantWords(instant: Instant, zone: string): string {
  const wall = toWall(zone, instant);
  return `${dateWords(toLocalDate(wall.day))}, ${timeWords(wall.minutes)}`;
}

/** The date it is in a zone at an instant, `YYYY-MM-DD`. */
export const dateIn = (zone: string, instant: Instant): string => toLocalDate(toWall(zone, instant).day);

/** "18:30" in the given zone. */
export const clockWords = (instant: Instant, zone: string): string =>
  timeWords(toWall(zone, instant).minutes);

/** Cities whose zone is named without the marks that people write them with. */
const CITIES: Record<string, string> = {
  Asuncion: 'Asunción',
  Bogota: 'Bogotá',
  Cancun: 'Cancún',
  Cordoba: 'Córdoba',
  Curacao: 'Curaçao',
  DumontDUrville: 'Dumont d’Urville',
  El_Aaiun: 'El Aaiún',
  Merida: 'Mérida',
  Noumea: 'Nouméa',
  Sao_Paulo: 'São Paulo',
  Sao_Tome: 'São Tomé',
  St_Barthelemy: 'St Barthélemy',
  St_Johns: 'St John’s',
};

/** The city of a zone, as people write it: "Halifax" from `America/Halifax`, "St John’s" from `America/St_Johns`. */
export function zoneWords(zone: string): string {
  const city = zone.slice(zone.lastIndexOf('/') + 1);
  return CITIES[city] ?? city.replaceAll('_', ' ');
}

/** "Wed 7 Oct follows Monday", with what the day is called where that says something else. */
export function swapWords({ date, follows, name }: DaySwap): string {
  const weekday = follows[0]!.toUpperCase() + follows.slice(1);
  const says = name.toLowerCase().includes(follows);
  return `${dateWords(date)} follows ${weekday}${says ? '' : `: ${name}`}`;
}

/** "Tue and Thu 18:30–19:50", each time said once; "every 2nd day 09:00–10:00", "the last Fri of the month 17:00–18:00". */
export function patternWords(pattern: MeetingPattern, periods: readonly Period[] = []): string {
  if (pattern.kind === 'weekly') return weeklyWords(pattern, periods);
  const time = pattern.start && pattern.minutes ? ` ${span(toMinutes(pattern.start), pattern.minutes)}` : '';
  if (pattern.kind === 'daily')
    return `${pattern.every > 1 ? `every ${nth(pattern.every)} day` : 'every day'}${time}`;
  if (pattern.kind === 'monthly') {
    const { onWeekday, onDate } = pattern;
    const day = onWeekday
      ? `${onWeekday.nth === -1 ? 'last' : nth(onWeekday.nth)} ${SHORT[weekdayIndex(onWeekday.day)]}`
      : nth(onDate!);
    return `the ${day} of ${pattern.every > 1 ? `every ${nth(pattern.every)} month` : 'the month'}${time}`;
  }
  if (pattern.dates.length > 1) return `${pattern.dates.length} listed dates${time}`;
  const only = pattern.dates[0]!;
  const own = typeof only === 'string' ? { date: only } : only;
  const start = own.start ?? pattern.start;
  return `${dateWords(own.date)}${start ? ` ${span(toMinutes(start), own.minutes ?? pattern.minutes!)}` : ''}`;
}

const span = (start: number, minutes: number) => `${timeWords(start)}–${timeWords(start + minutes)}`;

const nth = (n: number): string => {
  const tens = n % 100;
  const suffix = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${suffix}`;
};

function weeklyWords(pattern: WeeklyPattern, periods: readonly Period[]): string {
  const byTime = new Map<string, string[]>();
  const sorted = [...pattern.days].sort((a, b) => weekdayIndex(a.day) - weekdayIndex(b.day));
  for (const d of sorted) {
    const settled = timeOfDay(d, periods);
    const time =
      typeof settled === 'string' ? '(no such period)' : span(settled.startMinutes, settled.minutes);
    const label = 'periods' in d ? `${periodWords(d.periods)} (${time})` : time;
    byTime.set(label, [...(byTime.get(label) ?? []), SHORT[weekdayIndex(d.day)]!]);
  }
  const days = [...byTime].map(([time, names]) => `${listWords(names)} ${time}`).join(', ');
  if (pattern.every === 1) return days;
  return `every ${nth(pattern.every)} ${pattern.weeks === 'calendar' ? 'calendar week' : 'week'}, ${days}`;
}

const periodWords = (names: readonly string[]) =>
  names.length > 1 ? `periods ${names[0]}–${names.at(-1)}` : `period ${names[0]}`;

/** The names, or the first three of many and how many more. */
export const namesWords = (names: readonly string[]): string =>
  listWords(names.length > 4 ? [...names.slice(0, 3), `${names.length - 3} more`] : names);

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

/** "1:02:05" or "4:07" from milliseconds. */
export function lengthWords(ms: number): string {
  const s = Math.round(ms / 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  const h = Math.floor(s / 3600);
  const m = Math.floor(s / 60) % 60;
  return h ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
}

/** "1 person", "3 people". */
export const countWords = (n: number, one: string, many = `${one}s`): string =>
  `${n} ${n === 1 ? one : many}`;
