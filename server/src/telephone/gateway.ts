import type { TelephoneKey } from '@nimble-bell/core/telephone';

/** Takes a gateway's whole offer of one sound track, gives the relay's whole answer. */
export type AnswerTo = (offer: string) => Promise<string>;

/** One call as a telephone gateway brings it, until either side hangs up. */
export interface IncomingCall {
  readonly id: string;
  /** The number that was dialled. */
  readonly dialled: string;
  /** The caller's number; null where it is withheld. */
  readonly caller: string | null;
  onKey(listener: (key: TelephoneKey) => void): void;
  /** The caller has hung up, or is lost. */
  onEnd(listener: () => void): void;
  /** Sets up what the caller hears: one track. */
  hears(answer: AnswerTo): Promise<void>;
  /** Sets up what the caller says: one track. */
  says(answer: AnswerTo): Promise<void>;
  /** What the line says now, for gateways that can show words. */
  spoken(words: string): void;
  /** Another server has the session's room: the gateway calls again, by way of it, and keys the PIN that was keyed. */
  again(session: string, pin: string): void;
  hangUp(): void;
}

/** A telephone gateway as Nimble Bell needs it. */
export interface TelephoneGateway {
  onCall(listener: (call: IncomingCall) => void): void;
}
