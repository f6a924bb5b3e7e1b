import { capabilityOf } from '../../limits/capabilities';
import { teaches } from '../../roster/role';
import { concern, EVERYONE, type CommandRule } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { may, unhushed } from '../may';
import { isHere } from '../presence/index';
import { nameIn } from '../words';
import type { DeskState } from './state';

type Switch = keyof DeskState;

const turned = (part: DeskState, which: Switch, member: string, on: boolean): DeskState => {
  const { [member]: _, ...others } = part[which];
  return { ...part, [which]: on ? { ...others, [member]: true } : others };
};

/**
 * A limit that closes, or a floor taken back, turns people's own switches off: opening again later must not open a
 * microphone behind its owner's back.
 */
function closedOff(part: DeskState, room: RoomState): DeskState {
  const open = unhushed(room);
  const kept = (which: Switch) => {
    const capability = capabilityOf(which === 'microphone' ? 'sound' : 'camera');
    const all = Object.keys(part[which]);
    const left = all.filter((m) => {
      const person = room.presence.people[m];
      return person && may(open, person, capability).allowed;
    });
    return left.length === all.length
      ? part[which]
      : (Object.fromEntries(left.map((m) => [m, true])) as DeskState[Switch]);
  };
  return { microphone: kept('microphone'), camera: kept('camera') };
}

const ownSwitch = (which: Switch): CommandRule<Switch> => ({
  who: 'anyone',
  phase: 'any',
  needs: ({ on }) => (on ? capabilityOf(which === 'microphone' ? 'sound' : 'camera') : null),
  decide: (room, { member }, { on }) =>
    Boolean(room.desk[which][member]) === on ? [] : [{ type: which, member, on }],
});

/** Everyone's own switches, and muting. */
export const desk = concern({
  name: 'desk',
  empty: { microphone: {}, camera: {} },
  commands: {
    microphone: ownSwitch('microphone') as CommandRule<'microphone'>,
    camera: ownSwitch('camera') as CommandRule<'camera'>,
    mute: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { member }) => {
        if (!isHere(room, member)) return refuse('not-here');
        return room.desk.microphone[member] ? [{ type: 'muted', by, member }] : [];
      },
    },
    muteAll: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => {
        const heard = Object.keys(room.desk.microphone).some(
          (m) => !teaches(room.presence.people[m]?.role ?? 'student'),
        );
        return heard ? [{ type: 'muted', by, member: null }] : [];
      },
    },
  },
  events: {
    microphone: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, on }) => turned(part, 'microphone', member, on),
      log: null,
    },
    camera: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, on }) => turned(part, 'camera', member, on),
      log: null,
    },
    muted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }, room) => {
        if (member) return turned(part, 'microphone', member, false);
        const teachers = Object.keys(part.microphone).filter((m) =>
          teaches(room.presence.people[m]?.role ?? 'student'),
        );
        return { ...part, microphone: Object.fromEntries(teachers.map((m) => [m, true])) };
      },
      notice: ({ by, member }, room) =>
        `${nameIn(room, by)} has muted ${member === null ? 'everyone' : nameIn(room, member)}.`,
      log: ({ by, member }, nameOf) =>
        `${nameOf(by)} muted ${member === null ? 'everyone' : nameOf(member)}.`,
    },
  },
  heeds: {
    // Everyone walks in muted, with the camera off.
    entered: (part, { member }) => turned(turned(part, 'microphone', member, false), 'camera', member, false),
    left: (part, { member }) => turned(turned(part, 'microphone', member, false), 'camera', member, false),
    dismissed: () => ({ microphone: {}, camera: {} }),
    limitSet: (part, _event, room) => closedOff(part, room),
    cued: (part, _event, room) => closedOff(part, room),
    exceptionEnded: (part, _event, room) => closedOff(part, room),
    lentBack: (part, _event, room) => closedOff(part, room),
    settingsChanged: (part, _event, room) => closedOff(part, room),
    floorTaken: (part, _event, room) => closedOff(part, room),
    floorGiven: (part, _event, room) => closedOff(part, room),
    known: (part, _event, room) => closedOff(part, room),
  },
});
