import { z } from 'zod';
import { LocalDate } from '../calendar/plan';
import type { SeriesKind } from '../calendar/seriesKind';
import { dateIn } from '../calendar/words';
import type { Instant } from '../calendar/zone';
import { isFor, type OnList, type Target } from '../roster/target';
import { teaches } from '../roster/role';
import { inForce, Leavable, LEAVABLE, type Layer } from '../settings/index';

/** What is recorded by itself, how long it stays, and who may have it. */
export const RecordingPlan = z.object({
  /** Whether a recording starts when a teacher rings in. */
  automatic: z.boolean(),
  keepUntil: LocalDate,
  studentsWatch: z.boolean(),
  studentsDownload: z.boolean(),
  /** What it is without; nothing where it is not said. */
  leavesOut: z.array(Leavable).max(LEAVABLE.length).optional(),
});
export type RecordingPlan = z.infer<typeof RecordingPlan>;

/** What a place says of its recordings; null takes back what was said there. */
export const RecordingAtInput = z
  .object({
    automatic: z.boolean().nullable(),
    keepUntil: LocalDate.nullable(),
    studentsWatch: z.boolean().nullable(),
    studentsDownload: z.boolean().nullable(),
    leavesOut: z.array(Leavable).max(LEAVABLE.length).nullable(),
  })
  .partial();
export type RecordingAtInput = z.infer<typeof RecordingAtInput>;

/** The plan in force under these layers; null where nobody has made one. */
export function planOf(layers: readonly Layer[]): RecordingPlan | null {
  const keepUntil = inForce(layers, 'recording', 'keepUntil');
  if (!keepUntil) return null;
  const leavesOut = inForce(layers, 'recording', 'leavesOut')?.value ?? [];
  const is = (key: 'automatic' | 'studentsWatch' | 'studentsDownload') =>
    inForce(layers, 'recording', key)?.value ?? false;
  return {
    automatic: is('automatic'),
    keepUntil: keepUntil.value,
    studentsWatch: is('studentsWatch'),
    studentsDownload: is('studentsDownload'),
    ...(leavesOut.length ? { leavesOut } : {}),
  };
}

/**
 * Whether a session is recorded by itself: a capture always, an always-open room never, any other as the narrowest of
 * its layers says.
 */
export function recordsItself(kind: SeriesKind, layers: readonly Layer[]): boolean {
  if (kind === 'capture') return true;
  return kind !== 'open' && (inForce(layers, 'recording', 'automatic')?.value ?? false);
}

/** Whether a recording's last day is over where its term is at home. */
export const isExpired = (plan: RecordingPlan | null, zone: string, now: Instant): boolean =>
  plan !== null && plan.keepUntil < dateIn(zone, now);

/** A recording that is taken away can be taken back for so long, ms. */
export const AWAY_MS = 30 * 86_400_000;

/** A recording as far as it decides who may watch it. `takenAt`: since when it is taken away. */
export type Watchable = Target & { kind: SeriesKind; plan: RecordingPlan | null; takenAt?: Instant | null };

/** Whether it is somebody's to see among the others: their own sessions, where the plan lets students; a capture once it is posted. */
export const maySee = (recording: Watchable, member: OnList): boolean =>
  (teaches(member.role) && !member.scope) ||
  (isFor(recording, member) && (recording.kind === 'capture' || (recording.plan?.studentsWatch ?? false)));

/** Whether a member may watch it: as they may see it, and not while it is taken away. */
export const mayWatch = (recording: Watchable, member: OnList): boolean =>
  !recording.takenAt && maySee(recording, member);
