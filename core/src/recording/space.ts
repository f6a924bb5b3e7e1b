import type { Instant } from '../calendar/zone';

/** What is written of a class that is being recorded, by the room there is: sound before picture. */
export const KEPT = ['all', 'sound', 'nothing'] as const;
export type Kept = (typeof KEPT)[number];

/** Bytes that must be free for pictures, and for sound: everything else needs the disk too. */
const NEEDED = { all: 1e9, sound: 200e6, nothing: 0 };
/** What was given up comes back where there is so much more: it does not go to and fro. */
const EASE = 1.5;

/** What is written from now on, with so many bytes free. */
export const keptWith = (free: number, now: Kept): Kept =>
  KEPT.find((kept) => free >= NEEDED[kept] * (KEPT.indexOf(kept) < KEPT.indexOf(now) ? EASE : 1)) ??
  'nothing';

/** What a class takes until anything of its course was recorded, kilobits a second: sound, one camera, a screen now and then. */
export const USUAL_KILOBITS = 1000;

export interface Ahead {
  at: Instant;
  minutes: number;
}

interface Recordable {
  startsAt: Instant;
  minutes: number;
  state: string;
  /** What its plan says of it alone. */
  record: boolean | null;
}

/** Of a course's sessions those that are still to be recorded; `automatic` where they say nothing themselves. */
export const toRecord = (sessions: readonly Recordable[], automatic: boolean, now: Instant): Ahead[] =>
  sessions
    .filter((s) => s.startsAt > now && s.state !== 'cancelled' && (s.record ?? automatic))
    .map((s) => ({ at: s.startsAt, minutes: s.minutes }));

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
