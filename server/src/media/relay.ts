import type { TrackKind } from '@nimble-bell/core/limits';

export { TRACK_KINDS, type TrackKind } from '@nimble-bell/core/limits';

/** Where a publisher's or viewer's media section belongs. */
export interface StreamPlace {
  /** Media section id of the viewer's connection. */
  mid: string;
  /** Whose: a publisher's id at the relay, a member's to a page. */
  member: string;
  kind: TrackKind;
}

/** One publishing of one publisher, told apart from the one before by its number. */
export interface Publication {
  publisher: string;
  number: number;
}

/** A publication, and what of it is received; `small`: a small picture of the camera does. */
export type Watched = Publication & { kinds: readonly TrackKind[]; small: boolean };

/** Files that a publisher's tracks are written to. */
export interface Reel {
  base: string;
  /** Whether what is seen is written too. */
  pictures: boolean;
}

export interface ViewerOffer {
  sdp: string;
  streams: StreamPlace[];
}

/**
 * A WebRTC relay as the room needs it. Nothing a publisher sends goes on before `moderate` opens its track: a new
 * publisher's tracks are all closed. What is asked and answered without an error is so at the relay; what fails is not
 * known to be so.
 */
export interface MediaRelay {
  readonly available: boolean;
  /** Called with every change of `available`. After a loss all rooms and connections are gone. */
  onChange(listener: (available: boolean) => void): void;
  openRoom(room: string): Promise<void>;
  closeRoom(room: string): Promise<void>;
  /**
   * Takes a publisher's whole offer, whose sections are these kinds in order, gives the whole answer; `up` is when the
   * connection stands, and the publisher can be watched. An earlier connection of the same publisher ends. One that
   * fails leaves nothing behind.
   */
  publish(
    room: string,
    publisher: string,
    kinds: readonly TrackKind[],
    sdp: string,
  ): Promise<{ answer: string; up: Promise<void> }>;
  /** Takes a publisher out by its id, whichever connection it has. */
  unpublish(room: string, publisher: string): Promise<void>;
  moderate(room: string, publisher: string, kind: TrackKind, open: boolean): Promise<void>;
  /**
   * Sets whom a viewer receives; gives a new offer, or null where nothing is new. `viewer` is a connection's id.
   */
  watch(room: string, viewer: string, publications: readonly Watched[]): Promise<ViewerOffer | null>;
  answer(viewer: string, sdp: string): Promise<void>;
  unwatch(viewer: string): Promise<void>;
  /** Writes a publisher's tracks, or only its sound, to files that begin with `base`, or stops doing so. */
  record(room: string, publisher: string, reel: Reel | null): Promise<void>;
  /** Called when somebody begins to be heard in a room, or is not heard any more, as far as the relay takes their sound. */
  onVoice(listener: (room: string, publisher: string, heard: boolean) => void): void;
  /** Passes a publisher's sound on to a port of this machine (RTP, Opus) for as long as it is open; gives what ends it. */
  pass(room: string, publisher: string, port: number): Promise<() => Promise<void>>;
  /** Opens a caller's own line: one mixed track to them. Takes their whole offer, gives the whole answer. */
  openLine(line: string, sdp: string): Promise<string>;
  /** Sets whose sound of a room is mixed into a line. */
  mix(line: string, room: string, publications: readonly Publication[]): Promise<void>;
  /** Plays a file (Ogg Opus) into a line, in the place of the one before; resolves when it has been heard or replaced. */
  play(line: string, file: string): Promise<void>;
  closeLine(line: string): Promise<void>;
  stop(): Promise<void>;
}

/** A relay that is never there: the room runs without sound and picture. */
export const noRelay: MediaRelay = {
  available: false,
  onChange: () => {},
  openRoom: async () => {},
  closeRoom: async () => {},
  publish: async () => {
    throw new Error('There is no relay.');
  },
  unpublish: async () => {},
  moderate: async () => {},
  watch: async () => null,
  answer: async () => {},
  unwatch: async () => {},
  record: async () => {},
  onVoice: () => {},
  openLine: async () => {
    throw new Error('There is no relay.');
  },
  pass: async () => async () => {},
  mix: async () => {},
  play: async () => {},
  closeLine: async () => {},
  stop: async () => {},
};
