import { z } from 'zod';
import type { Hand, Moved } from '../hands/index';
import type { TrackKind } from '../limits/capabilities';
import type { Role } from '../roster/role';
import {
  Place,
  RoomCommand,
  type Refusal,
  type RoomState,
  type StoredEvent,
  type Message,
} from '../room/index';
import type { SessionInfo } from './http';

/** How a connection is; where it is poor, only the sound is sent and received. */
export const LINES = ['good', 'weak', 'poor'] as const;
export type Line = (typeof LINES)[number];

/** Whose cameras a page receives: those that it shows; and, of those, which it shows so small that a small picture does. */
const Cameras = z.array(z.string().max(40)).max(500);
const Look = z.object({ cameras: Cameras, small: Cameras.default([]) });
export type Look = z.output<typeof Look>;

/** A place in a document that stays where it is while others write (a relative position of Yjs). */
const Clocked = z.object({ client: z.int().min(0), clock: z.int().min(0) });
const Spot = z
  .object({
    type: Clocked.nullish(),
    tname: z.literal('default').nullish(),
    item: Clocked.nullish(),
    assoc: z.int().min(-1).max(1).nullish(),
  })
  .refine(({ type, tname, item }) => Boolean(type ?? tname ?? item), 'A place is in something.');
export type Spot = z.infer<typeof Spot>;

/** What is only now and never stored: sent to those in the same place or to those who teach, lost if it is lost. */
export const Signal = z.discriminatedUnion('what', [
  /** Somebody is writing something. */
  z.object({ what: z.literal('typing') }),
  /** Whether somebody's page is hidden behind another: for those who teach alone. */
  z.object({ what: z.literal('hidden'), hidden: z.boolean() }),
  /** What somebody who writes captions has of a line by now. */
  z.object({ what: z.literal('captioning'), text: z.string().max(200) }),
  /** How somebody's connection is: for those who teach alone. */
  z.object({ what: z.literal('line'), line: z.enum(LINES) }),
  /** Where somebody writes in what is written together: the ends of what they have chosen; null where they write no more. */
  z.object({ what: z.literal('caret'), at: z.object({ anchor: Spot, head: Spot }).nullable() }),
  /** A pointer over a page, or a pen on the board; fractions of its width and height. */
  z.object({
    what: z.literal('pointer'),
    on: z.literal('board').optional(),
    x: z.number().min(0).max(1),
    y: z.number().min(0).max(1),
  }),
]);
export type Signal = z.infer<typeof Signal>;

const DocumentName = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'A document has a plain name.');
const Sdp = z.object({ sdp: z.string().max(60_000) });
const Nothing = z.object({});

/** What a page sends on the live channel, by name. Each is answered with its reply, or a refusal in words. */
export const PAGE_MESSAGES = {
  /** `after` is the last event that the page has; 0 where it has none. */
  enter: z.object({ session: z.string().max(40), after: z.int().min(0).default(0) }),
  /** The id makes a command that is sent again the same command. */
  command: z.object({ id: z.uuid(), command: RoomCommand }),
  leave: Nothing,
  publish: Sdp,
  unpublish: Nothing,
  /** Without `cameras` everybody's that one may see. */
  watch: Look.partial({ cameras: true }),
  /** Others are shown now. */
  look: Look,
  answer: Sdp,
  signal: Signal,
  /** Messages before the oldest that a late page was given. */
  earlier: z.object({ before: z.int().min(1) }),
  /** What is written together: all updates of a document so far. */
  documentOpen: z.object({ place: Place, name: DocumentName }),
  /** How it was until an instant, for those who teach; without one, the instants at which that is known. */
  documentThen: z.object({ place: Place, name: DocumentName, at: z.int().min(0).nullable() }),
  /** One more update, base64. */
  documentUpdate: z.object({
    place: Place,
    name: DocumentName,
    update: z.string().max(180_000, 'This is too much at once.'),
  }),
} as const;
export type PageMessage = keyof typeof PAGE_MESSAGES;
export type BodyOf<K extends PageMessage> = z.infer<(typeof PAGE_MESSAGES)[K]>;

