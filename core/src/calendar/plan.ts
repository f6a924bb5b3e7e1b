import { z } from 'zod';
import { line } from '../text';
import { isZone } from './zone';
import { isLocalDate, toEpochDay, WEEKDAYS } from './localDate';

export const Weekday = z.enum(WEEKDAYS);
export type Weekday = z.infer<typeof Weekday>;

/** A calendar date without a zone, `YYYY-MM-DD` (RFC 3339 full-date). */
export const LocalDate = z
  .string()
  .refine(isLocalDate, 'Give a date such as 2026-10-06.')
  // The rules of clocks are worked out for these years.
  .refine((d) => d >= '1990' && d < '2101', 'Give a date from 1990 to 2100.');
export type LocalDate = z.infer<typeof LocalDate>;

/** A wall-clock time, `HH:MM`, 00:00 to 23:59. */
export const ClockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time such as 18:30.');
export type ClockTime = z.infer<typeof ClockTime>;

/** An IANA time zone identifier. */
export const Zone = z
  .string()
  .refine(isZone, 'This time zone is not known. Use a name such as America/Halifax.');
export type Zone = z.infer<typeof Zone>;

const Name = line('Give it a name.', 80);

/** The shapes of the parts, once: a plan file takes them strictly, the pages with room to grow. */
export const shapes = {
  dayOff: { from: LocalDate, to: LocalDate, name: Name },
  daySwap: { date: LocalDate, follows: Weekday, name: Name },
  period: {
    name: line('Give the period a name.', 20),
    start: ClockTime,
    end: ClockTime,
  },
};

export const inOrder = <T extends { from: string; to: string }>(d: T) => !(d.to < d.from);
export const endsBeforeItBegins = { path: ['to'], message: 'It ends before it begins.' };

/** Days on which no session takes place, first and last included. */
export const DayOff = z.object(shapes.dayOff).refine(inOrder, endsBeforeItBegins);
export type DayOff = z.infer<typeof DayOff>;

/** On `date` the sessions of the weekday `follows` take place and the date's own do not. */
export const DaySwap = z.object(shapes.daySwap);
export type DaySwap = z.infer<typeof DaySwap>;

const LONGEST_TERM_DAYS = 1100;

/** What must hold between the days of a term. */
export function checkTerm(term: Pick<Term, 'firstDay' | 'lastDay' | 'daySwaps'>, ctx: z.RefinementCtx) {
  const fault = (path: (string | number)[], message: string) =>
    ctx.addIssue({ code: 'custom', path, message });
  if (term.firstDay > term.lastDay) fault(['lastDay'], 'The term ends before it begins.');
  else if (toEpochDay(term.lastDay) - toEpochDay(term.firstDay) > LONGEST_TERM_DAYS)
    fault(['lastDay'], 'A term lasts at most three years.');
  const seen = new Set<string>();
  for (const [i, { date }] of term.daySwaps.entries()) {
    if (seen.has(date)) fault(['daySwaps', i, 'date'], 'This date is swapped already.');
    seen.add(date);
  }
}

export const Term = z
  .object({
    name: Name,
    zone: Zone,
    firstDay: LocalDate,
    lastDay: LocalDate,
    daysOff: z.array(DayOff).max(200),
    daySwaps: z.array(DaySwap).max(100),
  })
  .superRefine(checkTerm);
export type Term = z.infer<typeof Term>;

/** A named hour of the school day. */
export const Period = z.object(shapes.period);
export type Period = z.infer<typeof Period>;

export function checkPeriods(periods: readonly Period[], ctx: z.RefinementCtx) {
  const seen = new Set<string>();
  for (const [i, p] of periods.entries()) {
    const fault = (key: string, message: string) => ctx.addIssue({ code: 'custom', path: [i, key], message });
    if (seen.has(p.name)) fault('name', 'Each period has a name of its own.');
    if (p.end <= p.start) fault('end', 'The period ends before it begins.');
    seen.add(p.name);
  }
}

export const Periods = z.array(Period).max(40).superRefine(checkPeriods);

/** A named set of periods: "Evenings", "Saturdays". */
export const BellTimesInput = z.object({ name: Name, periods: Periods.min(1, 'Give at least one period.') });
export type BellTimesInput = z.infer<typeof BellTimesInput>;
export interface BellTimes extends BellTimesInput {
  id: string;
}

/** When a series stops. A count or a number of hours means sessions that take place: skipped dates do not use it up. */
export const endShapes = [
  { by: z.literal('term') },
  { by: z.literal('date'), date: LocalDate },
  { by: z.literal('count'), count: z.int('Give a whole number.').min(1, 'At least one session.').max(400) },
  { by: z.literal('hours'), hours: z.number().positive('Give a number of hours.').max(2000) },
] as const;
export const Ends = z.discriminatedUnion('by', [
  z.object(endShapes[0]),
  z.object(endShapes[1]),
  z.object(endShapes[2]),
  z.object(endShapes[3]),
]);
export type Ends = z.infer<typeof Ends>;

