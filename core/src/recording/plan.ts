import type { SeriesKind } from '../calendar/seriesKind';
import { dateIn } from '../calendar/words';
import type { Instant } from '../calendar/zone';
import { keepsStudents, keepsTables } from './leftOut';
import { isFor, type OnList, type Target } from '../roster/target';
import { teaches } from '../roster/role';
import { inForce, type Begins, type Ends, type Layer } from '../settings/index';
import type { RecordingPlan } from './schema';

/** The plan in force under these layers; null where nobody has made one. */
export function planOf(layers: readonly Layer[]): RecordingPlan | null {
  const keepUntil = inForce(layers, 'recording', 'keepUntil');
  if (!keepUntil) return null;
  const leavesOut = inForce(layers, 'recording', 'leavesOut')?.value ?? [];
  const after = inForce(layers, 'recording', 'watchAfterDays')?.value ?? 0;
  const during = inForce(layers, 'recording', 'watchForDays')?.value ?? 0;
  const onlyFor = inForce(layers, 'recording', 'onlyFor')?.value;
  const { begins, ends } = timesOf(layers);
  const is = (
    key: 'automatic' | 'studentsWatch' | 'studentsDownload' | 'studentsCameras' | 'tables' | 'tellsAll',
  ) => inForce(layers, 'recording', key)?.value ?? false;
  return {
    automatic: is('automatic'),
    keepUntil: keepUntil.value,
    studentsWatch: is('studentsWatch'),
    studentsDownload: is('studentsDownload'),
    ...(begins === 'ringIn' ? {} : { begins }),
    ...(ends === 'dismissal' ? {} : { ends }),
    ...(leavesOut.length ? { leavesOut } : {}),
    ...(is('studentsCameras') ? { studentsCameras: true } : {}),
    ...(is('tables') ? { tables: true } : {}),
    ...(is('tellsAll') ? { tellsAll: true } : {}),
    ...(after ? { watchAfterDays: after } : {}),
    ...(during ? { watchForDays: during } : {}),
    ...(onlyFor && (onlyFor.groups.length || onlyFor.members.length) ? { onlyFor } : {}),
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

/** With what a recording begins and ends under these layers. */
const timesOf = (layers: readonly Layer[]): { begins: Begins; ends: Ends } => ({
  begins: inForce(layers, 'recording', 'begins')?.value ?? 'ringIn',
  ends: inForce(layers, 'recording', 'ends')?.value ?? 'dismissal',
});

/** How a session is recorded: whether, from when until when, whose cameras, and at tables too. A capture from ring-in to its end. */
export const recordedHow = (kind: SeriesKind, layers: readonly Layer[]) => ({
  automatic: recordsItself(kind, layers),
  ...timesOf(kind === 'capture' ? [] : layers),
  cameras: keepsStudents(planOf(layers)),
  tables: keepsTables(planOf(layers)),
});

/** Whether a recording's last day is over where its term is at home. */
export const isExpired = (plan: RecordingPlan | null, zone: string, now: Instant): boolean =>
  plan !== null && plan.keepUntil < dateIn(zone, now);

/** A recording that is taken away can be taken back for so long, ms. */
export const AWAY_MS = 30 * 86_400_000;

/** A recording as far as it decides who may watch it. `takenAt`: since when it is taken away; `endsAt`: of its class. */
export type Watchable = Target & {
  kind: SeriesKind;
  plan: RecordingPlan | null;
  takenAt?: Instant | null;
  endsAt: Instant;
};

const DAY_MS = 86_400_000;

/** From when until when students may watch; without an end where it is as long as it is kept. */
export function watchTimes({ plan, endsAt }: Pick<Watchable, 'plan' | 'endsAt'>): {
  from: Instant;
  until: Instant;
} {
  const { watchAfterDays = 0, watchForDays = 0 } = plan ?? {};
  const from = watchAfterDays ? endsAt + watchAfterDays * DAY_MS : -Infinity;
  const begins = endsAt + watchAfterDays * DAY_MS;
  return { from, until: watchForDays ? begins + watchForDays * DAY_MS : Infinity };
}

/** Whether it is for somebody, of the groups and members it is for alone. */
const isOneOf = ({ plan }: Pick<Watchable, 'plan'>, { id, group }: Viewer): boolean => {
  const only = plan?.onlyFor;
  return !only || only.members.includes(id) || (group !== null && only.groups.includes(group));
};

/** Somebody on a class list, by their id as well. */
export type Viewer = OnList & { id: string };

/**
 * Whether it is somebody's to see among the others at an instant: their own sessions, where the plan lets students, when it
 * lets them, and where it is for them; a capture once it is posted.
 */
export function maySee(recording: Watchable, member: Viewer, now: Instant): boolean {
  if (teaches(member.role) && !member.scope) return true;
  if (!isFor(recording, member)) return false;
  if (recording.kind === 'capture') return true;
  if (!recording.plan?.studentsWatch) return false;
  if (teaches(member.role)) return true;
  const { from, until } = watchTimes(recording);
  return now >= from && now < until && isOneOf(recording, member);
}

/** Whether a member may watch it: as they may see it, and not while it is taken away. */
export const mayWatch = (recording: Watchable, member: Viewer, now: Instant): boolean =>
  !recording.takenAt && maySee(recording, member, now);
