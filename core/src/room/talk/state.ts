import type { Place } from '../kernel/schema';
import type { Addressee } from './schema';

export interface Message {
  seq: number;
  at: number;
  from: string;
  addressee: Addressee;
  text: string;
  place: Place;
  /** The file that goes with it. */
  file?: string;
}

export interface TalkState {
  messages: readonly Message[];
  /** How many messages before these a late page was not given. */
  earlier: number;
}
