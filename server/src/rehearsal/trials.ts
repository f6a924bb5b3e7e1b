import { triedIn, type Tried } from '@nimble-bell/core/rehearsal';
import { evolve, newRoom, type RoomState, type StoredEvent } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import type { Db } from '../db/pool';
import { eventRowsAfter } from '../room/store';

/** What was tried in each rehearsal: asked every few seconds, so that only what came since is read. */
export class Trials {
  readonly #known = new Map<string, { room: RoomState; done: StoredEvent[] }>();

  constructor(readonly db: Db) {}

  async of(session: string): Promise<Tried[]> {
    const known = this.#known.get(session) ?? { room: newRoom(), done: [] };
    this.#known.set(session, known);
    for (const { event } of await eventRowsAfter(this.db, session, known.room.seq)) {
      // Asked twice at once, it is read twice and taken once.
      if (event.seq <= known.room.seq) continue;
      known.room = evolve(known.room, event);
      if (isDone(event, known.room)) known.done.push(event);
    }
    const { presence, runSheet } = known.room;
    return triedIn(known.done, {
      roleOf: (member) => presence.people[member]?.role ?? null,
      segments: runSheet.segments.length,
    });
  }

  forget(session: string) {
    this.#known.delete(session);
  }
}

/** Of what happened only what those who teach did is kept: the made-up class does a hundred times as much. */
function isDone(event: StoredEvent, { presence }: RoomState): boolean {
  const who = 'by' in event ? event.by : 'member' in event ? event.member : null;
  return typeof who === 'string' && teaches(presence.people[who]?.role ?? 'student');
}
