import type { Way } from '../../door/index';
import { sameName } from '../../roster/same';
import { teaches } from '../../roster/role';
import { concern, EVERYONE } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import { CLASS } from '../kernel/place';
import type { RoomState } from '../kernel/state';
import { may } from '../may';
import { isTold, seatName } from '../sight';
import { refusalWords } from '../words';
import { placeFor } from '../tables/index';
import type { Devices, Occupant, PresenceState } from './state';

/** Who is in the room, and where in it. */
export const presence = concern({
  name: 'presence',
  empty: { people: {} },
  commands: {
    rename: {
      who: 'anyone',
      phase: 'any',
      decide: (room, actor, { member, name }) => {
        const known = room.presence.people[member];
        const taken = Object.values(room.presence.people).some(
          (o) => o.member !== member && teaches(o.role) && sameName(o.name, name),
        );
        if (member !== actor.member && !teaches(actor.role)) return refuse('teachers-only');
        if (member === actor.member && !may(room, actor, 'rename').allowed)
          return refuse('closed', refusalWords(room, actor, 'rename'));
        if (!known) return refuse('never-here');
        if (teaches(known.role) && member !== actor.member) return refuse('own-name');
        if (taken) return refuse('name-taken');
        return known.name === name ? [] : [{ type: 'renamed', by: actor.member, member, name }];
      },
    },
  },
  events: {
    entered: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: () => EVERYONE,
      veiled: nameless,
      evolve: (part, { member, name, role, place, grants, came, pronouns }) => ({
        people: {
          ...part.people,
          [member]: {
            ...{ member, name, role, place, present: true },
            ...(grants ? { grants } : {}),
            ...(came ? { came } : {}),
            ...(pronouns ? { pronouns } : {}),
          },
        },
      }),
      log: ({ member }, nameOf) => `${nameOf(member)} came in.`,
    },
    left: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }) =>
        changed(part, member, ({ devices: _, ...o }) => ({ ...o, present: false })),
      log: ({ member }, nameOf) => `${nameOf(member)} left.`,
    },
    wentTo: {
      version: 1,
      hears: () => EVERYONE,
      evolve: ({ people }, { moves }) => {
        const all = { ...people };
        for (const { member, to } of moves) if (all[member]) all[member] = { ...all[member], place: to };
        return { people: all };
      },
      log: null,
    },
    known: {
      version: 1,
      hears: () => EVERYONE,
      veiled: nameless,
      evolve: (part, { member, name, role, grants, pronouns }) =>
        changed(part, member, ({ grants: _, pronouns: __, ...o }) => ({
          ...{ ...o, name, role },
          ...(grants ? { grants } : {}),
          ...(pronouns ? { pronouns } : {}),
        })),
      log: ({ name, role }) => `${name} is now ${role === 'student' ? 'a student' : role}, called ${name}.`,
    },
    renamed: {
      version: 1,
      hears: () => EVERYONE,
      veiled: nameless,
      evolve: (part, { member, name }) => changed(part, member, (o) => ({ ...o, name })),
      log: ({ by, name }, nameOf) => `${nameOf(by)} gave the name ${name}.`,
    },
    pagesChanged: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, pages }) => withDevices(part, member, (d) => ({ ...d, pages })),
      log: null,
    },
    calledIn: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }) => withDevices(part, member, (d) => ({ ...d, telephone: true })),
      log: ({ member }, nameOf) => `${nameOf(member)} is here by telephone.`,
    },
    hungUp: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }) => withDevices(part, member, (d) => ({ ...d, telephone: false })),
      log: ({ member }, nameOf) => `${nameOf(member)} hung up.`,
    },
  },
  heeds: {
    // Whoever went away from a table comes back to the class.
    tablesCleared: ({ people }) => ({
      people: Object.fromEntries(
        Object.entries(people).map(([id, o]) => [
          id,
          o.present || o.place === CLASS ? o : { ...o, place: CLASS },
        ]),
      ),
    }),
    dismissed: ({ people }) => ({
      people: Object.fromEntries(
        Object.entries(people).map(([id, { devices: _, ...o }]) => [
          id,
          o.present || o.place !== CLASS ? { ...o, present: false, place: CLASS } : o,
        ]),
      ),
    }),
  },
  seenBy: (part, viewer, room) => ({
    people: Object.fromEntries(
      Object.entries(part.people).map(([id, o]) => [id, isTold(room, viewer, id) ? o : nameless(o, room)]),
    ),
  }),
});

