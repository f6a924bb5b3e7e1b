import type { Capability } from '../../limits/capabilities';
import type { Role } from '../../roster/role';
import type { CommandOf, CommandType, EventType, RoomEvent, StoredOf } from './messages';
import type { Refusal } from './refusals';
import type { Place } from './schema';
import type { Parts, RoomState } from './state';

/** Who asks: a member, and what they are in the course now. */
export interface Actor {
  member: string;
  role: Role;
}

/** Who an event is for. Those who teach hear every event. */
export type Audience =
  { to: 'everyone' } | { to: 'place'; place: Place } | { to: 'some'; members: readonly string[] };

export const EVERYONE: Audience = { to: 'everyone' };

export interface CommandRule<K extends CommandType> {
  who: 'anyone' | 'teaching';
  /** `live`: only while the class is on; `any`: before it as well. */
  phase: 'live' | 'any';
  /** The capabilities that it needs: all of them. */
  needs?: (command: CommandOf<K>, room: RoomState, actor: Actor) => readonly Capability[];
  /** What it leads to. No event is an answer too: "muted already". */
  decide: (room: RoomState, actor: Actor, command: CommandOf<K>, now: number) => RoomEvent[] | Refusal;
}

/** The body of an event of an older version. */
type OlderBody = Record<string, unknown>;

export interface EventRule<N extends keyof Parts, K extends EventType> {
  /** 1 and up; with every change of the schema one more. */
  version: number;
  /** From version 1 to 2, from 2 to 3, and so on: one for each version before today's. */
  upcast?: readonly ((body: OlderBody) => OlderBody)[];
  hears: (event: StoredOf<K>, room: RoomState) => Audience;
  /** The same, told to those who may not know the name of whom it is about. */
  veiled?: (event: StoredOf<K>, room: RoomState) => StoredOf<K>;
  /** The same, as those have it who teach, and as all the others have it, where that is not one. */
  told?: (event: StoredOf<K>, room: RoomState, teaching: boolean) => StoredOf<K>;
  /** The concern's own part after the event. */
  evolve: (part: Parts[N], event: StoredOf<K>, room: RoomState) => Parts[N];
  /** What changed, in one line for everyone in the room. */
  notice?: (event: StoredOf<K>, room: RoomState) => string | null;
  /** The chapter of the recording that begins here. */
  chapter?: (event: StoredOf<K>, nameOf: (member: string) => string) => string | null;
  /** The session's log, for those who teach; null for what is too small for it. */
  log: ((event: StoredOf<K>, nameOf: (member: string) => string) => string) | null;
}

/** What is to happen by itself, and when. */
export interface Due {
  at: number;
  events: RoomEvent[];
}

/**
 * One subject of a room: its part of the state, its commands and events. What else it does when another concern's event
 * happens stands under `heeds`; by then the event's own concern has taken it.
 */
export interface Concern<N extends keyof Parts, C extends CommandType, E extends EventType> {
  name: N;
  empty: Parts[N];
  commands: { [K in C]: CommandRule<K> };
  events: { [K in E]: EventRule<N, K> };
  heeds?: { [K in EventType]?: (part: Parts[N], event: StoredOf<K>, room: RoomState) => Parts[N] };
  due?: (room: RoomState) => Due | null;
  /** The part as this viewer may have it, for a page that comes late. */
  seenBy?: (part: Parts[N], viewer: Actor, room: RoomState) => Parts[N];
}

export const concern = <N extends keyof Parts, C extends CommandType, E extends EventType>(
  one: Concern<N, C, E>,
): Concern<N, C, E> => one;
