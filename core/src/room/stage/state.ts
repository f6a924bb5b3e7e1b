import type { Place } from '../kernel/schema';

export interface StageState {
  /** Who presents a screen, by place. */
  presenting: Readonly<Record<Place, string>>;
}
