import { toEpochDay, weekdayOf, type EpochDay } from './localDate';
import { toInstant } from './zone';

/** A wall-clock moment: an epoch day and seconds after midnight. */
export interface WallTime {
  day: EpochDay;
  seconds: number;
}

const FREQUENCIES = ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY', 'MINUTELY', 'SECONDLY'] as const;
type Frequency = (typeof FREQUENCIES)[number];
const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

export interface Recurrence {
  freq: Frequency;
  interval: number;
  count: number | null;
  until: string | null;
  /** First day of the week, 0 Monday. */
  weekStart: number;
  byMonth: number[];
  byWeekNo: number[];
  byYearDay: number[];
  byMonthDay: number[];
  /** `nth` 0 means every such weekday. */
  byDay: { nth: number; weekday: number }[];
  byHour: number[];
  byMinute: number[];
  bySecond: number[];
  bySetPos: number[];
}

type ListName =
  'byMonth' | 'byWeekNo' | 'byYearDay' | 'byMonthDay' | 'byHour' | 'byMinute' | 'bySecond' | 'bySetPos';
const LISTS: Record<string, [ListName, number, number]> = {
  BYMONTH: ['byMonth', 1, 12],
  BYWEEKNO: ['byWeekNo', -53, 53],
  BYYEARDAY: ['byYearDay', -366, 366],
  BYMONTHDAY: ['byMonthDay', -31, 31],
  BYHOUR: ['byHour', 0, 23],
  BYMINUTE: ['byMinute', 0, 59],
  BYSECOND: ['bySecond', 0, 60],
  BYSETPOS: ['bySetPos', -366, 366],
};

/** A recurrence rule read part by part (RFC 5545 §3.3.10), or in words why it cannot be. */
export function readRecurrence(text: string): Recurrence | string {
  const rule: Recurrence = {
    freq: 'DAILY',
    interval: 1,
    count: null,
    until: null,
    weekStart: 0,
    byMonth: [],
    byWeekNo: [],
    byYearDay: [],
    byMonthDay: [],
    byDay: [],
    byHour: [],
    byMinute: [],
    bySecond: [],
    bySetPos: [],
  };
  let frequency = false;
  for (const part of text.trim().toUpperCase().split(';').filter(Boolean)) {
    const [name = '', value = ''] = part.split('=');
    if (name === 'FREQ') {
      if (!(FREQUENCIES as readonly string[]).includes(value)) return `FREQ=${value} is not known.`;
      rule.freq = value as Frequency;
      frequency = true;
    } else {
      const fault = readPart(rule, name, value);
      if (fault) return fault;
    }
  }
  if (!frequency) return 'The rule has no FREQ.';
  if (rule.count && rule.until) return 'The rule has both COUNT and UNTIL.';
  return rule;
}

function readPart(rule: Recurrence, name: string, value: string): string | null {
  const bad = `${name}=${value} cannot be read.`;
  if (name === 'INTERVAL' || name === 'COUNT') {
    if (!/^\d{1,6}$/.test(value) || Number(value) < 1) return bad;
    rule[name === 'COUNT' ? 'count' : 'interval'] = Number(value);
  } else if (name === 'UNTIL') {
    if (!/^\d{8}(T\d{6}Z?)?$/.test(value)) return bad;
    rule.until = value;
  } else if (name === 'WKST') {
    rule.weekStart = DAYS.indexOf(value);
    if (rule.weekStart < 0) return bad;
  } else if (name === 'BYDAY') {
    for (const item of value.split(',')) {
      const match = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(item);
      if (!match) return bad;
      rule.byDay.push({ nth: Number(match[1] ?? 0), weekday: DAYS.indexOf(match[2]!) });
    }
  } else if (LISTS[name]) {
    const [key, low, high] = LISTS[name];
    for (const item of value.split(',')) {
      const n = Number(item);
      if (!/^[+-]?\d+$/.test(item) || n < low || n > high || (low < 0 && n === 0)) return bad;
      rule[key].push(n);
    }
    rule[key].sort((a, b) => a - b);
  } else if (!name.startsWith('X-')) return `${name} is not a part of a rule.`;
  return null;
}

/** What is tried at most before a rule is given up as too long. */
const MOST_STEPS = 60_000;
const PERIODS_A_DAY: { [F in Frequency]?: number } = { HOURLY: 24, MINUTELY: 1440, SECONDLY: 86_400 };

