import type { Place } from '../kernel/schema';

/** What can be in front of everybody. */
export const FRONTS = ['picture', 'faces', 'seats', 'board', 'slides', 'notes', 'tables', 'film'] as const;
export type Front = (typeof FRONTS)[number];

export interface StageState {
  /** Who presents a screen, by place: whoever began first, first. */
  presenting: Readonly<Record<Place, readonly string[]>>;
  /** Where two may present side by side, by word of whoever teaches. */
  two: Readonly<Record<Place, true>>;
  /** Whose picture is large for all of a place, where whoever teaches has said so. */
  featured: Readonly<Record<Place, string>>;
  /** Who was asked to present, and by whom. */
  asked: Readonly<Record<string, string>>;
  /** What a place looks at, where whoever teaches has said so; elsewhere the picture. */
  front: Readonly<Record<Place, Front>>;
}
