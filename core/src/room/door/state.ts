import type { DoorRules } from '../../door/index';

/** Instants, ms; null while somebody is there. */
export interface DoorState {
  rules: DoorRules;
  /** Since when nobody who teaches is in the live room. */
  unattendedSince: number | null;
  /** Since when nobody at all is in it. */
  emptySince: number | null;
}
