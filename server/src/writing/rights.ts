import { isStanding } from '@nimble-bell/core/calendar';
import { doorRules } from '@nimble-bell/core/door';
import { rowOf, type Capability } from '@nimble-bell/core/limits';
import { may, refusalWords, roomAhead, type RoomState } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { writingNow, writingTimes } from '@nimble-bell/core/writing';
import type { MemberRow } from '../accounts/store';
import type { LayeredSession } from '../courses/store';
import type { Db } from '../db/pool';
import { openingOf } from '../room/outside';
import { exceptionsOf } from '../rules/store';

/** When one may write on a session's page. */
export const timeOf = (session: LayeredSession, now: number) =>
  writingNow(
    { ...session, dated: !isStanding(session.kind) },
    writingTimes(session.layers),
    doorRules(session.layers, session.kind).opensMinutesBefore,
    now,
  );

/** The class as it is planned, with the exceptions that hold now: by it is asked what one may write outside of it. */
export async function plannedRoom(db: Db, session: LayeredSession, now: number): Promise<RoomState> {
  const exceptions = await exceptionsOf(db, session.courseId, now);
  return roomAhead(openingOf(session), exceptions, { part: null, at: now });
}

const IN_ROOM = 'It is time for the class: write in the room.';
const isTime = ({ layers, kind, startsAt, endsAt, state }: LayeredSession, now: number) =>
  state !== 'held' && now >= startsAt - doorRules(layers, kind).opensMinutesBefore * 60_000 && now < endsAt;

/** Why somebody may not write so on the page of a session now; null where they may. Those who teach may at any time outside of class. */
export function whyNot(
  session: LayeredSession,
  room: RoomState,
  { id, role }: Pick<MemberRow, 'id' | 'role'>,
  capability: Capability,
  now: number,
): string | null {
  if (isStanding(session.kind)) return 'One writes in the room itself.';
  if (session.state === 'live') return 'The class is on: write in the room.';
  if (session.state === 'cancelled') return 'This session is cancelled.';
  if (teaches(role)) return null;
  if (!timeOf(session, now)) return isTime(session, now) ? IN_ROOM : 'Nothing is written here at this time.';
  const actor = { member: id, role };
  const verdict = may(room, actor, capability);
  if (verdict.allowed) return null;
  const { doing, verb } = rowOf(capability);
  if (verdict.state === 'byHand') return `${doing} ${verb} by hand, in class alone.`;
  return refusalWords(room, actor, capability).replace(/ You can .*$/, '');
}
