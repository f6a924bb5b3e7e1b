import type { Capability } from '../../limits/capabilities';
import { teaches } from '../../roster/role';
import { concern, type Actor, type Audience } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { CLASS, isAt, placeOf } from '../kernel/place';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import type { Addressee } from './schema';
import type { Message } from './state';

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

const isFor = (
  room: Pick<RoomState, 'presence'>,
  m: { from: string; addressee: Addressee; place: Place },
  viewer: Actor,
): boolean => {
  const audience = audienceOf(m);
  if (audience.to === 'place') return isAt(room, viewer, audience.place);
  return audience.to === 'everyone' || teaches(viewer.role) || audience.members.includes(viewer.member);
};

const messageIn = (room: Pick<RoomState, 'talk'>, seq: number): Message | null =>
  room.talk.messages.find((m) => m.seq === seq) ?? null;

/** Whoever a message was for. */
const audienceIn = (room: Pick<RoomState, 'talk'>, seq: number): Audience => {
  const one = messageIn(room, seq);
  return one ? audienceOf(one) : { to: 'some', members: [] };
};

/** Of these what there is. */
type Beside = Pick<Message, 'file' | 'reply' | 'call'>;
const having = (of: { [K in keyof Beside]: Beside[K] | undefined }): Beside =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined));

const withoutWords = <M extends { text: string; file?: string | undefined }>({ file: _, ...rest }: M) => ({
  ...rest,
  text: '',
});

/** A late page is given this many messages; the ones before are asked for. */
export const TALK_AT_ONCE = 200;

/** What is written in class: to all, to those who teach, to one. Teachers can read all of it, and the page says so. */
export const talk = concern({
  name: 'talk',
  empty: { messages: [], earlier: 0, unsaid: [] },
  commands: {
    say: {
      who: 'anyone',
      phase: 'any',
      needs: ({ addressee, file }, room) => [
        writingNeeds(room, addressee),
        ...(file ? (['attachFiles'] as const) : []),
      ],
      decide: (room, actor, { addressee, text, file, reply, call }) => {
        const { member: from } = actor;
        if (call && !teaches(actor.role)) return refuse('teachers-only');
        // What stands over the stage is read by all, and by whoever comes later.
        if (call && addressee.to !== 'class') return refuse('call-to-class');
        const answers = reply ? messageIn(room, reply) : null;
        if (reply && (!answers || !isFor(room, answers, actor))) return refuse('no-message');
        if (addressee.to === 'member') {
          if (addressee.member === from) return refuse('self');
          if (!room.presence.people[addressee.member]) return refuse('never-here');
        }
        if (file && room.talk.messages.some((m) => m.file === file)) return refuse('said-once');
        const place = placeOf(room, from);
        return [{ type: 'said', from, addressee, text, place, ...having({ file, reply, call }) }];
      },
    },
    unsay: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { message }) => {
        const one = messageIn(room, message);
        if (!one) return refuse('no-message');
        return one.unsaid ? [] : [{ type: 'unsaid', by, message }];
      },
    },
    keepQuestion: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { message, as }) => {
        const one = messageIn(room, message);
        if (!one || one.unsaid) return refuse('no-message');
        return (one.kept ?? 'none') === as ? [] : [{ type: 'questionKept', by, message, as }];
      },
    },
  },
  events: {
    said: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: audienceOf,
      // What was taken back is told to nobody who comes later.
      told: (event, room) => (room.talk.unsaid.includes(event.seq) ? withoutWords(event) : event),
      evolve: (part, { seq, at, from, addressee, text, place, file, reply, call }) => ({
        ...part,
        messages: [
          ...part.messages,
          { seq, at, from, addressee, text, place, ...having({ file, reply, call }) },
        ],
      }),
      notice: ({ text, call }) => (call ? text : null),
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
    unsaid: {
      version: 1,
      hears: ({ message }, room) => audienceIn(room, message),
      evolve: (part, { message }) => ({
        ...part,
        unsaid: [...part.unsaid, message],
        messages: part.messages.map((m) =>
          m.seq === message ? { ...withoutWords(m), unsaid: true as const } : m,
        ),
      }),
      // No word of it stays over the stage.
      notice: ({ message }, { notice }) => (notice?.seq === message ? 'A message was taken back.' : null),
      log: ({ by }, nameOf) => `${nameOf(by)} took a message back.`,
    },
    questionKept: {
      version: 1,
      hears: ({ message }, room) => audienceIn(room, message),
      evolve: (part, { message, as }) => ({
        ...part,
        messages: part.messages.map((m) => {
          if (m.seq !== message) return m;
          const { kept: _, ...rest } = m;
          return as === 'none' ? rest : { ...rest, kept: as };
        }),
      }),
      log: null,
    },
  },
  seenBy: (part, viewer, room) => {
    const own = part.messages.filter((m) => isFor(room, m, viewer));
    const messages = own.slice(-TALK_AT_ONCE);
    const unsaid = part.unsaid.filter((seq) => own.some((m) => m.seq === seq));
    return { messages, earlier: part.earlier + own.length - messages.length, unsaid };
  },
});