/**
 * The wall times a rule gives from its start, to the end of the day `to`, at most `most` of them. The start itself is
 * always the first (§3.8.5.3). `zone` is that of the start: an UNTIL in UTC is compared by it; without one it is UTC.
 * Null where the rule repeats so often that its days cannot be reached.
 */
export function recur(
  rule: Recurrence,
  start: WallTime,
  to: EpochDay,
  most: number,
  zone: string | null = null,
): WallTime[] | null {
  const found: WallTime[] = [start];
  const after = (t: WallTime) => t.day > start.day || (t.day === start.day && t.seconds > start.seconds);
  const past = untilOf(rule, zone);
  const limit = Math.min(most, rule.count ?? Infinity);
  if (past(start) || start.day > to) return [];
  // What cannot be reached is not walked.
  const aDay = (PERIODS_A_DAY[rule.freq] ?? 0) / rule.interval;
  if (limit === Infinity && !rule.until && (to - start.day) * aDay > MOST_STEPS) return null;
  let steps = 0;
  for (const period of periodsOf(rule, start)) {
    if (found.length >= limit || period.from > to) break;
    if (++steps > MOST_STEPS || found.length > MOST_STEPS) return null;
    const times = period.times();
    for (const time of rule.bySetPos.length ? atPositions(times, rule.bySetPos) : times) {
      if (time.day > to || past(time)) return found;
      if (after(time)) found.push(time);
      if (found.length >= limit) break;
    }
  }
  return found;
}

function untilOf(rule: Recurrence, zone: string | null): (t: WallTime) => boolean {
  const { until } = rule;
  if (!until) return () => false;
  const day = toEpochDay(`${until.slice(0, 4)}-${until.slice(4, 6)}-${until.slice(6, 8)}`);
  if (until.length === 8) return (t) => t.day > day;
  const seconds = +until.slice(9, 11) * 3600 + +until.slice(11, 13) * 60 + +until.slice(13, 15);
  if (!until.endsWith('Z') || !zone) return (t) => t.day > day || (t.day === day && t.seconds > seconds);
  const instant = day * 86_400_000 + seconds * 1000;
  return (t) => toInstant(zone, t.day, Math.floor(t.seconds / 60)) + (t.seconds % 60) * 1000 > instant;
}

function atPositions(times: WallTime[], positions: number[]): WallTime[] {
  const places = positions.map((p) => (p > 0 ? p - 1 : times.length + p)).filter((i) => times[i]);
  return [...new Set(places)].sort((a, b) => a - b).map((i) => times[i]!);
}

interface Span {
  from: EpochDay;
  times: () => WallTime[];
}

/** The stretches of time that a rule's frequency steps through, from the one that holds the start. */
function* periodsOf(rule: Recurrence, start: WallTime): Generator<Span> {
  const fits = dayFilter(rule, start.day);
  const clock = clockOf(rule, start.seconds);
  const over = (from: EpochDay, to: EpochDay): Span => ({
    from,
    times: () => {
      const times: WallTime[] = [];
      for (let day = from; day <= to; day++)
        if (fits(day)) for (const seconds of clock) times.push({ day, seconds });
      return times;
    },
  });
  const { year, month } = partsOf(start.day);
  const { interval } = rule;
  if (rule.freq === 'YEARLY')
    for (let y = year; ; y += interval) yield over(dayOf(y, 0), dayOf(y + 1, 0) - 1);
  if (rule.freq === 'MONTHLY')
    for (let m = month; ; m += interval) yield over(dayOf(year, m), dayOf(year, m + 1) - 1);
  if (rule.freq === 'WEEKLY') {
    const monday = start.day - ((weekdayOf(start.day) - rule.weekStart + 7) % 7);
    for (let day = monday; ; day += 7 * interval) yield over(day, day + 6);
  }
  if (rule.freq === 'DAILY') for (let day = start.day; ; day += interval) yield over(day, day);
  yield* shortPeriods(rule, start, fits);
}

