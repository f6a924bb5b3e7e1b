import { teaches, type Role } from '../roster/role';
import type { RoomEvent } from '../room/index';

/** What whoever teaches does in most lessons, in the order of a lesson, and by what it is seen that it was tried. */
const TRIES: readonly { id: string; words: string; done: readonly RoomEvent['type'][] }[] = [
  { id: 'ringIn', words: 'Ring in', done: ['rangIn'] },
  { id: 'door', words: 'Let somebody in who knocks', done: ['admitted'] },
  {
    id: 'show',
    words: 'Show slides, the board or your screen',
    done: ['slidesShown', 'drawn', 'presenting'],
  },
  { id: 'floor', words: 'Give somebody the floor', done: ['floorGiven'] },
  { id: 'ask', words: 'Ask the class a question', done: ['asked'] },
  { id: 'shown', words: 'Show what was answered', done: ['answersShown'] },
  { id: 'hush', words: 'Hush', done: ['hushed'] },
  { id: 'cue', words: 'Cue a segment of the run sheet', done: ['cued'] },
  { id: 'tables', words: 'Send the class to tables', done: ['tablesLaid'] },
  { id: 'back', words: 'Call everybody back', done: ['backSoon', 'tablesCleared'] },
  { id: 'dismiss', words: 'Dismiss', done: ['dismissed'] },
];

export interface Tried {
  id: string;
  words: string;
  done: boolean;
}

/**
 * What has been tried in a rehearsal, by its events. A run sheet's first segment comes with ring-in: only those after it
 * were cued by hand; without a run sheet there is nothing to cue.
 */
export function triedIn(
  events: readonly RoomEvent[],
  { roleOf, segments }: { roleOf: (member: string) => Role | null; segments: number },
): Tried[] {
  const by = (event: RoomEvent) => {
    const who = event.type === 'presenting' ? event.member : 'by' in event ? event.by : null;
    const role = who ? roleOf(who) : null;
    return role !== null && teaches(role);
  };
  const counts = (event: RoomEvent) => by(event) && (event.type !== 'cued' || event.index > 0);
  const done = new Set(events.filter(counts).map((e) => e.type));
  return TRIES.filter((t) => t.id !== 'cue' || segments > 1).map(({ id, words, done: types }) => ({
    id,
    words,
    done: types.some((type) => done.has(type)),
  }));
}
