import type { SeenAs } from '@nimble-bell/core/api';
import { isStanding } from '@nimble-bell/core/calendar';
import {
  CLASS,
  evolve,
  newRoom,
  peopleFor,
  roomAhead,
  snapshotFor,
  type RoomState,
  type StoredEvent,
} from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import type { Context } from '../context';
import { bare, courseById, type LayeredSession } from '../courses/store';
import { AppError } from '../errors';
import { openingOf } from '../room/outside';
import { eventsOf } from '../room/store';
import { seatedIn, type Seated } from '../sessions/store';
import { exceptionsOf } from './store';

/** The class as it will be at a part of its run sheet, with everybody in it. */
async function fullClass(ctx: Context, session: LayeredSession, people: readonly Seated[], part: number) {
  const at = Math.max(ctx.now(), isStanding(session.kind) ? 0 : session.startsAt);
  const exceptions = await exceptionsOf(ctx.db, session.courseId, at);
  let room = roomAhead(openingOf(session), exceptions, { part, at });
  for (const { id: member, name, role } of people) {
    const entered = { type: 'entered', member, name, role, place: CLASS, seq: room.seq + 1, at } as const;
    room = evolve(room, entered satisfies StoredEvent);
  }
  return room;
}

/**
 * A session's room as one student has it: the page's own state, of the same events, through the same audience. In a class
 * that is on as it is; before it as planned, at a part of its run sheet.
 */
export async function seenAs(
  ctx: Context,
  session: LayeredSession,
  member: string,
  part: number,
): Promise<SeenAs> {
  const people = (await seatedIn(ctx.db, session.courseId)).filter((m) => isFor(targetOf(session), m));
  const viewer = people.find((m) => m.id === member);
  if (!viewer || (viewer.role !== 'student' && viewer.role !== 'guest'))
    throw new AppError('not-found', 'No student of this session is called so.');
  const live = session.state === 'live';
  const whole: RoomState = live
    ? (await eventsOf(ctx.db, session.id)).reduce(evolve, newRoom())
    : await fullClass(ctx, session, people, part);
  const course = (await courseById(ctx.db, session.courseId))!;
  const me = { member: viewer.id, role: viewer.role };
  return {
    live,
    parts: whole.runSheet.segments.map((s) => s.title),
    room: snapshotFor(whole, me),
    info: {
      session: bare(session),
      course: { id: course.id, code: course.code, title: course.title },
      zone: course.term.zone,
      me,
      people: peopleFor(
        whole,
        me,
        people.map((m) => ({ member: m.id, name: m.name, role: m.role, group: m.group })),
      ),
      relay: false,
    },
  };
}
