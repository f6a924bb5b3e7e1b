import type { Came, DoorRules, Way } from '../../door/index';
import type { Role } from '../../roster/role';
import type { Back } from './schema';

/** Somebody who waits at the door; since when, an instant. */
export interface Knock {
  member: string;
  name: string;
  role: Role;
  came?: Came;
  way?: Way;
  at: number;
}

/** Somebody who was put out, or not let in. */
export interface Out {
  back: Back;
  by: string;
  at: number;
  /** Only those who teach know it. */
  reason: string;
}

/** Instants, ms; null while somebody is there. */
export interface DoorState {
  rules: DoorRules;
  /** Since when nobody who teaches is in the live room. */
  unattendedSince: number | null;
  /** Since when nobody at all is in it. */
  emptySince: number | null;
  locked: { by: string; at: number } | null;
  /** Who waits at the door, the longest first. */
  knocks: readonly Knock[];
  /** Who was let in in this session, and comes straight in from then on. */
  admitted: readonly string[];
  out: Readonly<Record<string, Out>>;
  /** What those who wait were told last. */
  word: string | null;
}
