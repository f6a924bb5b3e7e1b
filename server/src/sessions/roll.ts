import { isFor, targetOf } from '@nimble-bell/core/roster';
import { judged, rollOf, rollRules, type RollLine, type RollPerson } from '@nimble-bell/core/roll';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { layeredSessionsOf, sessionById, type LayeredSession, type SessionRow } from '../courses/store';
import type { Db } from '../db/pool';
import { eventsOf } from '../room/store';
import { heldWithoutRoll, replaceRoll, rollLinesWhere, seatedIn, spansOf } from './store';

/** Everyone a session's roll names: those it is for, and whoever was there and has left the course since. */
export async function rollPeople(
  db: Db,
  session: SessionRow,
  events: readonly StoredEvent[],
): Promise<RollPerson[]> {
  const people: RollPerson[] = (await seatedIn(db, session.courseId))
    .filter((m) => isFor(targetOf(session), m))
    .map((m) => ({ member: m.id, name: m.name, role: m.role }));
  const known = new Set(people.map((p) => p.member));
  for (const e of events)
    if (e.type === 'entered' && !known.has(e.member)) {
      known.add(e.member);
      people.push({ member: e.member, name: e.name, role: e.role });
    }
  return people;
}

/** Writes a session's roll from what happened in its room; with its end, in one transaction. */
export async function writeRoll(db: Db, id: string, events: readonly StoredEvent[]) {
  const session = await sessionById(db, id);
  if (!session) return;
  const until = events.at(-1)?.at ?? session.endsAt;
  const lines = rollOf(
    events,
    await rollPeople(db, session, events),
    session,
    until,
    rollRules(session.layers),
  );
  if (lines.length === 0) return;
  await replaceRoll(db, id, lines);
}

/** The roll of a session that was held. */
export const rollLines = async (db: Db, session: string): Promise<RollLine[]> =>
  (await rollLinesWhere(db, 'l.session_id = ?', [session])).map((l) => l.line);

/** A session's roll as it is now: as it was written once it was held, and before that as it goes. */
export async function rollNow(ctx: Context, session: LayeredSession): Promise<RollLine[]> {
  if (session.state === 'held') return rollLines(ctx.db, session.id);
  const events = await eventsOf(ctx.db, session.id);
  const people = await rollPeople(ctx.db, session, events);
  return rollOf(events, people, session, ctx.now(), rollRules(session.layers));
}

/** One member's own lines, by session. */
export const rollLinesOf = async (db: Db, member: string, sessions: readonly string[]) =>
  new Map(
    (sessions.length
      ? await rollLinesWhere(db, 'l.member_id = ? AND l.session_id IN (?)', [member, sessions])
      : []
    ).map((l) => [l.session, l.line]),
  );

/** Writes the rolls of sessions that were held before rolls were written. */
export async function writeMissingRolls(db: Db): Promise<number> {
  const held = await heldWithoutRoll(db);
  for (const session of held) await writeRoll(db, session, await eventsOf(db, session));
  return held.length;
}

/** Judges the rolls of a course anew, by the rules as they are now: when somebody was there stays as it was written. */
export async function judgeAnew(db: Db, course: string): Promise<void> {
  const held = (await layeredSessionsOf(db, course)).filter((s) => s.state === 'held');
  const spans = await spansOf(
    db,
    held.map((s) => s.id),
  );
  for (const session of held) {
    const span = spans.get(session.id);
    const lines = (await rollLines(db, session.id)).map((line) => {
      if (!line.stays.length) return line;
      const due = {
        from: Math.max(span?.from ?? session.startsAt, session.startsAt),
        until: Math.min(span?.until ?? session.endsAt, session.endsAt),
      };
      return { ...line, ...judged(line.stays, due, rollRules(session.layers)) };
    });
    if (lines.length) await replaceRoll(db, session.id, lines);
  }
}
