import { randomFrom, shuffle } from '../shuffle';
import { inventedName, NAMES } from './names';

/** How many a rehearsal can have. */
export const MOST_STAND_INS = 300;

/** What a stand-in is like: how often they do something of a kind, from 0 to 1. */
export interface Temper {
  talks: number;
  asks: number;
  signs: number;
  /** Writes what one would rather not read. */
  rude: number;
  /** Does what is closed. */
  tries: number;
  /** Loses the connection. */
  drops: number;
}

/** One of a made-up class. */
export interface StandIn {
  name: string;
  role: 'student' | 'guest';
  group: string | null;
  /** They have a microphone and a camera, and show themselves where they may. */
  seen: boolean;
  /** When they come, after the rehearsal's beginning, ms. */
  comesAt: number;
  temper: Temper;
}

/** So many of a class have devices: real sound and pictures cost the page on which they are made. */
export const SEEN = 3;
/** Most are here soon, some are late; the last is a guest, who knocks where guests do. */
const SOON_MS = 15_000;
const LATE_MS = 150_000;

/**
 * A class of so many, by lot: the same seed gives the same one. Groups take turns; every class of five has somebody
 * who talks, one who is rude, one who tries what is closed and one whose line is weak.
 */
export function standInClass(seed: number, size: number, groups: readonly string[] = []): StandIn[] {
  const random = randomFrom(seed);
  const kinds = shuffle(
    Array.from({ length: size }, (_, i) => i % 5),
    random,
  );
  return kinds.map((kind, i) => ({
    // From the end of the names: those of the demo's classes are from the beginning.
    name: inventedName(NAMES - 1 - (i % NAMES)),
    role: i > 0 && i === size - 1 ? 'guest' : 'student',
    group: groups.length ? groups[i % groups.length]! : null,
    seen: i < SEEN,
    comesAt: Math.round(
      i < SEEN || i === size - 1 || random() < 0.8 ? random() * SOON_MS : SOON_MS + random() * LATE_MS,
    ),
    temper: {
      talks: kind === 0 ? 0.8 : random() * 0.3,
      asks: random() * 0.6,
      signs: random() * 0.6,
      rude: kind === 1 ? 0.6 : 0,
      tries: kind === 2 ? 0.7 : 0,
      drops: i < SEEN ? 0 : kind === 3 ? 0.7 : 0.05,
    },
  }));
}
