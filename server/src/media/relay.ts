import type { TrackKind } from '@nimble-bell/core/limits';

export { TRACK_KINDS, type TrackKind } from '@nimble-bell/core/limits';

/** Where a publisher's or viewer's media section belongs. */
export interface StreamPlace {
  /** Media section id of the viewer's connection. */
  mid: string;
  member: string;
  kind: TrackKind;
}

export interface Publication {
  member: string;
  number: number;
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
   * Takes a publisher's whole offer, gives the whole answer; `up` is when the connection stands, and the member can be
   * watched. An earlier connection of the member ends. One that fails leaves nothing behind.
   */
  publish(room: string, member: string, sdp: string): Promise<{ answer: string; up: Promise<void> }>;
  /** Takes a member's publisher out by the member's id, whichever connection it has. */
  unpublish(room: string, member: string): Promise<void>;
  moderate(room: string, member: string, kind: TrackKind, open: boolean): Promise<void>;
  /**
   * Sets whom a viewer receives; gives a new offer, or null where nothing is new. `viewer` is a connection's id;
   * a publication is one publishing of a member, told apart from the one before by its number.
   */
  watch(room: string, viewer: string, publications: readonly Publication[]): Promise<ViewerOffer | null>;
  answer(viewer: string, sdp: string): Promise<void>;
  unwatch(viewer: string): Promise<void>;
  /** Writes a publisher's tracks to files that begin with `base`, or stops doing so. */
  record(room: string, member: string, base: string | null): Promise<void>;
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
  stop: async () => {},
};
