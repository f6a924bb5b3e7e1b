import type { Place } from '@nimble-bell/core/room';

/** What somebody says, written down. */
export interface Heard {
  /** Whose sound it is, by their id at the relay. */
  publisher: string;
  text: string;
  /** The line is whole; otherwise it is what there is of it by now. */
  whole: boolean;
}

/** What listens to one class. */
export interface Listener {
  /** Somebody begins to be heard at the relay, or is not heard any more, and where in the room. */
  voice(publisher: string, place: Place, heard: boolean): void;
  /** They have gone elsewhere: what they have begun to say is told to nobody. */
  gone(publisher: string): void;
  close(): void;
}

/** A program or service that writes down what is said. */
export interface Captioner {
  /** What whoever teaches reads of it before they let it listen. */
  readonly about: string;
  listen(session: string, told: (heard: Heard) => void): Listener;
}
