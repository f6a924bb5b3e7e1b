import { toLocalDate, weekdayOf } from './localDate';
import { timeWords } from './style';
import { dateIn, dateWords, listWords, zoneWords } from './words';
import { offsetAt, toWall, type Instant } from './zone';

/** A session as far as it says when it is. */
export interface Timed {
  startsAt: Instant;
  minutes: number;
}

const SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A time of day from start to end, and the weekday it is on, by one clock. */
interface Slot {
  weekday: number;
  span: string;
}

function slotOf({ startsAt, minutes }: Timed, zone: string): Slot {
  const wall = toWall(zone, startsAt);
  return {
    weekday: weekdayOf(wall.day),
    span: `${timeWords(wall.minutes)}–${timeWords(wall.minutes + minutes)}`,
  };
}

/** Sessions in a row that are at one time of day by the reader's clock. */
interface Run {
  span: string;
  /** Days by which the reader's date is another than at home. */
  shift: number;
  sessions: Timed[];
}

/**
 * When sessions are by one clock: the usual time first, then the weeks in which it is another, because that clock and the
 * one at home change on different dates: "Tue and Thu 22:30–23:50, on Tue 27 Oct and Thu 29 Oct 21:30–22:50".
 */
export function timesWords(sessions: readonly Timed[], zone: string, home: string): string {
  const byHour = new Map<string, Timed[]>();
  for (const s of lastingOf(sessions, home)) {
    const { span } = slotOf(s, home);
    byHour.set(span, [...(byHour.get(span) ?? []), s]);
  }
  return [...byHour.values()].map((g) => groupWords(g, zone, home)).join('; ');
}

/** Without what stands alone in its weekday and hour beside what repeats: a single change is no time that they have. */
function lastingOf(sessions: readonly Timed[], home: string): Timed[] {
  const slots = new Map<string, Timed[]>();
  for (const s of [...sessions].sort((a, b) => a.startsAt - b.startsAt)) {
    const { weekday, span } = slotOf(s, home);
    const key = `${weekday} ${span}`;
    slots.set(key, [...(slots.get(key) ?? []), s]);
  }
  const all = [...slots.values()];
  const lasting = all.filter((slot) => slot.length > 1);
  return (lasting.length ? lasting : all).flat().sort((a, b) => a.startsAt - b.startsAt);
}

function groupWords(group: readonly Timed[], zone: string, home: string): string {
  const runs = runsOf(group, zone, home);
  const count = ({ span, shift }: Run) =>
    runs.filter((r) => r.span === span && r.shift === shift).reduce((sum, r) => sum + r.sessions.length, 0);
  const usual = runs.reduce((best, r) => (count(r) > count(best) ? r : best));
  const isUsual = (r: Run) => r.span === usual.span && r.shift === usual.shift;
  const days = (r: Run[]) => {
    const found = new Set(r.flatMap((x) => x.sessions.map((s) => slotOf(s, zone).weekday)));
    return listWords([...found].sort((a, b) => a - b).map((d) => SHORT[d]!));
  };
  const others = runs.filter((r) => !isUsual(r)).map((r) => exceptionWords(r, zone, r === runs.at(-1)));
  return [`${days(runs.filter(isUsual))} ${usual.span}`, ...others].join(', ');
}

function runsOf(group: readonly Timed[], zone: string, home: string): Run[] {
  const runs: Run[] = [];
  for (const s of group) {
    const { span } = slotOf(s, zone);
    const shift = toWall(zone, s.startsAt).day - toWall(home, s.startsAt).day;
    const last = runs.at(-1);
    if (last && last.span === span && last.shift === shift) last.sessions.push(s);
    else runs.push({ span, shift, sessions: [s] });
  }
  return runs;
}

function exceptionWords({ span, sessions }: Run, zone: string, last: boolean): string {
  const dates = sessions.map((s) => dateWords(dateIn(zone, s.startsAt)));
  if (last && dates.length > 1) return `from ${dates[0]} ${span}`;
  if (dates.length <= 2) return `on ${listWords(dates)} ${span}`;
  return `from ${dates[0]} to ${dates.at(-1)} ${span}`;
}

/** The reader's own time first, and what it is at home; null where both clocks say the same. */
export function ownTimesWords(sessions: readonly Timed[], zone: string, home: string): string | null {
  if (!sessions.length || sessions.every((s) => offsetAt(zone, s.startsAt) === offsetAt(home, s.startsAt)))
    return null;
  return `${timesWords(sessions, zone, home)}, your time in ${zoneWords(zone)} (${timesWords(sessions, home, home)} in ${zoneWords(home)})`;
}

/** A session as it was and as it is. */
export interface MovedSession {
  was: Timed;
  is: Timed;
}

/** Fewer are said one by one. */
const FEWEST = 3;

/**
 * Sessions that moved alike, from one weekday and time to another: each such group, and those that stand alone. The times
 * are those at home: by them a move of the plan is one move, whatever the reader's clock does meanwhile.
 */
export function movedAlike<T extends MovedSession>(
  moved: readonly T[],
  home: string,
): { alike: T[][]; single: T[] } {
  const groups = new Map<string, T[]>();
  for (const m of moved) {
    const [was, is] = [slotOf(m.was, home), slotOf(m.is, home)];
    const key = `${was.weekday} ${was.span} ${is.weekday} ${is.span}`;
    groups.set(key, [...(groups.get(key) ?? []), m]);
  }
  const all = [...groups.values()];
  return {
    alike: all.filter((g) => g.length >= FEWEST),
    single: all.filter((g) => g.length < FEWEST).flat(),
  };
}

/** The first date of some sessions, by one clock. */
export const firstDateWords = (sessions: readonly Timed[], zone: string): string =>
  dateWords(toLocalDate(toWall(zone, Math.min(...sessions.map((s) => s.startsAt))).day));
