import { COLLEGE_DOOR, doorRules, entryFor } from '../../door/index';
import { isStanding } from '../../calendar/seriesKind';
import { listWords } from '../../calendar/words';
import { teaches } from '../../roster/role';
import { concern, EVERYONE, type Audience } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse, type Refusal } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { entering, isHere, type Comer } from '../presence/index';
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

/** Who teaches hears it, and nobody else: who knocks and who was put out is no student's business. */
const TEACHERS: Audience = { to: 'some', members: [] };

const without = <T extends { member: string }>(list: readonly T[], members: readonly string[]) =>
  list.filter((one) => !members.includes(one.member));

/** Whoever came in again is out no more. */
const letIn = (part: DoorState, member: string): DoorState =>
  part.out[member] ? { ...part, out: outWithout(part, [member]) } : part;

const outWithout = ({ out }: DoorState, members: readonly string[]) =>
  Object.fromEntries(Object.entries(out).filter(([m]) => !members.includes(m)));

/** Those of them who wait at the door. */
const waiting = ({ door: { knocks } }: RoomState, members: readonly string[]) =>
  members.filter((m) => knocks.some((k) => k.member === m));

/** Who comes in and how, who waits, who was put out; and who may be in the room alone, and for how long. */
export const door = concern({
  name: 'door',
  empty: {
    rules: COLLEGE_DOOR,
    unattendedSince: null,
    emptySince: null,
    locked: null,
    knocks: [],
    admitted: [],
    out: {},
    word: null,
  },
  commands: {
    lock: {
      who: 'teaching',
      phase: 'any',
      decide: ({ door: { locked } }, { member: by }) => (locked ? [] : [{ type: 'locked', by }]),
    },
    unlock: {
      who: 'teaching',
      phase: 'any',
      decide: ({ door: { locked } }, { member: by }) => (locked ? [{ type: 'unlocked', by }] : []),
    },
    letIn: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { members, always }) => {
        const some = waiting(room, members);
        if (!some.length) return [];
        return [{ type: 'admitted', by, members: some, ...(always ? { always } : {}) }];
      },
    },
    turnAway: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { members, word }) => {
        const some = waiting(room, members);
        return some.length ? [{ type: 'turnedAway', by, members: some, word }] : [];
      },
    },
    porchWord: {
      who: 'teaching',
      phase: 'any',
      decide: (_room, { member: by }, { text }) => [{ type: 'porchTold', by, text }],
    },
    putOut: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { member, back, reason }) => {
        const person = room.presence.people[member];
        if (!person?.present) return refuse('not-here');
        if (teaches(person.role)) return refuse('teaches-here');
        return [
          { type: 'sentOut', by, member, back, reason },
          { type: 'left', member },
        ];
      },
    },
    letBack: {
      who: 'teaching',
      phase: 'any',
      decide: ({ door: { out } }, { member: by }, { member }) =>
        out[member] ? [{ type: 'takenBack', by, member }] : [],
    },
  },
  events: {
    locked: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { by, at }) => ({ ...part, locked: { by, at } }),
      notice: () => 'The door is locked: nobody else comes in.',
      log: ({ by }, nameOf) => `${nameOf(by)} locked the door.`,
    },
    unlocked: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, locked: null }),
      notice: () => 'The door is unlocked.',
      log: ({ by }, nameOf) => `${nameOf(by)} unlocked the door.`,
    },
    knocked: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { member, name, role, came, way, at }) => ({
        ...part,
        knocks: [
          ...without(part.knocks, [member]),
          { member, name, role, at, ...(came ? { came } : {}), ...(way ? { way } : {}) },
        ],
      }),
      log: ({ name }) => `${name} knocked.`,
    },
    knockEnded: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { member }) => ({ ...part, knocks: without(part.knocks, [member]) }),
      log: null,
    },
    admitted: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { members }) => ({
        ...part,
        knocks: without(part.knocks, members),
        admitted: [...new Set([...part.admitted, ...members])],
        out: outWithout(part, members),
      }),
      log: ({ by, members, always }, nameOf) =>
        `${nameOf(by)} ${always ? 'always lets' : 'let'} in ${listWords(members.map(nameOf))}.`,
    },
    turnedAway: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { by, members, word, at }) => ({
        ...part,
        knocks: without(part.knocks, members),
        out: {
          ...part.out,
          ...Object.fromEntries(members.map((m) => [m, { back: 'not' as const, by, at, reason: word }])),
        },
      }),
      log: ({ by, members }, nameOf) => `${nameOf(by)} turned away ${listWords(members.map(nameOf))}.`,
    },
    porchTold: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { text }) => ({ ...part, word: text }),
      log: ({ by, text }, nameOf) => `${nameOf(by)} to those who wait: ${text}`,
    },
    sentOut: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { by, member, back, reason, at }) => ({
        ...part,
        admitted: part.admitted.filter((m) => m !== member),
        out: { ...part.out, [member]: { back, by, at, reason } },
      }),
      log: ({ by, member, back, reason }, nameOf) =>
        `${nameOf(by)} put out ${nameOf(member)}, who ${BACK_WORDS[back]}${reason ? `: ${reason}` : ''}.`,
    },
    takenBack: {
      version: 1,
      hears: () => TEACHERS,
      evolve: (part, { member }) => ({
        ...part,
        admitted: [...part.admitted, member],
        out: outWithout(part, [member]),
      }),
      log: ({ by, member }, nameOf) => `${nameOf(by)} lets ${nameOf(member)} come back.`,
    },
  },
  heeds: {
    opened: (part, { layers, kind }) => ({ ...part, rules: doorRules(layers, kind) }),
    settingsChanged: (part, _event, { bell, limits }) => ({
      ...part,
      rules: doorRules(limits.layers, bell.kind ?? 'class'),
    }),
    rangIn: (part, { at }, room) => watched(part, room, at),
    entered: (part, { member, at }, room) => watched(letIn(part, member), room, at),
    left: (part, { at }, room) => watched(part, room, at),
    known: (part, { at }, room) => watched(part, room, at),
    dismissed: (part) => ({ ...part, knocks: [] }),
  },
  seenBy: (part, { role }) =>
    teaches(role) ? part : { ...part, knocks: [], admitted: [], out: {}, word: null },
  due: (room) => {
    const at = closesAt(room);
    return at === null ? null : { at, events: [{ type: 'dismissed', by: null }] };
  },
});

