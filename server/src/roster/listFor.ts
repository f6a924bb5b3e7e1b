import type { MemberInfo } from '@nimble-bell/core/api';
import { isFor, seriesTarget, targetOf, teaches } from '@nimble-bell/core/roster';
import type { SeriesRow, SessionRow } from '../courses/store';
import type { MemberRow } from '../accounts/store';

/**
 * A class list as somebody who teaches may have it. Whoever is here for some series or sessions sees the people of those.
 * A link is a way in as somebody else: those of people who teach are never given out, the others' only to who may plan.
 */
export function listFor(
  me: MemberRow,
  members: readonly MemberInfo[],
  series: readonly SeriesRow[],
  sessions: readonly SessionRow[],
): MemberInfo[] {
  const plans = me.role === 'teacher' && me.scope === null;
  const targets = me.scope
    ? [...series.map(seriesTarget), ...sessions.map(targetOf)].filter((t) => isFor(t, me))
    : null;
  return members
    .filter((m) => m.id === me.id || !targets || targets.some((t) => isFor(t, m)))
    .map((m) => (plans && !teaches(m.role) ? m : { ...m, link: null, pin: null }));
}
