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
  /** The number of the message that it answers. */
  reply?: number;
  /** It calls everybody. */
  call?: true;
  /** It was taken back: no word of it is here. */
  unsaid?: true;
  /** It is kept as a question. */
  kept?: 'later' | 'answered';
}

export interface TalkState {
  messages: readonly Message[];
  /** How many messages before these a late page was not given. */
  earlier: number;
  /** Which were taken back. */
  unsaid: readonly number[];
}
