import type { Place } from './schema';

/** The class itself, as a place of its room. */
export const CLASS: Place = 'class';