/** Somebody on the class list, as the seats show them. */
export interface SeatPerson {
  member: string;
  name: string;
  role: Role;
  group: string | null;
}

/** What a page needs of a room besides its events. */
export interface RoomInfo {
  session: SessionInfo;
  course: { id: string; code: string; title: string };
  zone: string;
  me: { member: string; role: Role };
  /** The whole class list, the absent too. */
  people: SeatPerson[];
  relay: boolean;
  /** What there is of a program that writes captions, in words; nothing where there is none. */
  captioner?: string;
  /** The session is tried with a made-up class; nothing of it is kept. */
  rehearsal?: true;
}

/** A room as one student has it, for somebody who teaches and only looks. */
export interface SeenAs {
  live: boolean;
  /** The titles of its run sheet. */
  parts: string[];
  room: RoomState;
  info: RoomInfo;
}

/** Where a media section of a viewer's connection belongs. */
export interface RelayOffer {
  sdp: string;
  streams: { mid: string; member: string; kind: TrackKind }[];
}

/** That somebody is heard, and since when, an instant; null where they are not any more. */
export interface Voice {
  member: string;
  since: number | null;
}

/** A room as it is, for a page that has little of it; or the events that it missed. */
export interface Entered {
  info: RoomInfo;
  room: RoomState | null;
  events: StoredEvent[];
  /** Who is heard now. */
  voices: Voice[];
  seq: number;
  now: number;
}

/** What somebody who knocked is told while they wait. */
export interface PorchInfo {
  course: RoomInfo['course'];
  session: Pick<SessionInfo, 'seriesTitle' | 'number' | 'startsAt'>;
  zone: string;
  /** Since when they wait, ms. */
  since: number;
  /** What those who wait were told last. */
  word: string | null;
}

/** Whose is what in what is written together, as far as it is not known yet. */
export interface KnownHands {
  hands: Hand[];
  moved: Moved[];
}

/** One more update of what is written together, base64. */
export interface DocumentChange extends KnownHands {
  place: string;
  name: string;
  update: string;
}

/** What a message leads to, where it is not refused. */
export interface Answers {
  enter: Entered | { porch: PorchInfo; now: number };
  command: { seq: number };
  leave: object;
  publish: { sdp: string };
  unpublish: object;
  watch: object;
  look: object;
  answer: object;
  signal: object;
  earlier: { messages: Message[]; earlier: number };
  documentOpen: KnownHands & { updates: string[] };
  documentThen: { moments: number[]; updates: string[] };
  documentUpdate: KnownHands;
}
export interface Refused {
  ok: false;
  refusal: { code: string; message: string };
}
export type LiveReply<K extends PageMessage> = ({ ok: true } & Answers[K]) | Refused;
export type EnterReply = LiveReply<'enter'>;
export type CommandReply = { ok: true; seq: number } | { ok: false; refusal: Refusal | Refused['refusal'] };

/** What the server sends of itself, by name. */
export interface ServerMessages {
  events: (events: StoredEvent[]) => void;
  offer: (offer: RelayOffer) => void;
  relay: (state: { available: boolean }) => void;
  /** What one sends of a kind is passed on from now on: before, a camera's two sizes would not be told apart. */
  passed: (what: { kind: TrackKind }) => void;
  /** The class list has changed. */
  people: (people: SeatPerson[]) => void;
  /** Who is what in the room: one's own role has changed. */
  you: (me: RoomInfo['me']) => void;
  'put-out': (why: { message: string }) => void;
  /** Something is different at the door where one waits: enter again. */
  door: () => void;
  'porch-word': (word: { text: string }) => void;
  /** The room is somewhere else now: connect anew. */
  moved: () => void;
  signal: (signal: Signal & { member: string }) => void;
  document: (change: DocumentChange) => void;
  /** Somebody is heard where one is, or no more; those who teach are told of every place. */
  voice: (voice: Voice) => void;
}
/** The same the other way, as Socket.IO's types want it. */
export type ClientMessages = {
  [K in PageMessage]: (body: z.input<(typeof PAGE_MESSAGES)[K]>, ack: (reply: LiveReply<K>) => void) => void;
};
