import { z } from 'zod';

/**
 * What a series is for. `open` is a room without dates that stands open all term; `capture` a lecture recorded with
 * nobody else there. Both have no pattern.
 */
export const SeriesKind = z.enum(['class', 'group', 'office', 'open', 'capture']);
export type SeriesKind = z.infer<typeof SeriesKind>;
export const isStanding = (kind: SeriesKind): boolean => kind === 'open' || kind === 'capture';
