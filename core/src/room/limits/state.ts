import type { Capability } from '../../limits/capabilities';
import type { Layer, Settings } from '../../settings/index';

export interface LimitsState {
  /** College to session, as they were when the room opened and as they were changed since. */
  layers: readonly Layer[];
  /** What was set in class; each value says by whom and when. */
  live: Layer;
  /** What is open for a while; until when, an instant; and what the class had set of it before, if anything. */
  lent: {
    capability: Capability;
    until: number;
    before: Settings['limits'][Capability] | null;
  } | null;
  hush: { by: string; at: number } | null;
}
