import type { Instant } from '../calendar/zone';

/** What a class takes until anything of its course was recorded, kilobits a second: sound, one camera, a screen now and then. */
export const USUAL_KILOBITS = 1000;

export interface Ahead {
  at: Instant;
  minutes: number;
}

export interface SpaceForecast {
  /** Bytes that are taken once each of the sessions ahead is recorded, in their order. */
  points: { at: Instant; bytes: number }[];
  bytes: number;
  /** When the space that is free ends; null where it is enough. */
  endsAt: Instant | null;
}

/** How much a minute takes, by what was recorded; null where nothing was. */
export const bytesAMinute = (recorded: readonly { lengthMs: number; bytes: number }[]): number | null => {
  const minutes = recorded.reduce((sum, r) => sum + r.lengthMs, 0) / 60_000;
  return minutes > 0 ? recorded.reduce((sum, r) => sum + r.bytes, 0) / minutes : null;
};

/** What the sessions ahead take of the space that is free, at so many bytes a minute. */
export function spaceAhead(ahead: readonly Ahead[], perMinute: number | null, free: number): SpaceForecast {
  const rate = perMinute ?? USUAL_KILOBITS * 125 * 60;
  let bytes = 0;
  let endsAt: Instant | null = null;
  const points = [...ahead]
    .sort((a, b) => a.at - b.at)
    .map(({ at, minutes }) => {
      bytes += minutes * rate;
      if (bytes > free) endsAt ??= at;
      return { at, bytes };
    });
  return { points, bytes, endsAt };
}
