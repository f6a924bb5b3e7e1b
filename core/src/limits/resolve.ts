import { inForce, type InForce, type Layer } from '../settings/index';
import {
  CAPABILITY_IDS,
  COLLEGE_LIMITS,
  rowOf,
  type Capability,
  type Limits,
  type Permission,
} from './capabilities';

/** A capability's state and which layer set it. */
export interface Resolved {
  state: Permission;
  because: InForce<Permission>['because'];
}

const BY_COLLEGE = { layer: 'college', by: null, at: null } as const;

/**
 * The state of one capability: the narrowest layer that says something of it decides; the college has a word for all.
 * A stored state that makes no sense of its capability is taken as closed.
 */
export function resolve(layers: readonly Layer[], capability: Capability): Resolved {
  const found = inForce(layers, 'limits', capability);
  if (!found) return { state: COLLEGE_LIMITS[capability], because: BY_COLLEGE };
  const state = rowOf(capability).states.includes(found.value) ? found.value : 'closed';
  return { state, because: found.because };
}

/** Every capability's state under these layers. */
export const resolveAll = (layers: readonly Layer[]): Limits =>
  Object.fromEntries(CAPABILITY_IDS.map((c) => [c, resolve(layers, c).state])) as Limits;
