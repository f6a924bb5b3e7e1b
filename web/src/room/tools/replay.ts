import type { RoomState } from '@nimble-bell/core/room';

/** A room as it was at a moment of its recording, shown by each tool without a room's page around it. */
export interface ReplayProps {
  room: RoomState;
  zone: string;
  nameOf: (member: string) => string;
}
