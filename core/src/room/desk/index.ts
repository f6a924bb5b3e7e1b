import { capabilityOf } from '../../limits/capabilities';
import { teaches } from '../../roster/role';
import { concern, EVERYONE, type CommandRule } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { classLimit, may, unhushed } from '../may';
import { isHere } from '../presence/index';
import { markedFor, sees } from '../sight';
import { nameIn } from '../words';
import type { DeskState } from './state';

type Switch = 'microphone' | 'camera' | 'listens';

/** What is on by one's own switch, where the limits let it. */
type Owned = Exclude<Switch, 'listens'>;

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
  const kept = (which: Owned) => {
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

const ownSwitch = (which: Owned): CommandRule<Owned> => ({
  who: 'anyone',
  phase: 'any',
  needs: ({ on }) => (on ? [capabilityOf(which === 'microphone' ? 'sound' : 'camera')] : []),
  decide: (room, { member }, { on }) =>
    Boolean(room.desk[which][member]) === on ? [] : [{ type: which, member, on }],
});

const NOTHING_ON: DeskState = { microphone: {}, camera: {}, listens: {}, asked: {} };

/** Nobody is asked any more who has answered, is gone, or may not. */
const unasked = (part: DeskState, member: string): DeskState => {
  if (!(member in part.asked)) return part;
  const { [member]: _, ...asked } = part.asked;
  return { ...part, asked };
};

/** Everyone is off: microphone, camera, and what they were asked. */
const away = (part: DeskState, member: string) =>
  unasked(
    turned(
      turned(turned(part, 'microphone', member, false), 'camera', member, false),
      'listens',
      member,
      false,
    ),
    member,
  );

/** Everyone's own switches, and muting. */
export const desk = concern({
  name: 'desk',
  empty: NOTHING_ON,
  commands: {
    microphone: ownSwitch('microphone') as CommandRule<'microphone'>,
    camera: ownSwitch('camera') as CommandRule<'camera'>,
    onlyListen: {
      who: 'anyone',
      phase: 'any',
      decide: (room, { member }, { on }) => {
        const { listens, microphone } = room.desk;
        if (Boolean(listens[member]) === on) return [];
        const off: RoomEvent[] = on && microphone[member] ? [{ type: 'microphone', member, on: false }] : [];
        return [...off, { type: 'onlyListens', member, on }];
      },
    },
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
        if (room.desk.listens[member]) return refuse('only-listens');
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
      evolve: (part, { member, on }) => {
        const next = unasked(turned(part, 'microphone', member, on), member);
        // Whoever speaks does not only listen any more.
        return on ? turned(next, 'listens', member, false) : next;
      },
      log: null,
    },
    onlyListens: {
      version: 1,
      hears: ({ member }, room) => markedFor(room, member),
      evolve: (part, { member, on }) => {
        const next = turned(part, 'listens', member, on);
        return on ? unasked(next, member) : next;
      },
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
  seenBy: (part, viewer, room) => {
    if (teaches(viewer.role)) return part;
    const own = <T>(all: Readonly<Record<string, T>>) =>
      Object.fromEntries(Object.entries(all).filter(([m]) => m === viewer.member));
    const listens = sees(room, viewer, 'seeMarks') ? part.listens : own(part.listens);
    return { ...part, listens, asked: own(part.asked) };
  },
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
