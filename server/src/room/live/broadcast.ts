import type { Server } from 'socket.io';
import type { ClientMessages, ServerMessages } from '@nimble-bell/core/api';
import {
  audienceOf,
  seers,
  toldTo,
  veiledOf,
  type Audience,
  type Place,
  type RoomState,
  type StoredEvent,
} from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
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

interface Run {
  targets: string[];
  /** Who of them is told otherwise. */
  but: string[];
  events: StoredEvent[];
}

/** To whom an event goes: where a name in it is not for all, those who may not know it have it without. */
function told(
  session: string,
  state: RoomState,
  event: StoredEvent,
): { targets: string[]; but: string[]; event: StoredEvent }[] {
  const targets = targetsOf(session, audienceOf(event, state));
  const staff = [channels.staff(session)];
  const toStaff = toldTo(event, true, state);
  const toOthers = toldTo(event, false, state);
  if (toStaff !== toOthers)
    return [
      { targets: staff, but: [], event: toStaff },
      { targets: targets.filter((t) => !staff.includes(t)), but: staff, event: toOthers },
    ];
  const veiled = veiledOf(event, state);
  const knowing = veiled && seers(state, 'seeNames');
  if (!veiled || !knowing || !('member' in event)) return [{ targets, but: [], event }];
  const member = event.member as string;
  if (teaches(state.presence.people[member]?.role ?? 'student')) return [{ targets, but: [], event }];
  const own = [channels.staff(session), ...[...knowing, member].map((m) => channels.member(session, m))];
  return [
    { targets: own, but: [], event },
    { targets, but: own, event: veiled },
  ];
}

/** Runs of events for the same people, in order: each run is one broadcast. */
export function runsOf(session: string, state: RoomState, events: readonly StoredEvent[]): Run[] {
  const runs: Run[] = [];
  for (const { targets, but, event } of events.flatMap((e) => told(session, state, e))) {
    const last = runs.at(-1);
    if (last?.targets.join() === targets.join() && last.but.join() === but.join()) last.events.push(event);
    else runs.push({ targets, but, events: [event] });
  }
  return runs;
}

/** Sends stored events to those who may have them. */
export function tell(io: LiveServer, room: Room, events: readonly StoredEvent[]) {
  // To nobody is to nobody: without a target a broadcast would be to all.
  for (const run of runsOf(room.session, room.state, events).filter((r) => r.targets.length))
    io.to(run.targets).except(run.but).emit('events', run.events);
}

/** What there is of a line of captions by now, to those who are where it is said; lost if it is lost. */
export function tellCaptioning(io: LiveServer, session: string, place: Place, member: string, text: string) {
  const signal = { what: 'captioning' as const, text, member };
  io.to(channels.place(session, place)).volatile.emit('signal', signal);
}
