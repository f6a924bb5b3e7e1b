import type { Server } from 'socket.io';
import type { ClientMessages, ServerMessages } from '@nimble-bell/core/api';
import { audienceOf, type Audience, type RoomState, type StoredEvent } from '@nimble-bell/core/room';
import type { Room } from '../room';

/** Whom a broadcast reaches: everyone in a room, those in one of its places, those who teach, or one member. */
export const channels = {
  room: (session: string) => session,
  place: (session: string, place: string) => `${session}/at/${place}`,
  staff: (session: string) => `${session}/staff`,
  member: (session: string, member: string) => `${session}/of/${member}`,
};

export type LiveServer = Server<ClientMessages, ServerMessages>;

function targetsOf(session: string, audience: Audience): string[] {
  if (audience.to === 'everyone') return [channels.room(session)];
  const staff = channels.staff(session);
  if (audience.to === 'place') return [channels.place(session, audience.place), staff];
  return [staff, ...audience.members.map((m) => channels.member(session, m))];
}

/** Runs of events for the same people, in order: each run is one broadcast. */
export function runsOf(session: string, state: RoomState, events: readonly StoredEvent[]) {
  const runs: { targets: string[]; events: StoredEvent[] }[] = [];
  for (const event of events) {
    const targets = targetsOf(session, audienceOf(event, state));
    const last = runs.at(-1);
    if (last && last.targets.join() === targets.join()) last.events.push(event);
    else runs.push({ targets, events: [event] });
  }
  return runs;
}

/** Sends stored events to those who may have them. */
export function tell(io: LiveServer, room: Room, events: readonly StoredEvent[]) {
  for (const run of runsOf(room.session, room.state, events)) io.to(run.targets).emit('events', run.events);
}
