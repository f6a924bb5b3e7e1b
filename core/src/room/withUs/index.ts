import { teaches } from '../../roster/role';
import { concern } from '../kernel/concern';
import type { RoomState } from '../kernel/state';
import { isHere } from '../presence/index';
import { isAnonymous, isAsked } from '../questions/index';
import type { Deed, WithUsState } from './state';

/** Of whom nothing was seen for so long, ms, is quiet. */
export const QUIET_MS = 10 * 60_000;

const did = (part: WithUsState, member: string, what: Deed, at: number): WithUsState =>
  part[member] ? { ...part, [member]: { ...part[member], last: { what, at } } } : part;

/** Who takes part, and by what: made of what happens anyway, kept for nothing else. */
export const withUs = concern({
  name: 'withUs',
  empty: {},
  commands: {},
  events: {},
  heeds: {
    entered: (part, { member, role, at }) =>
      isAsked({ role }) ? { ...part, [member]: { came: at, last: part[member]?.last ?? null } } : part,
    said: (part, { from, at }) => did(part, from, 'wrote', at),
    drawn: (part, { by, at }) => did(part, by, 'drew', at),
    textPut: (part, { by, at }) => did(part, by, 'drew', at),
    shapePut: (part, { by, at }) => did(part, by, 'drew', at),
    picturePut: (part, { by, at }) => did(part, by, 'drew', at),
    slideMarked: (part, { by, at }) => did(part, by, 'drew', at),
    // When somebody answered would say which answer is theirs, where no names are kept.
    answered: (part, { member, question, at }, room) =>
      isAnonymous(room, question) ? part : did(part, member, 'answered', at),
    microphone: (part, { member, at }) => did(part, member, 'spoke', at),
    handRaised: (part, { member, at }) => did(part, member, 'hand', at),
    signGiven: (part, { member, sign, at }) => (sign ? did(part, member, 'sign', at) : part),
    dismissed: () => ({}),
  },
  seenBy: (part, { role }) => (teaches(role) ? part : {}),
});

/** Since when nothing was seen of somebody who is here, an instant; null of others. */
export function quietSince(
  room: Pick<RoomState, 'presence' | 'withUs' | 'desk'>,
  member: string,
): number | null {
  const one = room.withUs[member];
  if (!one || !isHere(room, member) || room.desk.microphone[member]) return null;
  return Math.max(one.came, one.last?.at ?? 0);
}

/** Who is here and has been quiet for long, the longest first. */
export const quietIn = (room: Pick<RoomState, 'presence' | 'withUs' | 'desk'>, now: number): string[] =>
  Object.keys(room.withUs)
    .map((member) => ({ member, since: quietSince(room, member) }))
    .filter((q) => q.since !== null && now - q.since >= QUIET_MS)
    .sort((a, b) => a.since! - b.since!)
    .map((q) => q.member);
