import type { SeriesKind } from '../../calendar/seriesKind';
import type { PlannedTimes } from './schema';

export interface BellState {
  phase: 'waiting' | 'live' | 'dismissed';
  rangInAt: number | null;
  /** Since when the class is over, and who has a question may stay. */
  overAt: number | null;
  /** What the session is; null in rooms that were stored before rooms said so. */
  kind: SeriesKind | null;
  times: PlannedTimes | null;
}
