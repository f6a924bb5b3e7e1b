import type { Way } from '../door/index';
import {
  CAPABILITY_IDS,
  capabilityOf,
  rowOf,
  type Capability,
  type Permission,
  type TrackKind,
} from '../limits/capabilities';
import { resolve, type Resolved } from '../limits/resolve';
import { teaches, type Role } from '../roster/role';
import { noSettings, withValues, type Layer, type LayerName } from '../settings/index';
import { timeLimits } from '../writing/index';
import { CLASS, placeOf } from './kernel/place';
import type { TableLimits } from './limits/state';
import type { RoomState } from './kernel/state';

/** What hush says: an own layer above what was set, so that lifting it brings back exactly what was before. */
const hushLayer = ({ by, at }: { by: string; at: number }): Layer => ({
  name: 'hush',
  settings: {
    ...noSettings(),
    limits: Object.fromEntries(
      CAPABILITY_IDS.filter((c) => rowOf(c).hush).map((c) => [c, { value: 'closed', by, at }]),
    ),
  },
});

/** What is said of those who sit at a table. */
const tableLayer = ({ limits, by, at }: TableLimits): Layer => ({
  name: 'table',
  settings: withValues(noSettings(), 'limits', limits, by, at),
});

/** What is said of the table at which somebody is; null where they are at none. */
export function tableLimits(
  room: Pick<RoomState, 'limits' | 'presence'>,
  member: string,
): TableLimits | null {
  const { tables } = room.limits;
  const place = placeOf(room, member);
  return tables && place !== CLASS ? (tables.own[place] ?? tables.all) : null;
}

/** The layers in force for the class as a whole, or for those who sit at a table. */
export function layersOf({ limits }: Pick<RoomState, 'limits'>, table: TableLimits | null = null): Layer[] {
  const { time } = limits;
  const said = time === 'class' ? null : timeLimits(limits.layers, time);
  const ofTime: Layer[] = said ? [{ name: 'time', settings: { ...noSettings(), limits: said } }] : [];
  const layers = [...limits.layers, limits.cue, ...ofTime, limits.live];
  if (table) layers.push(tableLayer(table));
  return limits.hush ? [...layers, hushLayer(limits.hush)] : layers;
}

export interface Verdict {
  allowed: boolean;
  state: Permission;
  because: { layer: LayerName | 'role' | 'floor'; by: string | null; at: number | null };
}

const verdictOf = ({ state, because }: Resolved): Verdict => ({ allowed: state === 'open', state, because });

/** What is resolved once for limits as they stand: it is asked for every person, and again with every event. */
type Verdicts = Record<Capability, Verdict>;
const known = new WeakMap<RoomState['limits'], Map<TableLimits | null, Verdicts>>();
/** Most who are asked about are in the room, and where, that was asked about before. */
let latest: { limits: RoomState['limits']; table: TableLimits | null; all: Verdicts } | null = null;

function verdictsFor(room: Pick<RoomState, 'limits'>, table: TableLimits | null = null): Verdicts {
  const { limits } = room;
  if (latest?.limits === limits && latest.table === table) return latest.all;
  let before = known.get(limits);
  if (!before) known.set(limits, (before = new Map()));
  let all = before.get(table);
  if (!all) {
    const layers = layersOf(room, table);
    all = Object.fromEntries(CAPABILITY_IDS.map((c) => [c, verdictOf(resolve(layers, c))])) as Verdicts;
    before.set(table, all);
  }
  latest = { limits, table, all };
  return all;
}

/** A capability's state for the class. */
export const classLimit = (room: Pick<RoomState, 'limits'>, capability: Capability): Verdict =>
  verdictsFor(room)[capability];

const byRole = (allowed: boolean): Verdict => ({
  allowed,
  state: allowed ? 'open' : 'closed',
  because: { layer: 'role', by: null, at: null },
});

/** Whether this person may do this now. Teachers and assistants always may; observers only watch, and see all. */
export function may(
  room: Pick<RoomState, 'limits' | 'floor' | 'presence'>,
  { member, role }: { member: string; role: Role },
  capability: Capability,
): Verdict {
  if (teaches(role)) return byRole(true);
  if (role === 'observer') return byRole(rowOf(capability).group === 'seeing');
  // What hush leaves as it is, it leaves to each as they have it.
  const hush = room.limits.hush !== null && rowOf(capability).hush !== null;
  const own = hush ? undefined : room.limits.exceptions[member]?.[capability];
  if (!hush && !own && room.presence.people[member]?.grants?.includes(capability))
    return { allowed: true, state: 'open', because: { layer: 'person', by: null, at: null } };
  const verdict = own
    ? verdictOf({ state: own.state, because: { layer: 'person', by: own.by, at: own.at } })
    : verdictsFor(room, tableLimits(room, member))[capability];
  // The floor is a teacher's own word: it lets one person speak even where speaking is closed to the class.
  if (room.floor.holder === member && !hush && (verdict.state === 'byHand' || capability === 'speak'))
    return { allowed: true, state: verdict.state, because: { layer: 'floor', by: null, at: null } };
  return verdict;
}

/** Whether somebody's own switch for a kind of media is on. */
export function isOn({ desk, stage }: Pick<RoomState, 'desk' | 'stage'>, member: string, kind: TrackKind) {
  if (kind === 'screen') return Object.values(stage.presenting).some((at) => at.includes(member));
  return Boolean((kind === 'sound' ? desk.microphone : desk.camera)[member]);
}

/** By what somebody speaks: who has called in speaks by telephone, also where they have a page open beside it. */
export const speaksBy = ({ presence }: Pick<RoomState, 'presence'>, member: string): Way =>
  presence.people[member]?.devices?.telephone ? 'telephone' : 'page';

/** Whether this person's sound, picture or screen goes out now: their own switch, and the limits. */
export function sends(room: RoomState, member: string, kind: TrackKind): boolean {
  const person = room.presence.people[member];
  if (!person?.present || room.bell.phase === 'dismissed') return false;
  return isOn(room, member, kind) && may(room, person, capabilityOf(kind)).allowed;
}

/**
 * The same room without its hush. Limits that close turn people's own switches off by it, and not by the hush itself:
 * lifting brings back exactly what was before.
 */
export const unhushed = (room: RoomState): RoomState =>
  room.limits.hush ? { ...room, limits: { ...room.limits, hush: null } } : room;
