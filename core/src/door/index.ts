import type { Role } from '../api/limits';
import type { SeriesKind } from '../api/planEdit';
import { teaches } from '../limits/resolve';
import type { Instant } from '../calendar/zone';

export interface DoorRules {
  /** Students may enter from this many minutes before the start. */
  opensMinutesBefore: number;
  /** Nobody but teachers enters before a teacher has rung in. */
  teacherFirst: boolean;
}

export const COLLEGE_DOOR: DoorRules = { opensMinutesBefore: 15, teacherFirst: true };

export interface DoorSession {
  state: 'planned' | 'moved' | 'cancelled' | 'live' | 'held';
  startsAt: Instant;
  endsAt: Instant;
  lingerMinutes: number;
  /** A room without dates, open all term; or one in which a teacher records alone. */
  kind?: SeriesKind;
}

export type DoorState =
  | { open: true }
  | { open: false; because: 'early'; opensAt: Instant }
  | { open: false; because: 'teacher' }
  | { open: false; because: 'over' }
  | { open: false; because: 'cancelled' };

/** Teachers may enter this long before the start, to set up. */
const SET_UP_MINUTES = 120;
const MINUTE = 60_000;

/** Whether this person may walk in now, and if not, why and from when. */
export function doorFor(session: DoorSession, rules: DoorRules, role: Role, now: Instant): DoorState {
  if (session.state === 'cancelled') return { open: false, because: 'cancelled' };
  if (session.state === 'held') return { open: false, because: 'over' };
  if (session.kind === 'capture' && !teaches(role)) return { open: false, because: 'teacher' };
  if (session.state === 'live') return { open: true };
  if (now > session.endsAt + session.lingerMinutes * MINUTE) return { open: false, because: 'over' };
  const minutes = teaches(role) ? SET_UP_MINUTES : rules.opensMinutesBefore;
  const opensAt = session.startsAt - minutes * MINUTE;
  if (now < opensAt) return { open: false, because: 'early', opensAt };
  if (!teaches(role) && rules.teacherFirst && session.kind !== 'open')
    return { open: false, because: 'teacher' };
  return { open: true };
}
