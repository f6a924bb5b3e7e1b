import type { SeriesKind } from '../../calendar/seriesKind';
import type { PlannedTimes } from './schema';

export interface BellState {
  phase: 'waiting' | 'live' | 'dismissed';
  rangInAt: number | null;
  /** What the session is; null in rooms that were stored before rooms said so. */
  kind: SeriesKind | null;
  times: PlannedTimes | null;
}