/**
 * When the room closes by itself, if nobody comes: nobody is left behind alone. A class closes so many minutes after the
 * last who teaches went, past its end in a minute; an always-open room in a minute when all have gone.
 */
export function closesAt({
  bell: { phase, kind, times },
  door,
}: Pick<RoomState, 'bell' | 'door'>): number | null {
  const { rules, unattendedSince, emptySince } = door;
  const open = kind === 'open' && !rules.teacherFirst;
  const since = open ? emptySince : unattendedSince;
  if (phase !== 'live' || since === null || !times || !kind) return null;
  const over = kind === 'open' || kind === 'capture' ? 0 : times.endsAt + times.lingerMinutes * 60_000;
  return Math.min(Math.max(since, over) + ABANDONED_MS, since + rules.aloneMinutes * 60_000);
}

const BACK_WORDS = {
  may: 'may come back',
  knocks: 'knocks to come back',
  not: 'does not come back in this session',
};

/** How this person stands at the door now: comes in, knocks, or why neither. */
export function atDoor(room: RoomState, comer: Comer, now: number): 'in' | 'knocks' | Refusal {
  const { member, role } = comer;
  if (teaches(role) || isHere(room, member)) return 'in';
  const { out, admitted, locked, rules } = room.door;
  const put = out[member];
  if (put?.back === 'not') return refuse('put-out', put.reason ? `${SENT} ${put.reason}` : SENT);
  if (put) return put.back === 'knocks' ? 'knocks' : 'in';
  // Whoever was in may come back: a lost line is no coming late.
  if (admitted.includes(member) || room.presence.people[member]) return 'in';
  if (locked) return refuse('locked');
  if (comer.always) return 'in';
  const { times, kind } = room.bell;
  const startsAt = times && kind && !isStanding(kind) ? times.startsAt : Infinity;
  const entry = entryFor(rules, comer, startsAt, now);
  return entry === 'not' ? refuse('not-let-in') : entry === 'knocks' ? 'knocks' : 'in';
}
const SENT = 'A teacher does not let you into this session.';

/** What somebody's coming to the door leads to. */
export function arriving(room: RoomState, comer: Comer, now: number): RoomEvent[] {
  const verdict = atDoor(room, comer, now);
  if (verdict === 'in') return entering(room, comer);
  const { member, name, role, came, way } = comer;
  const knows = room.door.knocks.some((k) => k.member === member);
  return verdict === 'knocks' && !knows
    ? [{ type: 'knocked', member, name, role, ...(came ? { came } : {}), ...(way ? { way } : {}) }]
    : [];
}

/** Whoever went away from the door waits there no more. */
export const goneFromDoor = (room: RoomState, member: string): RoomEvent[] =>
  room.door.knocks.some((k) => k.member === member) ? [{ type: 'knockEnded', member }] : [];
