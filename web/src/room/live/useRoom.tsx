import { createContext, useCallback, useContext, useMemo, useSyncExternalStore } from 'react';
import type { Capability, RoomCommand } from '@nimble-bell/core/api';
import { may, placeOf, tableOf, type RoomState, type Verdict } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import type { RoomInfo, SeatPerson } from '@nimble-bell/core/api';
import type { Call, TrackKind } from './call';
import type { RoomConnection } from './connection';
import type { Lines } from './lines';

/** What the parts of a room's page act with. The same object for as long as the page is in the room. */
export interface RoomTools {
  connection: Pick<
    RoomConnection,
    'view' | 'subscribe' | 'ask' | 'signal' | 'onSignal' | 'voices' | 'onDocument'
  >;
  call: Call;
  /** How the others' connections are. */
  lines: Lines;
  /** Asks the room; a refusal is shown in its own words. Gives whether it was done. */
  send: (command: RoomCommand) => Promise<boolean>;
  /** Opens a device, then asks. */
  sendWithDevice: (kind: TrackKind, command: RoomCommand) => Promise<boolean>;
}

export const RoomContext = createContext<RoomTools | null>(null);

export function useRoom(): RoomTools {
  const tools = useContext(RoomContext);
  if (!tools) throw new Error('This belongs inside a room.');
  return tools;
}

/** What a page has once it is in the room. */
export interface Inside {
  room: RoomState;
  info: RoomInfo;
  /** The relay is there: sound and picture work. */
  relay: boolean;
  away: boolean;
}

/** The same plain values under the same names; what holds more is written out and compared. */
function alike(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false;
  const of = a as Record<string, unknown>;
  const to = b as Record<string, unknown>;
  const keys = Object.keys(of);
  return (
    keys.length === Object.keys(to).length &&
    keys.every(
      (key) =>
        Object.is(of[key], to[key]) ||
        (typeof of[key] === 'object' && JSON.stringify(of[key]) === JSON.stringify(to[key])),
    )
  );
}

/** A part of what a connection holds, the same object for as long as it is the same to whoever shows it. */
class Selection<T> {
  #last: { value: T } | null = null;
  /** What it was selected from: asked again of the same view, it is the same. */
  #of: RoomTools['connection']['view'] | null = null;

  constructor(
    readonly connection: RoomTools['connection'],
    readonly select: (inside: Inside) => T,
    readonly same: (a: T, b: T) => boolean,
  ) {}

  readonly get = (): T => {
    const { view } = this.connection;
    if (this.#last && this.#of === view) return this.#last.value;
    this.#of = view;
    const { state, info, relay, status } = view;
    const value = this.select({ room: state!, info: info!, relay, away: status === 'away' });
    if (this.#last === null || !this.same(this.#last.value, value)) this.#last = { value };
    return this.#last.value;
  };
}

/**
 * A part of the room. What shows it is drawn again when that part changes, and at no other event: small values are
 * compared by what they hold, so that a selector may make a new object each time.
 */
export function useInside<T>(select: (inside: Inside) => T, same: (a: T, b: T) => boolean = alike): T {
  const { connection } = useRoom();
  const selection = useMemo(() => new Selection(connection, select, same), [connection, select, same]);
  return useSyncExternalStore(connection.subscribe, selection.get);
}

const selectMe = ({ info }: Inside) => info.me;
const selectInfo = ({ info }: Inside) => info;

const bySame = Object.is as (a: unknown, b: unknown) => boolean;

const selectPlace = ({ room, info }: Inside) => placeOf(room, info.me.member);
/** Where in the room one is. */
export const usePlace = () => useInside(selectPlace);

const selectTables = ({ room }: Inside) => room.tables;
export function useTableName(): (place: string) => string {
  const tables = useInside(selectTables, bySame);
  return (place) => tableOf({ tables }, place)?.name ?? 'The class';
}

export const useMe = () => useInside(selectMe);
export const useInfo = (): RoomInfo => useInside(selectInfo, bySame);
export const useTeaching = (): boolean => teaches(useMe().role);

/** Whether one may do something now, and which layer says so. */
export function useMay(capability: Capability): Verdict {
  return useInside(
    useMemo(
      () =>
        ({ room, info }: Inside) =>
          may(room, info.me, capability),
      [capability],
    ),
  );
}

/** What everyone is called: as the room knows them, or else the class list. */
export function nameFrom({ room, info }: Pick<Inside, 'room' | 'info'>, member: string): string {
  return (
    room.presence.people[member]?.name ?? info.people.find((p) => p.member === member)?.name ?? 'Somebody'
  );
}

/** Who is on a list: it is the same for hundreds of events. */
const lists = new WeakMap<readonly SeatPerson[], ReadonlySet<string>>();

/** The class list; and whoever is here and not on it as one has it. */
export function seated({ room, info: { people } }: Pick<Inside, 'room' | 'info'>): SeatPerson[] {
  let listed = lists.get(people);
  if (!listed) lists.set(people, (listed = new Set(people.map((p) => p.member))));
  const others = Object.values(room.presence.people).filter((o) => o.present && !listed.has(o.member));
  if (!others.length) return people;
  return [...people, ...others.map(({ member, name, role }) => ({ member, name, role, group: null }))];
}

const selectNames = ({ room, info }: Inside) => ({ people: room.presence.people, list: info.people });
const sameNames = (a: ReturnType<typeof selectNames>, b: ReturnType<typeof selectNames>) =>
  a.people === b.people && a.list === b.list;

export function useNameOf(): (member: string) => string {
  const { people, list } = useInside(selectNames, sameNames);
  return useCallback(
    (member) => people[member]?.name ?? list.find((p) => p.member === member)?.name ?? 'Somebody',
    [people, list],
  );
}
