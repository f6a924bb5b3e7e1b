import type { RoomState } from '@nimble-bell/core/room';

/** A room as it was at a moment of its recording, shown by each tool without a room's page around it. */
export interface ReplayProps {
  room: RoomState;
  /** The instant that it was. */
  at: number;
  zone: string;
  /** The session that it was. */
  session: string;
  nameOf: (member: string) => string;
  /** Where the pages are had that were shown. */
  pages: { path: string; query: string };
  /** Where the films are had that were watched together; null where they are not to be had. */
  films: { path: string; query: string } | null;
  /** The recording as it runs: its instant now, whether it plays, and how fast. */
  clock: { now: () => number; plays: () => boolean; pace: () => number };
}
