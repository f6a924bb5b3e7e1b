import type { Layer, LayerName } from '../settings/index';
import { COLLEGE_LIMITS, type Capability, type Permission } from './capabilities';
import { resolve } from './resolve';

/** One layer of a value: what it says, or null where it says nothing. */
export interface Rung {
  layer: LayerName;
  state: Permission | null;
  /** A member's id; null is the college itself, or nobody known any more. */
  by: string | null;
  /** Instant, ms. */
  at: number | null;
  inForce: boolean;
}

/** The layers of a capability one above another, the narrowest on top: why it is as it is. One of them is in force. */
export function ladderOf(layers: readonly Layer[], capability: Capability): Rung[] {
  const { because } = resolve(layers, capability);
  const rungs = layers
    .map(({ name, settings }): Rung => {
      const said = settings.limits[capability];
      return {
        layer: name,
        state: said?.value ?? null,
        by: said?.by ?? null,
        at: said?.at ?? null,
        inForce: said !== undefined && name === because.layer,
      };
    })
    .reverse();
  const college = rungs.find((r) => r.layer === 'college');
  const own = { state: COLLEGE_LIMITS[capability], by: null, at: null };
  if (!college) rungs.push({ layer: 'college', ...own, inForce: because.layer === 'college' });
  else if (college.state === null) Object.assign(college, own, { inForce: because.layer === 'college' });
  return rungs;
}

/** The layers as people call them. */
export const LAYER_WORDS: Record<LayerName, string> = {
  college: 'The college',
  course: 'This course',
  series: 'This series',
  session: 'This session',
  cue: 'This part of the class',
  time: 'Before or after class time',
  live: 'Set in class',
  table: 'At the tables',
  hush: 'Hush',
  person: 'For this person',
};
