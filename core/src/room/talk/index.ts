import type { Capability } from '../../limits/capabilities';
import { teaches } from '../../roster/role';
import { concern, type Actor, type Audience } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { CLASS } from '../kernel/place';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { placeOf } from '../stage/index';
import type { Addressee } from './schema';

/** The capability that writing to them needs. */
export function writingNeeds(room: Pick<RoomState, 'presence'>, addressee: Addressee): Capability {
  if (addressee.to === 'class') return 'writeToClass';
  const other = addressee.to === 'member' ? room.presence.people[addressee.member] : null;
  return addressee.to === 'teachers' || (other && teaches(other.role))
    ? 'writeToTeachers'
    : 'writeToStudents';
}

const audienceOf = (m: { from: string; addressee: Addressee; place: Place }): Audience => {
  if (m.addressee.to === 'class') return { to: 'place', place: m.place };
  return { to: 'some', members: m.addressee.to === 'member' ? [m.from, m.addressee.member] : [m.from] };
};

const isFor = (m: { from: string; addressee: Addressee; place: Place }, viewer: Actor): boolean => {
  const audience = audienceOf(m);
  return audience.to !== 'some' || teaches(viewer.role) || audience.members.includes(viewer.member);
};

/** A late page is given this many messages; the ones before are asked for. */
export const TALK_AT_ONCE = 200;

/** What is written in class: to all, to those who teach, to one. Teachers can read all of it, and the page says so. */
export const talk = concern({
  name: 'talk',
  empty: { messages: [], earlier: 0 },
  commands: {
    say: {
      who: 'anyone',
      phase: 'any',
      needs: ({ addressee, file }, room) => [
        writingNeeds(room, addressee),
        ...(file ? (['attachFiles'] as const) : []),
      ],
      decide: (room, { member: from }, { addressee, text, file }) => {
        if (addressee.to === 'member') {
          if (addressee.member === from) return refuse('self');
          if (!room.presence.people[addressee.member]) return refuse('never-here');
        }
        if (file && room.talk.messages.some((m) => m.file === file)) return refuse('said-once');
        const place = placeOf(room, from);
        return [{ type: 'said', from, addressee, text, place, ...(file ? { file } : {}) }];
      },
    },
  },
  events: {
    said: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: audienceOf,
      evolve: (part, { seq, at, from, addressee, text, place, file }) => ({
        ...part,
        messages: [...part.messages, { seq, at, from, addressee, text, place, ...(file ? { file } : {}) }],
      }),
      log: ({ from, addressee, text, file }, nameOf) => {
        const to =
          addressee.to === 'class'
            ? ''
            : addressee.to === 'teachers'
              ? ' to the teachers'
              : ` to ${nameOf(addressee.member)}`;
        return `${nameOf(from)} wrote${to}${file ? ', with a file' : ''}: ${text}`;
      },
    },
  },
  seenBy: (part, viewer) => {
    const own = part.messages.filter((m) => isFor(m, viewer));
    const messages = own.slice(-TALK_AT_ONCE);
    return { messages, earlier: part.earlier + own.length - messages.length };
  },
});
