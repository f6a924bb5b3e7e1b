import { doorFor, doorRules, doorWords, type Way } from '@nimble-bell/core/door';
import { arriving, atDoor, type Comer } from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { memberIn, type Principal } from '../../accounts/principal';
import type { Context } from '../../context';
import { AppError } from '../../errors';
import type { Room } from '../room';
import type { Facts, RoomFacts } from './info';
import type { MemberRow } from '../../accounts/store';

export const comerOf = (member: MemberRow): Comer => ({
  member: member.id,
  name: member.name,
  role: member.role,
  ...(member.role === 'guest' && member.capabilities.length ? { grants: member.capabilities } : {}),
  ...(member.came ? { came: member.came } : {}),
  ...(member.pronouns ? { pronouns: member.pronouns } : {}),
  ...(member.alwaysIn ? { always: true as const } : {}),
});

/**
 * Whether somebody may enter a session's room now: who they are is asked anew, however they came. The one way in for
 * pages, telephones and stand-ins.
 */
export async function admit(
  ctx: Context,
  facts: Facts,
  principal: Principal,
  session: string,
): Promise<{ member: MemberRow; about: RoomFacts }> {
  const about = await facts.of(session);
  const member = await memberIn(ctx, principal, about.row.courseId);
  if (!isFor(targetOf(about.row), member)) throw new AppError('forbidden');
  const door = doorFor(about.row, doorRules(about.row.layers, about.row.kind), member.role, ctx.now());
  if (!door.open) {
    const later = door.because === 'early' || door.because === 'teacher';
    throw new AppError(later ? 'door-shut' : 'forbidden', doorWords(door, member.zone));
  }
  return { member, about };
}

/**
 * Those who come in within this time are told of together, ms: the more are here, who are all told, the longer. Without
 * it a class of a thousand costs half a million tellings.
 */
const togetherMs = (here: number) => Math.min(100, 25 + here / 8);

/** Takes an admitted person into the room, or lets them knock at its door: whichever the room says. */
export async function seat(ctx: Context, room: Room, member: MemberRow, way: Way): Promise<'in' | 'knocks'> {
  const comer: Comer = { ...comerOf(member), ...(way === 'telephone' ? { way } : {}) };
  await room.happen(
    (state) => (state.bell.phase === 'dismissed' ? [] : arriving(state, comer, ctx.now())),
    togetherMs(room.connections.size),
  );
  if (room.state.bell.phase === 'dismissed')
    throw new AppError('forbidden', doorWords({ open: false, because: 'over' }, member.zone));
  const stands = atDoor(room.state, comer, ctx.now());
  if (typeof stands !== 'string') throw new AppError('forbidden', stands.message);
  return stands;
}
