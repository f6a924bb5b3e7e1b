import type { MeetingPattern, Period, Term, Weekday } from '../calendar/plan';

const DAYS: Weekday[] = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const at = (date: string) => new Date(`${date}T00:00Z`);
const plus = (date: string, n: number) =>
  new Date(at(date).getTime() + n * 86_400_000).toISOString().slice(0, 10);
const weekday = (date: string) => DAYS[at(date).getUTCDay()]!;
const monday = (date: string) => plus(date, -((at(date).getUTCDay() + 6) % 7));
const between = (a: string, b: string) => (at(b).getTime() - at(a).getTime()) / 86_400_000;
const minutesOf = (clock: string) => Number(clock.split(':')[0]) * 60 + Number(clock.split(':')[1]);

/**
 * The dates of a pattern the plain way, for the tests: walk every day, ask every question of every day, with strings
 * and JavaScript dates only. Slow, and meant to be read.
 */
export function plainSessions(term: Term, pattern: MeetingPattern, periods: readonly Period[]) {
  const sessions: string[] = [];
  const skipped: string[] = [];
  const from = pattern.firstDate && pattern.firstDate > term.firstDay ? pattern.firstDate : term.firstDay;
  let taught = 0;
  const full = () =>
    (pattern.ends.by === 'count' && sessions.length >= pattern.ends.count) ||
    (pattern.ends.by === 'hours' && taught >= pattern.ends.hours * 60);
  const listed =
    pattern.kind === 'dates' ? pattern.dates.map((d) => (typeof d === 'string' ? d : d.date)) : [];
  const early = [term.firstDay, ...listed].sort()[0]!;
  const late = [term.lastDay, ...listed].sort().at(-1)!;

  for (let date = early; date <= late; date = plus(date, 1)) {
    if (full()) break;
    const outside = date < term.firstDay || date > term.lastDay;
    if (pattern.ends.by === 'date' && date > pattern.ends.date) break;
    if (date < from || outside) {
      if (listed.includes(date)) skipped.push(date);
      continue;
    }
    const off = term.daysOff.some((o) => o.from <= date && date <= o.to);
    const follows = term.daySwaps.find((s) => s.date === date)?.follows ?? weekday(date);
    const answer = meets(term, pattern, periods, date, off ? null : follows, from);
    if (answer === 'skipped') skipped.push(date);
    else if (answer) {
      taught += answer.minutes;
      sessions.push(`${date} ${answer.start} ${answer.minutes} ${weekNumber(term, date)}`);
    }
  }
  return { sessions, skipped };
}

type Answer = { start: string; minutes: number } | 'skipped' | null;

function meets(
  term: Term,
  pattern: MeetingPattern,
  periods: readonly Period[],
  date: string,
  follows: Weekday | null,
  from: string,
): Answer {
  switch (pattern.kind) {
    case 'weekly': {
      if (!isTurn(term, pattern, date, from)) return null;
      const day = pattern.days.find((d) => d.day === follows);
      if (!day) return pattern.days.some((d) => d.day === weekday(date)) ? 'skipped' : null;
      if (!('periods' in day)) return day;
      const first = periods.find((p) => p.name === day.periods[0])!;
      const last = periods.find((p) => p.name === day.periods.at(-1))!;
      return { start: first.start, minutes: minutesOf(last.end) - minutesOf(first.start) };
    }
    case 'daily':
      if (between(from, date) % pattern.every !== 0) return null;
      return follows ? pattern : 'skipped';
    case 'monthly': {
      const months = (d: string) => Number(d.slice(0, 4)) * 12 + Number(d.slice(5, 7));
      if ((months(date) - months(from)) % pattern.every !== 0) return null;
      if (pattern.onWeekday) {
        const { nth, day } = pattern.onWeekday;
        if (weekday(date) !== day) return null;
        const isLast = plus(date, 7).slice(0, 7) !== date.slice(0, 7);
        if (nth === -1 ? !isLast : Math.ceil(Number(date.slice(8)) / 7) !== nth) return null;
        return follows === day ? pattern : 'skipped';
      }
      if (Number(date.slice(8)) !== pattern.onDate) return null;
      return follows ? pattern : 'skipped';
    }
    case 'dates': {
      const entry = pattern.dates.find((d) => (typeof d === 'string' ? d : d.date) === date);
      if (!entry) return null;
      if (!follows) return 'skipped';
      const own: { start?: string | undefined; minutes?: number | undefined } =
        typeof entry === 'string' ? {} : entry;
      return { start: own.start ?? pattern.start!, minutes: own.minutes ?? pattern.minutes! };
    }
  }
}

function isTurn(
  term: Term,
  pattern: MeetingPattern & { kind: 'weekly' },
  date: string,
  from: string,
): boolean {
  if (pattern.every === 1) return true;
  if (pattern.weeks === 'calendar') return (between(monday(from), monday(date)) / 7) % pattern.every === 0;
  const number = weekNumber(term, date);
  let first = monday(from);
  while (weekNumber(term, first) === null && first <= term.lastDay) first = plus(first, 7);
  return number !== null && (number - (weekNumber(term, first) ?? 1)) % pattern.every === 0;
}

function weekNumber(term: Term, date: string): number | null {
  let number = 0;
  for (let week = monday(term.firstDay); week <= term.lastDay; week = plus(week, 7)) {
    const teaches = [0, 1, 2, 3, 4].some((i) => {
      const d = plus(week, i);
      return d >= term.firstDay && d <= term.lastDay && !term.daysOff.some((o) => o.from <= d && d <= o.to);
    });
    if (teaches) number++;
    if (week === monday(date)) return teaches ? number : null;
  }
  return null;
}
