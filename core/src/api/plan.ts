import { z } from 'zod';
import { isZone } from '../calendar/zone';
import { isLocalDate } from '../calendar/localDate';

export const Weekday = z.enum(['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday']);
export type Weekday = z.infer<typeof Weekday>;

/** A calendar date without a zone, `YYYY-MM-DD` (RFC 3339 full-date). */
export const LocalDate = z.string().refine(isLocalDate, 'Give a date such as 2026-10-06.');
export type LocalDate = z.infer<typeof LocalDate>;

/** A wall-clock time, `HH:MM`, 00:00 to 23:59. */
export const ClockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time such as 18:30.');
export type ClockTime = z.infer<typeof ClockTime>;

/** An IANA time zone identifier. */
export const Zone = z
  .string()
  .refine(isZone, 'This time zone is not known. Use a name such as America/Halifax.');
export type Zone = z.infer<typeof Zone>;

/** Days on which no session takes place, first and last included. */
export const DayOff = z.object({ from: LocalDate, to: LocalDate, name: z.string().min(1).max(80) });
export type DayOff = z.infer<typeof DayOff>;

/** On `date` the sessions of the weekday `follows` take place and the date's own do not. */
export const DaySwap = z.object({ date: LocalDate, follows: Weekday, name: z.string().min(1).max(80) });
export type DaySwap = z.infer<typeof DaySwap>;

export const Term = z
  .object({
    name: z.string().min(1).max(80),
    zone: Zone,
    firstDay: LocalDate,
    lastDay: LocalDate,
    daysOff: z.array(DayOff).max(200),
    daySwaps: z.array(DaySwap).max(100),
  })
  .refine((t) => t.firstDay <= t.lastDay, { path: ['lastDay'], message: 'The term ends before it begins.' });
export type Term = z.infer<typeof Term>;

/** When a series stops. A count or a number of hours means sessions that take place: skipped dates do not use it up. */
export const Ends = z.discriminatedUnion('by', [
  z.object({ by: z.literal('term') }),
  z.object({ by: z.literal('date'), date: LocalDate }),
  z.object({ by: z.literal('count'), count: z.int().min(1).max(400) }),
]);
export type Ends = z.infer<typeof Ends>;

const Minutes = z
  .int('Give whole minutes.')
  .min(1, 'A session lasts at least a minute.')
  .max(720, 'A session lasts at most 12 hours.');

export const PatternDay = z.object({ day: Weekday, start: ClockTime, minutes: Minutes });
export type PatternDay = z.infer<typeof PatternDay>;

/** The rule a series repeats by. `every` counts teaching weeks: a week of days off does not use up a turn. */
export const MeetingPattern = z
  .object({
    kind: z.literal('weekly'),
    firstDate: LocalDate.optional(),
    every: z.int().min(1).max(8).default(1),
    days: z.array(PatternDay).min(1, 'Choose at least one weekday.').max(7),
    lingerMinutes: z.int().min(0).max(120, 'At most two hours of lingering.').default(0),
    ends: Ends,
  })
  .refine((p) => new Set(p.days.map((d) => d.day)).size === p.days.length, {
    path: ['days'],
    message: 'Each weekday can be chosen once.',
  });
export type MeetingPattern = z.infer<typeof MeetingPattern>;
