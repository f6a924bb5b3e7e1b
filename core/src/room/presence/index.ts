import { concern, EVERYONE } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { CLASS } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import type { Occupant, PresenceState } from './state';

/** Who is in the room, and where in it. */
export const presence = concern({
  name: 'presence',
  empty: { people: {} },
  commands: {},
  events: {
    entered: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: () => EVERYONE,
      evolve: (part, { member, name, role, place, grants }) => ({
        people: {
          ...part.people,
          [member]: { member, name, role, place, present: true, ...(grants ? { grants } : {}) },
        },
      }),
      log: ({ member }, nameOf) => `${nameOf(member)} came in.`,
    },
    left: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member }) => changed(part, member, (o) => ({ ...o, present: false })),
      log: ({ member }, nameOf) => `${nameOf(member)} left.`,
    },
    known: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, name, role, grants }) =>
        changed(part, member, ({ place, present }) => ({
          member,
          name,
          role,
          place,
          present,
          ...(grants ? { grants } : {}),
        })),
      log: ({ name, role }) => `${name} is now ${role === 'student' ? 'a student' : role}, called ${name}.`,
    },
  },
  heeds: {
    dismissed: ({ people }) => ({
      people: Object.fromEntries(
        Object.entries(people).map(([id, o]) => [id, o.present ? { ...o, present: false } : o]),
      ),
    }),
  },
});

function changed(part: PresenceState, member: string, change: (o: Occupant) => Occupant): PresenceState {
  const known = part.people[member];
  return known ? { people: { ...part.people, [member]: change(known) } } : part;
}

export const isHere = ({ presence: { people } }: Pick<RoomState, 'presence'>, member: string): boolean =>
  people[member]?.present ?? false;

/** Somebody as the class list knows them. */
export type Comer = Pick<Occupant, 'member' | 'name' | 'role' | 'grants'>;

/** What their coming leads to. A room without dates begins by itself with whoever comes first. */
export function entering(room: RoomState, comer: Comer): RoomEvent[] {
  const events: RoomEvent[] = isHere(room, comer.member)
    ? knowing(room, comer)
    : [{ type: 'entered', ...comer, place: CLASS }];
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
    JSON.stringify(known.grants ?? []) === JSON.stringify(comer.grants ?? []);
  return same ? [] : [{ type: 'known', ...comer }];
}
