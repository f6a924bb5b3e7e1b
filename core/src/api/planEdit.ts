import { z } from 'zod';
import { isStanding, SeriesKind } from '../calendar/seriesKind';
import { ClockTime, LocalDate, MeetingPattern, Weekday } from '../calendar/plan';

const Id = z.string().min(1).max(20);
const Title = z.string().trim().min(1, 'Give the series a name.').max(90, 'At most 90 characters.');

export const SeriesInput = z
  .object({
    title: Title,
    kind: SeriesKind.default('class'),
    pattern: MeetingPattern.nullable(),
    /** How many sessions the teacher counts on; the dates are checked against it. */
    expected: z.int('Give a whole number.').min(1).max(400).nullable().default(null),
    /** The small group it is for; the whole class without one. */
    group: z.string().trim().min(1).max(40).nullable().default(null),
    /** The members who lead it; all teachers of the course where there are none. */
    leads: z.array(Id).max(20).default([]),
  })
  .superRefine((s, ctx) => {
    if (isStanding(s.kind) ? s.pattern !== null : s.pattern === null)
      ctx.addIssue({
        code: 'custom',
        path: ['pattern'],
        message: isStanding(s.kind) ? 'A room without dates has no pattern.' : 'Say when it meets.',
      });
  });
export type SeriesInput = z.infer<typeof SeriesInput>;
/** The same as it may be sent: what has a default can be left out. */
export type SeriesDraft = z.input<typeof SeriesInput>;

const Minutes = z.int('Give whole minutes.').min(1, 'At least a minute.').max(720, 'At most 12 hours.');
const SessionTitle = z.string().trim().min(1).max(90, 'At most 90 characters.');

export const SessionChange = z.discriminatedUnion('do', [
  z.object({ do: z.literal('move'), date: LocalDate, start: ClockTime }),
  z.object({ do: z.literal('cancel') }),
  z.object({ do: z.literal('restore') }),
  z.object({ do: z.literal('lengthen'), minutes: Minutes }),
  z.object({ do: z.literal('rename'), title: SessionTitle.nullable() }),
  /** Whether it is recorded by itself; null is what the course's recording plan says. */
  z.object({ do: z.literal('record'), automatic: z.boolean().nullable() }),
]);
export type SessionChange = z.infer<typeof SessionChange>;

export const Scope = z.enum(['one', 'later', 'all']);
export type Scope = z.infer<typeof Scope>;

const GroupName = z.string().trim().min(1, 'Give the group a name.').max(40);

/** Who is in which group; and, where asked, a series a group in place of the ones the groups had. */
export const GroupPlan = z.object({
  groups: z.array(z.object({ name: GroupName, people: z.array(Id).max(1000) })).max(200),
  series: z
    .object({
      title: z.string().trim().min(1).max(70),
      every: z.int().min(1).max(26),
      slots: z.array(z.object({ day: Weekday, start: ClockTime, minutes: Minutes })).max(200),
    })
    .nullable(),
});
export type GroupPlan = z.infer<typeof GroupPlan>;

/** Everything that can be done to a course's plan. Each is previewed, saved, kept in the history and undone alike. */
export const PlanEdit = z.discriminatedUnion('edit', [
  z.object({ edit: z.literal('add-series'), series: z.array(SeriesInput).min(1).max(60) }),
  z.object({ edit: z.literal('change-series'), id: Id, series: SeriesInput }),
  z.object({ edit: z.literal('remove-series'), id: Id }),
  z.object({ edit: z.literal('publish'), ids: z.array(Id).min(1).max(100) }),
  z.object({ edit: z.literal('change-session'), id: Id, scope: Scope, change: SessionChange }),
  z.object({
    edit: z.literal('add-session'),
    seriesId: Id,
    date: LocalDate,
    start: ClockTime,
    minutes: Minutes,
    title: SessionTitle.nullable().default(null),
    /** The lost session that it makes up for. */
    replaces: Id.nullable().default(null),
  }),
  z.object({ edit: z.literal('groups'), plan: GroupPlan }),
  z.object({ edit: z.literal('move-to-group'), member: Id, group: GroupName.nullable() }),
]);
export type PlanEdit = z.infer<typeof PlanEdit>;
export type PlanEditDraft = z.input<typeof PlanEdit>;
