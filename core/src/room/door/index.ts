import { COLLEGE_DOOR, doorRules } from '../../door/index';
import { teaches } from '../../roster/role';
import { concern } from '../kernel/concern';
import type { RoomState } from '../kernel/state';
import type { DoorState } from './state';

/** A class past its end that nobody who teaches is in closes after this long. */
export const ABANDONED_MS = 60_000;

const there = ({ presence }: RoomState) => Object.values(presence.people).filter((o) => o.present);

function watched(part: DoorState, room: RoomState, at: number): DoorState {
  if (room.bell.phase !== 'live') return part;
  const here = there(room);
  const unattended = !here.some((o) => teaches(o.role));
  return {
    ...part,
    unattendedSince: unattended ? (part.unattendedSince ?? at) : null,
    emptySince: here.length === 0 ? (part.emptySince ?? at) : null,
  };
}

/** Who may be in the room alone, and for how long. */
export const door = concern({
  name: 'door',
  empty: { rules: COLLEGE_DOOR, unattendedSince: null, emptySince: null },
  commands: {},
  events: {},
  heeds: {
    opened: (part, { layers, kind }) => ({ ...part, rules: doorRules(layers, kind) }),
    settingsChanged: (part, _event, { bell, limits }) => ({
      ...part,
      rules: doorRules(limits.layers, bell.kind ?? 'class'),
    }),
    rangIn: (part, { at }, room) => watched(part, room, at),
    entered: (part, { at }, room) => watched(part, room, at),
    left: (part, { at }, room) => watched(part, room, at),
    known: (part, { at }, room) => watched(part, room, at),
  },
  /** Nobody is left behind alone: past its end an abandoned class closes; an always-open room when all have gone. */
  due: ({ bell: { phase, kind, times }, door: { rules, unattendedSince, emptySince } }) => {
    const since = kind === 'open' && !rules.teacherFirst ? emptySince : unattendedSince;
    if (phase !== 'live' || since === null || !times || !kind) return null;
    const over = kind === 'open' || kind === 'capture' ? 0 : times.endsAt + times.lingerMinutes * 60_000;
    return { at: Math.max(since, over) + ABANDONED_MS, events: [{ type: 'dismissed', by: null }] };
  },
});
