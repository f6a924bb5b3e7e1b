import type { Capability, Limits, Permission, Role } from '../api/limits';
import type { Addressee, Stroke } from '../api/room';
import { HUSH_LIMITS, resolve, teaches, type Layer, type Resolved } from '../limits/resolve';

export interface Occupant {
  member: string;
  name: string;
  role: Role;
  /** What a guest may do whatever the limits say; hush closes it like everything else. */
  grants?: readonly Capability[];
  present: boolean;
  /** The person's own switches. Whether they take effect, `may` decides. */
  microphone: boolean;
  camera: boolean;
}

export interface Message {
  seq: number;
  at: number;
  from: string;
  name: string;
  addressee: Addressee;
  text: string;
}

export interface Hand {
  member: string;
  at: number;
}

export interface BoardStroke extends Stroke {
  seq: number;
  by: string;
}

export type RecordingState = 'off' | 'on' | 'paused';

/** A room as its events have made it. The same on the server, in every page and in a replay. */
export interface RoomState {
  phase: 'waiting' | 'live' | 'dismissed';
  seq: number;
  rangInAt: number | null;
  /** The layers below the live one: college, course, session. */
  base: readonly Layer[];
  live: { values: Partial<Limits>; by?: string; at?: number };
  hush: { by: string; at: number } | null;
  floor: string | null;
  hands: readonly Hand[];
  presenting: string | null;
  occupants: Readonly<Record<string, Occupant>>;
  talk: readonly Message[];
  board: readonly BoardStroke[];
  recording: RecordingState;
  /** What changed last, in words for students. */
  notice: { seq: number; text: string } | null;
}

export const newRoom = (base: readonly Layer[]): RoomState => ({
  phase: 'waiting',
  seq: 0,
  rangInAt: null,
  base,
  live: { values: {} },
  hush: null,
  floor: null,
  hands: [],
  presenting: null,
  occupants: {},
  talk: [],
  board: [],
  recording: 'off',
  notice: null,
});

/** The layers in force for the class as a whole. */
export function layersOf(state: RoomState): Layer[] {
  const layers: Layer[] = [...state.base, { name: 'live', ...state.live }];
  if (state.hush) layers.push({ name: 'hush', values: HUSH_LIMITS, by: state.hush.by, at: state.hush.at });
  return layers;
}

/** A capability's state for the class. */
export const classLimit = (state: RoomState, capability: Capability): Resolved =>
  resolve(layersOf(state), capability);

export interface Verdict {
  allowed: boolean;
  state: Permission;
  because: Resolved['because'];
}

/** Whether this person may do this now. Teachers and assistants always may; observers only watch. */
export function may(state: RoomState, member: string, role: Role, capability: Capability): Verdict {
  if (teaches(role)) return { allowed: true, state: 'open', because: { name: 'college' } };
  if (role === 'observer') return { allowed: false, state: 'closed', because: { name: 'college' } };
  if (!state.hush && state.occupants[member]?.grants?.includes(capability))
    return { allowed: true, state: 'open', because: { name: 'guest' } };
  const verdict = classLimit(state, capability);
  const hasFloor = state.floor === member && !state.hush;
  // The floor is a teacher's own word: it lets one person speak even where speaking is closed to the class.
  if (hasFloor && (verdict.state === 'byHand' || capability === 'speak'))
    return { allowed: true, state: verdict.state, because: { name: 'floor' } };
  return { allowed: verdict.state === 'open', ...verdict };
}

/** Whether this person's sound, picture or screen goes out now: their own switch, and the limits. */
export function sends(state: RoomState, member: string, what: 'microphone' | 'camera' | 'screen'): boolean {
  const person = state.occupants[member];
  if (!person?.present || state.phase === 'dismissed') return false;
  const on = what === 'screen' ? state.presenting === member : person[what];
  const capability = what === 'microphone' ? 'speak' : what === 'camera' ? 'camera' : 'present';
  return on && may(state, member, person.role, capability).allowed;
}
