import { z } from 'zod';
import { LocalDate } from '../calendar/plan';
import { Begins, Ends, Leavable, LEAVABLE, OnlyFor, WatchTimes } from '../settings/index';

/** What is recorded by itself, how long it stays, and who may have it. */
export const RecordingPlan = z.object({
  /** Whether sessions are recorded. */
  automatic: z.boolean(),
  /** With ring-in, where it is not said. */
  begins: Begins.optional(),
  /** With dismissal, where it is not said. */
  ends: Ends.optional(),
  keepUntil: LocalDate,
  studentsWatch: z.boolean(),
  studentsDownload: z.boolean(),
  /** What it is without; nothing where it is not said. */
  leavesOut: z.array(Leavable).max(LEAVABLE.length).optional(),
  /** Students’ cameras while they have the floor; not where it is not said. */
  studentsCameras: z.boolean().optional(),
  /** What is said at tables, for who sat there; not where it is not said. */
  tables: z.boolean().optional(),
  /** Everybody is told when it can be watched; those who were absent, where it is not said. */
  tellsAll: z.boolean().optional(),
  /** At once, and as long as it is kept, where they are not said. */
  ...WatchTimes.partial().shape,
  /** All of those it is for, where it is not said. */
  onlyFor: OnlyFor.optional(),
});
export type RecordingPlan = z.infer<typeof RecordingPlan>;

/** What a place says of its recordings; null takes back what was said there. */
export const RecordingAtInput = z
  .object({
    automatic: z.boolean().nullable(),
    begins: Begins.nullable(),
    ends: Ends.nullable(),
    keepUntil: LocalDate.nullable(),
    studentsWatch: z.boolean().nullable(),
    studentsDownload: z.boolean().nullable(),
    leavesOut: z.array(Leavable).max(LEAVABLE.length).nullable(),
    studentsCameras: z.boolean().nullable(),
    tables: z.boolean().nullable(),
    watchAfterDays: WatchTimes.shape.watchAfterDays.nullable(),
    watchForDays: WatchTimes.shape.watchForDays.nullable(),
    onlyFor: OnlyFor.nullable(),
  })
  .partial();
export type RecordingAtInput = z.infer<typeof RecordingAtInput>;
