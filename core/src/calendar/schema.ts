import { z } from 'zod';
import { SERIES_KINDS } from './seriesKind';

export const SeriesKind = z.enum(SERIES_KINDS);
export type SeriesKind = z.infer<typeof SeriesKind>;
