import { capabilityOf } from '../../limits/capabilities';
import { teaches } from '../../roster/role';
import { concern, EVERYONE, type CommandRule } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { classLimit, may, unhushed } from '../may';
import { isHere } from '../presence/index';
import { nameIn } from '../words';
import type { DeskState } from './state';

type Switch = 'microphone' | 'camera';

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
    return left.length === all.length ? part[which] : Object.fromEntries(left.map((m) => [m, true as const]));
  };
  return { ...part, microphone: kept('microphone'), camera: kept('camera') };
}

const ownSwitch = (which: Switch): CommandRule<Switch> => ({
  who: 'anyone',
  phase: 'any',
  needs: ({ on }) => (on ? [capabilityOf(which === 'microphone' ? 'sound' : 'camera')] : []),
  decide: (room, { member }, { on }) =>
    Boolean(room.desk[which][member]) === on ? [] : [{ type: which, member, on }],
});

const NOTHING_ON: DeskState = { microphone: {}, camera: {}, asked: {} };

/** Nobody is asked any more who has answered, is gone, or may not. */
const unasked = (part: DeskState, member: string): DeskState => {
  if (!(member in part.asked)) return part;
  const { [member]: _, ...asked } = part.asked;
  return { ...part, asked };
};

/** Everyone is off: microphone, camera, and what they were asked. */
const away = (part: DeskState, member: string) =>
  unasked(turned(turned(part, 'microphone', member, false), 'camera', member, false), member);

/** Everyone's own switches, and muting. */
export const desk = concern({
  name: 'desk',
  empty: NOTHING_ON,
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
      decide: (room, { member: by }, { again = true }) => {
        const shut: RoomEvent[] =
          again || classLimit(room, 'speak').state !== 'open' || room.limits.hush
            ? []
            : [{ type: 'limitSet', by, capability: 'speak', state: 'byHand' }];
        const heard = Object.keys(room.desk.microphone).some(
          (m) => !teaches(room.presence.people[m]?.role ?? 'student'),
        );
        return heard ? [{ type: 'muted', by, member: null }, ...shut] : shut;
      },
    },
    askOn: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { member }) => {
        const person = room.presence.people[member];
        if (!person || !isHere(room, member)) return refuse('not-here');
        if (!may(room, person, 'speak').allowed) return refuse('no-floor');
        const is = room.desk.microphone[member] || room.desk.asked[member] || teaches(person.role);
        return is ? [] : [{ type: 'askedOn', by, member }];
      },
    },
  },
  events: {
    microphone: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, on }) => unasked(turned(part, 'microphone', member, on), member),
      log: null,
    },
    camera: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, on }) => turned(part, 'camera', member, on),
      log: null,
    },
    askedOn: {
      version: 1,
      hears: ({ member }) => ({ to: 'some', members: [member] }),
      evolve: (part, { by, member }) => ({ ...part, asked: { ...part.asked, [member]: by } }),
      log: ({ by, member }, nameOf) => `${nameOf(by)} asked ${nameOf(member)} to switch on.`,
    },
    muted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }, room) => {
        if (member) return unasked(turned(part, 'microphone', member, false), member);
        const teachers = Object.keys(part.microphone).filter((m) =>
          teaches(room.presence.people[m]?.role ?? 'student'),
        );
        return { ...part, asked: {}, microphone: Object.fromEntries(teachers.map((m) => [m, true])) };
      },
      notice: ({ by, member }, room) =>
        `${nameIn(room, by)} has muted ${member === null ? 'everyone' : nameIn(room, member)}.`,
      log: ({ by, member }, nameOf) =>
        `${nameOf(by)} muted ${member === null ? 'everyone' : nameOf(member)}.`,
    },
  },
  seenBy: (part, { member, role }) =>
    teaches(role)
      ? part
      : { ...part, asked: Object.fromEntries(Object.entries(part.asked).filter(([m]) => m === member)) },
  heeds: {
    // Everyone walks in muted, with the camera off.
    entered: (part, { member }) => away(part, member),
    left: (part, { member }) => away(part, member),
    dismissed: () => NOTHING_ON,
    limitSet: (part, _event, room) => closedOff(part, room),
    tablesLimited: (part, _event, room) => closedOff(part, room),
    cued: (part, _event, room) => closedOff(part, room),
    exceptionEnded: (part, _event, room) => closedOff(part, room),
    lentBack: (part, _event, room) => closedOff(part, room),
    settingsChanged: (part, _event, room) => closedOff(part, room),
    floorTaken: (part, { member }, room) => closedOff(unasked(part, member), room),
    floorGiven: (part, _event, room) => closedOff(part, room),
    known: (part, _event, room) => closedOff(part, room),
    tablesLaid: (part, _event, room) => closedOff(part, room),
    // What was open at a table may be closed in the class.
    wentTo: (part, _event, room) => closedOff(part, room),
    // Another microphone is theirs from now on: it opens by their own act.
    calledIn: (part, { member }) => unasked(turned(part, 'microphone', member, false), member),
    hungUp: (part, { member }) => unasked(turned(part, 'microphone', member, false), member),
  },
});