const Minutes = z
  .int('Give whole minutes.')
  .min(1, 'A session lasts at least a minute.')
  .max(720, 'A session lasts at most 12 hours.');

export const clockDayShape = { day: Weekday, start: ClockTime, minutes: Minutes };
export const periodDayShape = {
  day: Weekday,
  periods: z.array(z.string()).min(1, 'Name at least one period.').max(20),
};
export const listedDateShape = { date: LocalDate, start: ClockTime.optional(), minutes: Minutes.optional() };
export const nthShape = {
  nth: z.union([z.int().min(1).max(5), z.literal(-1)], 'Give 1 to 5, or -1 for the last.'),
  day: Weekday,
};

/** A weekday with its time, or with consecutive periods of the bell times. */
export const PatternDay = z.union([z.object(clockDayShape), z.object(periodDayShape)]);
export type PatternDay = z.infer<typeof PatternDay>;

export const commonShape = {
  /** No session before it; turns are counted from its week, day or month. The term's first day when left out. */
  firstDate: LocalDate.optional(),
  every: z.int('Give a whole number.').min(1, 'At least 1.').max(26, 'At most 26.').default(1),
  /** What `every` counts in a weekly pattern: teaching weeks (a break uses up no turn), unless calendar weeks are asked for. */
  weeks: z.enum(['teaching', 'calendar']).optional(),
  lingerMinutes: z.int('Give whole minutes.').min(0).max(120, 'At most two hours of lingering.').default(0),
};
export const timeShape = { start: ClockTime, minutes: Minutes };
export const onDateShape = z.int('Give a day of the month.').min(1).max(31, 'A month has at most 31 days.');

/** The bell times a pattern's periods belong to, by id. */
const bellTimes = z.string().max(20).optional();
const Listed = z.union([LocalDate, z.object(listedDateShape)]);
const ends = Ends.default({ by: 'term' });

interface WithDays {
  days: { day: Weekday }[];
}
export const eachDayOnce = (p: WithDays) => new Set(p.days.map((d) => d.day)).size === p.days.length;
export const eachDayOnceFault = {
  path: ['days'],
  message: 'Each weekday can be chosen once. A second hour on it is a series of its own.',
};
export const oneMonthRule = (p: { onDate?: unknown; onWeekday?: unknown }) =>
  (p.onDate === undefined) !== (p.onWeekday === undefined);
export const oneMonthRuleFault = {
  path: ['onDate'],
  message: 'Give either a day of the month (onDate) or an nth weekday (onWeekday).',
};

type ListedEntry = string | { date: string; start?: string | undefined; minutes?: number | undefined };
/** Every listed date once, each with a time of its own or the pattern's. */
export function checkListed(
  p: { dates: ListedEntry[]; start?: string | undefined; minutes?: number | undefined },
  ctx: z.RefinementCtx,
) {
  const seen = new Set<string>();
  for (const [i, entry] of p.dates.entries()) {
    const listed = typeof entry === 'string' ? { date: entry } : entry;
    const fault = (message: string) => ctx.addIssue({ code: 'custom', path: ['dates', i], message });
    if (seen.has(listed.date)) fault('Each date can be listed once.');
    if (!(listed.start ?? p.start)) fault('This date has no start: give one here, or one for the pattern.');
    if (!(listed.minutes ?? p.minutes))
      fault('This date has no length: give minutes here, or for the pattern.');
    seen.add(listed.date);
  }
}

export const WeeklyPattern = z
  .object({
    kind: z.literal('weekly'),
    ...commonShape,
    days: z.array(PatternDay).min(1, 'Choose at least one weekday.').max(7),
    bellTimes,
    ends,
  })
  .refine(eachDayOnce, eachDayOnceFault);
export type WeeklyPattern = z.infer<typeof WeeklyPattern>;
export const DailyPattern = z.object({ kind: z.literal('daily'), ...commonShape, ...timeShape, ends });
export const MonthlyPattern = z
  .object({
    kind: z.literal('monthly'),
    ...commonShape,
    ...timeShape,
    onDate: onDateShape.optional(),
    onWeekday: z.object(nthShape).optional(),
    ends,
  })
  .refine(oneMonthRule, oneMonthRuleFault);
export type MonthlyPattern = z.infer<typeof MonthlyPattern>;
export const DatesPattern = z
  .object({
    kind: z.literal('dates'),
    ...commonShape,
    start: ClockTime.optional(),
    minutes: Minutes.optional(),
    dates: z.array(Listed).min(1, 'List at least one date.').max(400),
    ends,
  })
  .superRefine(checkListed);
export type DatesPattern = z.infer<typeof DatesPattern>;

/** The rule a series repeats by. A single session is a list of one date. */
export const MeetingPattern = z.discriminatedUnion('kind', [
  WeeklyPattern,
  DailyPattern,
  MonthlyPattern,
  DatesPattern,
]);
export type MeetingPattern = z.infer<typeof MeetingPattern>;
export type PatternKind = MeetingPattern['kind'];
