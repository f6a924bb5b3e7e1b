import { z } from 'zod';
import { CancelReason, Scope, SessionChange } from '../calendar/changes';
import { GroupPlan } from '../calendar/groupPlan';
import { ClockTime, LocalDate } from '../calendar/plan';
import { GroupName, Minutes, SeriesInput, SessionTitle } from '../calendar/series';

const Id = z.string().min(1).max(20);
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
  /** A week, or a stretch, without the sessions of the whole course. */
  z.object({
    edit: z.literal('cancel-days'),
    from: LocalDate,
    to: LocalDate,
    reason: CancelReason.nullable().default(null),
  }),
  z.object({ edit: z.literal('groups'), plan: GroupPlan }),
  z.object({ edit: z.literal('move-to-group'), member: Id, group: GroupName.nullable() }),
]);
export type PlanEdit = z.infer<typeof PlanEdit>;
export type PlanEditDraft = z.input<typeof PlanEdit>;
