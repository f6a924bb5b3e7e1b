import type { RoomInfo, SeatPerson } from '@nimble-bell/core/api';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import type { Context } from '../../context';
import { bare, courseById, sessionById, type LayeredSession } from '../../courses/store';
import { AppError } from '../../errors';
import { seatedIn } from '../../sessions/store';

/** What everyone who enters a room is told of it alike, and what decides about its door. */
export interface RoomFacts {
  row: LayeredSession;
  session: RoomInfo['session'];
  course: RoomInfo['course'];
  zone: string;
  rehearsal?: true;
  people: SeatPerson[];
}

async function readFacts(ctx: Context, id: string): Promise<RoomFacts> {
  const row = await sessionById(ctx.db, id);
  if (!row) throw new AppError('not-found');
  const [course, seated] = await Promise.all([
    courseById(ctx.db, row.courseId),
    seatedIn(ctx.db, row.courseId),
  ]);
  return {
    row,
    session: bare(row),
    course: { id: course!.id, code: course!.code, title: course!.title },
    zone: course!.term.zone,
    ...(course!.rehearsal ? { rehearsal: true as const } : {}),
    people: seated
      .filter((m) => isFor(targetOf(row), m))
      .map((m) => ({ member: m.id, name: m.name, role: m.role, group: m.group })),
  };
}

/** A class comes in within seconds: what is the same for all of them is read this often, ms. Who they are, for each. */
const FRESH_MS = 500;

/** Reads what is the same for all who enter, once for those who come together. */
export class Facts {
  readonly #known = new Map<string, { at: number; facts: Promise<RoomFacts> }>();
  constructor(readonly ctx: Context) {}

  of(session: string): Promise<RoomFacts> {
    const now = performance.now();
    for (const [id, { at }] of this.#known) if (now - at > FRESH_MS) this.#known.delete(id);
    let known = this.#known.get(session);
    if (!known) {
      known = { at: now, facts: readFacts(this.ctx, session) };
      known.facts.catch(() => this.#known.delete(session));
      this.#known.set(session, known);
    }
    return known.facts;
  }

  /** Something was changed: what was read is read anew. */
  forget() {
    this.#known.clear();
  }
}
