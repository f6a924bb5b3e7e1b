import { teaches, type Role } from './role';

/** The series and sessions that somebody is here for, where it is not all of the course. */
export interface Scoped {
  series: readonly string[];
  sessions: readonly string[];
}

/** Somebody on a class list, as far as it decides what is theirs. */
export interface OnList {
  role: Role;
  group: string | null;
  scope?: Scoped | null;
}

export interface Target {
  group: string | null;
  published: boolean;
  /** The series it is of, and the session itself where it is one. */
  seriesId: string;
  sessionId?: string;
}

/**
 * Whether a session or series is for this member: published, and for the whole course or the member's group. Whoever is
 * here for some series or sessions only has those and no other.
 */
export function isFor(target: Target, { group, role, scope }: OnList): boolean {
  if (scope && !scope.series.includes(target.seriesId) && !scope.sessions.includes(target.sessionId ?? ''))
    return false;
  if (teaches(role)) return true;
  return target.published && (target.group === null || role !== 'student' || target.group === group);
}

/** A session as a target. */
export const targetOf = (s: {
  id: string;
  seriesId: string;
  group: string | null;
  published: boolean;
}): Target => ({
  group: s.group,
  published: s.published,
  seriesId: s.seriesId,
  sessionId: s.id,
});

/** A series as a target. */
export const seriesTarget = (s: {
  id: string;
  group: string | null;
  publishedAt: number | null;
}): Target => ({
  group: s.group,
  published: s.publishedAt !== null,
  seriesId: s.id,
});
