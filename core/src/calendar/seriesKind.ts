/**
 * What a series is for. `open` is a room without dates that stands open all term; `capture` a lecture recorded with
 * nobody else there. Both have no pattern.
 */
export const SERIES_KINDS = ['class', 'group', 'office', 'open', 'capture'] as const;
export type SeriesKind = (typeof SERIES_KINDS)[number];

export const isStanding = (kind: SeriesKind): boolean => kind === 'open' || kind === 'capture';