/** Somebody, or what is told of them, without their name. */
function nameless<T extends { member: string; name: string; pronouns?: unknown }>(of: T, room: RoomState): T {
  const { pronouns: _, ...rest } = of;
  return { ...rest, name: seatName(room, of.member) } as T;
}

function changed(part: PresenceState, member: string, change: (o: Occupant) => Occupant): PresenceState {
  const known = part.people[member];
  return known ? { people: { ...part.people, [member]: change(known) } } : part;
}

export const isHere = ({ presence: { people } }: Pick<RoomState, 'presence'>, member: string): boolean =>
  people[member]?.present ?? false;

/** Somebody as the class list knows them. */
export type Comer = Pick<Occupant, 'member' | 'name' | 'role' | 'grants' | 'came' | 'pronouns'> & {
  way?: Way;
  /** A teacher said that they are always let in. */
  always?: true;
};

/** What their coming leads to. A room without dates begins by itself with whoever comes first. */
export function entering(room: RoomState, comer: Comer): RoomEvent[] {
  const { way, always: _, ...who } = comer;
  const events: RoomEvent[] = isHere(room, who.member)
    ? knowing(room, who)
    : [{ type: 'entered', ...who, place: placeFor(room, who) }];
  const pages = isHere(room, who.member) ? devicesOf(room, who.member).pages : 0;
  if (way === 'telephone') events.push(...holding(room, who.member, { pages, telephone: true }));
  const begins = room.bell.phase === 'waiting' && room.bell.kind === 'open';
  return begins ? [...events, { type: 'rangIn', by: null }] : events;
}

/** What follows when somebody in the room is called otherwise, or is something else in the course. */
export function knowing({ presence: { people } }: RoomState, comer: Comer): RoomEvent[] {
  const known = people[comer.member];
  if (!known?.present) return [];
  const same =
    known.name === comer.name &&
    known.role === comer.role &&
    known.pronouns === comer.pronouns &&
    JSON.stringify(known.grants ?? []) === JSON.stringify(comer.grants ?? []);
  const { member, name, role, grants, pronouns } = comer;
  return same
    ? []
    : [
        {
          ...{ type: 'known', member, name, role },
          ...(grants ? { grants } : {}),
          ...(pronouns ? { pronouns } : {}),
        },
      ];
}

const ONE_PAGE: Devices = { pages: 1, telephone: false };

/** By what somebody is here. */
export const devicesOf = ({ presence: { people } }: Pick<RoomState, 'presence'>, member: string): Devices =>
  people[member]?.devices ?? ONE_PAGE;

/** What follows when somebody in the room is here by other devices than is known. */
export function onDevices(room: RoomState, member: string, devices: Devices): RoomEvent[] {
  if (!isHere(room, member)) return [];
  return holding(room, member, devices);
}

function holding(room: RoomState, member: string, { pages, telephone }: Devices): RoomEvent[] {
  const known = isHere(room, member) ? devicesOf(room, member) : ONE_PAGE;
  const events: RoomEvent[] = [];
  if (known.pages !== pages) events.push({ type: 'pagesChanged', member, pages });
  if (known.telephone !== telephone) events.push({ type: telephone ? 'calledIn' : 'hungUp', member });
  return events;
}

function withDevices(
  part: PresenceState,
  member: string,
  change: (known: Devices) => Devices,
): PresenceState {
  return changed(part, member, ({ devices = ONE_PAGE, ...o }) => {
    const { pages, telephone } = change(devices);
    return pages === 1 && !telephone ? o : { ...o, devices: { pages, telephone } };
  });
}
