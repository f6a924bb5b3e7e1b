import type { Capability, Limits, Permission, Role } from '../api/limits';

export type LayerName = 'college' | 'course' | 'session' | 'live' | 'hush' | 'floor' | 'guest';

/** Values set in one place, by one person, at one time. A later layer overrules an earlier one. */
export interface Layer {
  name: LayerName;
  values: Partial<Limits>;
  by?: string | undefined;
  /** Instant, ms. */
  at?: number | undefined;
}

export interface Resolved {
  state: Permission;
  /** Which layer set the value in force. */
  because: Pick<Layer, 'name' | 'by' | 'at'>;
}

export const COLLEGE_LIMITS: Limits = {
  speak: 'byHand',
  camera: 'open',
  present: 'closed',
  draw: 'closed',
  writeToClass: 'open',
  writeToTeachers: 'open',
  writeToStudents: 'closed',
};

/** What hush closes: everything but a word to a teacher. */
export const HUSH_LIMITS: Partial<Limits> = {
  speak: 'closed',
  camera: 'closed',
  present: 'closed',
  draw: 'closed',
  writeToClass: 'closed',
  writeToStudents: 'closed',
};

/** The state of one capability: the last layer that says something about it decides. The college's layer says all. */
export function resolve(layers: readonly Layer[], capability: Capability): Resolved {
  for (let i = layers.length - 1; i >= 0; i--) {
    const { values, name, by, at } = layers[i]!;
    const state = values[capability];
    if (state) return { state, because: { name, by, at } };
  }
  return { state: COLLEGE_LIMITS[capability], because: { name: 'college' } };
}

export const teaches = (role: Role): boolean => role === 'teacher' || role === 'assistant';
