import type { SessionProof } from '@nimble-bell/core/api';
import { isStanding } from '@nimble-bell/core/calendar';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { evolve, newRoom, proofOf, roomAhead, type RoomState } from '@nimble-bell/core/room';
import type { Context } from '../context';
import type { LayeredSession } from '../courses/store';
import { openingOf } from '../room/outside';
import { eventsOf } from '../room/store';
import { seatedIn } from '../sessions/store';
import { exceptionsOf } from './store';

/** What every student of a session may do: in a class that is on as it is, before it as planned, at a part of its run sheet. */
export async function proofFor(ctx: Context, session: LayeredSession, part: number): Promise<SessionProof> {
  const live = session.state === 'live';
  const seated = await seatedIn(ctx.db, session.courseId);
  let room: RoomState;
  if (live) room = (await eventsOf(ctx.db, session.id)).reduce(evolve, newRoom());
  else {
    const at = Math.max(ctx.now(), isStanding(session.kind) ? 0 : session.startsAt);
    const exceptions = await exceptionsOf(ctx.db, session.courseId, at);
    room = roomAhead(openingOf(session), exceptions, { part, at });
  }
  const people = seated
    .filter((m) => (m.role === 'student' || m.role === 'guest') && isFor(targetOf(session), m))
    .map(({ id, name, role }) => ({ member: id, name, role }));
  const nameOf = (id: string) => seated.find((m) => m.id === id)?.name ?? null;
  return {
    live,
    part: room.runSheet.at,
    parts: room.runSheet.segments.map((s) => s.title),
    people: proofOf(room, people, nameOf),
  };
}
