import type { Role } from '@nimble-bell/core/api';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { rollOf, type RollLine, type RollPerson } from '@nimble-bell/core/roll';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { sessionById, type SessionRow } from '../courses/store';
import { json, rows, run, type Db } from '../db/pool';
import { eventsOf } from '../room/store';
import { seatedIn } from './store';

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
  const lines = rollOf(events, await rollPeople(db, session, events), session, until);
  if (lines.length === 0) return;
  await run(
    db,
    `REPLACE INTO roll_lines (session_id, member_id, role, arrived_at, left_at, minutes, late, left_early, stays) VALUES ?`,
    [
      lines.map((l) => [
        id,
        l.member,
        l.role,
        l.from,
        l.until,
        l.minutes,
        l.late,
        l.leftEarly,
        JSON.stringify(l.stays),
      ]),
    ],
  );
}

interface RawLine {
  session: string;
  member: string;
  name: string;
  role: Role;
  from: number | null;
  until: number | null;
  minutes: number;
  late: number;
  leftEarly: number;
  stays: unknown;
}

/** Roll lines as they were written, by a plain condition; everyone under the name they have now. */
async function linesWhere(db: Db, where: string, values: readonly (string | readonly string[])[]) {
  const found = await rows<RawLine>(
    db,
    `SELECT l.session_id AS session, l.member_id AS member, COALESCE(p.preferred_name, m.own_name, p.name, 'Somebody') AS name, l.role,
            l.arrived_at AS \`from\`, l.left_at AS until, l.minutes, l.late, l.left_early AS leftEarly, l.stays
       FROM roll_lines l LEFT JOIN enrolments m ON m.id = l.member_id LEFT JOIN people p ON p.id = m.person_id
      WHERE ${where} ORDER BY FIELD(l.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), name`,
    values,
  );
  return found.map(({ session, late, leftEarly, stays, ...line }) => ({
    session,
    line: {
      ...line,
      state: line.from === null ? 'absent' : 'present',
      late: Boolean(late),
      leftEarly: Boolean(leftEarly),
      stays: json<RollLine['stays']>(stays),
    } satisfies RollLine,
  }));
}

/** The roll of a session that was held. */
export const rollLines = async (db: Db, session: string): Promise<RollLine[]> =>
  (await linesWhere(db, 'l.session_id = ?', [session])).map((l) => l.line);

/** A session's roll as it is now: as it was written once it was held, and before that as it goes. */
export async function rollNow(ctx: Context, session: SessionRow): Promise<RollLine[]> {
  if (session.state === 'held') return rollLines(ctx.db, session.id);
  const events = await eventsOf(ctx.db, session.id);
  return rollOf(events, await rollPeople(ctx.db, session, events), session, ctx.now());
}

/** One member's own lines, by session. */
export const rollLinesOf = async (db: Db, member: string, sessions: readonly string[]) =>
  new Map(
    (sessions.length
      ? await linesWhere(db, 'l.member_id = ? AND l.session_id IN (?)', [member, sessions])
      : []
    ).map((l) => [l.session, l.line]),
  );

/** Sessions that were held before rolls were written down. */
export const heldWithoutRoll = async (db: Db): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      `SELECT s.id FROM sessions s WHERE s.state = 'held' AND NOT EXISTS (SELECT 1 FROM roll_lines l WHERE l.session_id = s.id)
          AND EXISTS (SELECT 1 FROM room_events e WHERE e.session_id = s.id)`,
    )
  ).map((row) => row.id);

/** Writes the rolls of sessions that were held before rolls were written. */
export async function writeMissingRolls(db: Db): Promise<number> {
  const held = await heldWithoutRoll(db);
  for (const session of held) await writeRoll(db, session, await eventsOf(db, session));
  return held.length;
}
