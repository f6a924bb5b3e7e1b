import type { StoredEvent } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { THOUGHTS } from './scenario';
import { layParts, layThoughts } from './store';

/** A number below `most` that is the same each time it is asked. */
const some = (seed: number, most: number) => ((seed * 2_654_435_761) >>> 0) % most;

/** Who was heard in a class of the demo, for how long; and what they thought of it. */
export async function layAfter(
  db: Db,
  session: string,
  events: readonly StoredEvent[],
  index: number,
): Promise<void> {
  const here = events.flatMap((e) => (e.type === 'entered' && e.role === 'student' ? [e.member] : []));
  const parts = here.flatMap((member, i) => {
    const seed = index * 101 + i;
    // A few speak long, some now and then, most seldom.
    const ms = i % 7 === 0 ? 60_000 + some(seed, 180_000) : some(seed, 4) === 0 ? some(seed, 40_000) : 0;
    return ms ? [{ session, member, ms, hands: 1 + some(seed, 3) }] : [];
  });
  if (parts.length) await layParts(db, parts);
  const said = here.filter((_, i) => some(index * 37 + i, 3) === 0);
  const thoughts = said.map((_, i) => ({
    session,
    stars: Math.min(5, 3 + some(index * 11 + i, 4) - (index % 9 === 4 ? 1 : 0)),
    words: some(index + i, 4) === 0 ? THOUGHTS[some(index * 5 + i, THOUGHTS.length)]! : '',
  }));
  if (thoughts.length) await layThoughts(db, thoughts);
}