/** Hours, minutes and seconds: here a coarser BY part narrows and a finer one multiplies. */
function* shortPeriods(rule: Recurrence, start: WallTime, fits: (day: EpochDay) => boolean): Generator<Span> {
  const unit = rule.freq === 'HOURLY' ? 3600 : rule.freq === 'MINUTELY' ? 60 : 1;
  const within = (list: number[], value: number) => list.length === 0 || list.includes(value);
  let at = Math.floor((start.day * 86_400 + start.seconds) / unit) * unit;
  for (; ; at += unit * rule.interval) {
    const day = Math.floor(at / 86_400);
    const seconds = at - day * 86_400;
    const [hour, minute] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
    const passes =
      fits(day) &&
      within(rule.byHour, hour) &&
      (unit > 60 || within(rule.byMinute, minute)) &&
      (unit > 1 || within(rule.bySecond, seconds % 60));
    const minutes = unit > 60 ? listed(rule.byMinute, Math.floor(start.seconds / 60) % 60) : [minute];
    const exact = unit > 1 ? listed(rule.bySecond, start.seconds % 60) : [seconds % 60];
    yield {
      from: day,
      times: () =>
        passes ? minutes.flatMap((m) => exact.map((s) => ({ day, seconds: hour * 3600 + m * 60 + s }))) : [],
    };
  }
}

const listed = (list: number[], otherwise: number) => (list.length ? list : [otherwise]);

function clockOf(rule: Recurrence, seconds: number): number[] {
  const hours = listed(rule.byHour, Math.floor(seconds / 3600));
  const minutes = listed(rule.byMinute, Math.floor(seconds / 60) % 60);
  const exact = listed(rule.bySecond, seconds % 60);
  return hours.flatMap((h) => minutes.flatMap((m) => exact.map((s) => h * 3600 + m * 60 + s)));
}

const dayOf = (year: number, month: number): EpochDay => Date.UTC(year, month, 1) / 86_400_000;

function partsOf(day: EpochDay) {
  const date = new Date(day * 86_400_000);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth(), date: date.getUTCDate() };
}

/** Whether a day is one of the rule's, parts that it leaves open taken from the start (the table of §3.3.10). */
function dayFilter(rule: Recurrence, start: EpochDay): (day: EpochDay) => boolean {
  const { freq, byMonth, byWeekNo, byYearDay, byMonthDay, byDay } = rule;
  const first = partsOf(start);
  const dated = byDay.length || byMonthDay.length || byYearDay.length || byWeekNo.length;
  const months = freq === 'YEARLY' && !dated && !byMonth.length ? [first.month + 1] : byMonth;
  const monthDays = (freq === 'YEARLY' || freq === 'MONTHLY') && !dated ? [first.date] : byMonthDay;
  const ownWeekday =
    (freq === 'WEEKLY' && !byDay.length) ||
    (freq === 'YEARLY' && byWeekNo.length > 0 && !byDay.length && !byMonthDay.length && !byYearDay.length);
  const weekdays = ownWeekday ? [{ nth: 0, weekday: weekdayOf(start) }] : byDay;
  const nthInYear = freq === 'YEARLY' && byMonth.length === 0;
  const counts = (list: number[], n: number, size: number) => list.includes(n) || list.includes(n - size - 1);
  return (day) => {
    const { year, month, date } = partsOf(day);
    if (months.length && !months.includes(month + 1)) return false;
    const [monthStart, monthEnd] = [dayOf(year, month), dayOf(year, month + 1)];
    if (monthDays.length && !counts(monthDays, date, monthEnd - monthStart)) return false;
    const [yearStart, yearEnd] = [dayOf(year, 0), dayOf(year + 1, 0)];
    if (byYearDay.length && !counts(byYearDay, day - yearStart + 1, yearEnd - yearStart)) return false;
    if (byWeekNo.length && !inWeeks(day, byWeekNo, rule.weekStart)) return false;
    if (!weekdays.length) return true;
    const [from, to] = nthInYear ? [yearStart, yearEnd] : [monthStart, monthEnd];
    return weekdays.some(
      ({ nth, weekday }) =>
        weekday === weekdayOf(day) &&
        (nth === 0 ||
          nth === Math.floor((day - from) / 7) + 1 ||
          nth === -(Math.floor((to - 1 - day) / 7) + 1)),
    );
  };
}

/** Weeks are numbered within their year; the first is the one with at least four days in it (ISO 8601, by WKST). */
function inWeeks(day: EpochDay, weeks: number[], weekStart: number): boolean {
  const start = day - ((weekdayOf(day) - weekStart + 7) % 7);
  const { year } = partsOf(start + 3);
  const firstWeek = (y: number) => {
    const fourth = dayOf(y, 0) + 3;
    return fourth - ((weekdayOf(fourth) - weekStart + 7) % 7);
  };
  const number = (start - firstWeek(year)) / 7 + 1;
  const size = (firstWeek(year + 1) - firstWeek(year)) / 7;
  return weeks.includes(number) || weeks.includes(number - size - 1);
}
