import type { Layer } from '../../settings/index';

export interface LimitsState {
  /** College to session, as they were when the room opened and as they were changed since. */
  layers: readonly Layer[];
  /** What was set in class; each value says by whom and when. */
  live: Layer;
  hush: { by: string; at: number } | null;
}
