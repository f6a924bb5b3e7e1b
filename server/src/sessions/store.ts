import type { MemberScope, Role } from '@nimble-bell/core/api';
import { noSettings, Settings, type Layer } from '@nimble-bell/core/settings';
import { json, one, rows, run, type Db } from '../db/pool';

export const beginSession = (db: Db, session: string) =>
  run(db, "UPDATE sessions SET state = 'live' WHERE id = ?", [session]);

/**
 * A session is over. A room without dates that was dismissed is kept with the time it took, and stands ready again under
 * the next take, whose id is given.
 */
export async function endSession(db: Db, session: string, next: string) {
  await run(db, "UPDATE sessions SET state = 'held' WHERE id = ?", [session]);
  const row = await one<{ kind: string; from: number; until: number }>(
    db,
    `SELECT r.kind, (SELECT MIN(at) FROM room_events WHERE session_id = s.id) AS \`from\`,
            (SELECT MAX(at) FROM room_events WHERE session_id = s.id) AS until
       FROM sessions s JOIN series r ON r.id = s.series_id WHERE s.id = ?`,
    [session],
  );
  if (row?.kind !== 'open' && row?.kind !== 'capture') return;
  await run(
    db,
    `INSERT INTO sessions (id, series_id, course_id, local_date, take, number, starts_at, ends_at, linger_minutes, settings)
     SELECT ?, series_id, course_id, local_date, take + 1, number + 1, starts_at, ends_at, linger_minutes, settings
       FROM sessions WHERE id = ?`,
    [next, session],
  );
  await run(db, 'UPDATE sessions SET starts_at = ?, ends_at = ? WHERE id = ?', [
    row.from,
    row.until,
    session,
  ]);
}

/** A stored `settings` column. */
export function readSettings(value: unknown): Settings {
  return value === '{}' ? noSettings() : Settings.parse(json(value));
}

interface RawLayers {
  course: unknown;
  series: unknown;
  session: unknown;
  record: number | null;
}

/** What holds for a session before its class: the settings of its course, its series and itself. `record` is the session's own word on being recorded. */
export function layersFrom({ course, series, session, record }: RawLayers): Layer[] {
  const own = readSettings(session);
  if (record !== null)
    own.recording = { ...own.recording, automatic: { value: Boolean(record), by: null, at: null } };
  return [
    { name: 'course', settings: readSettings(course) },
    { name: 'series', settings: readSettings(series) },
    { name: 'session', settings: own },
  ];
}

/** Somebody on a course's list, as a room's seats show them. */
export interface Seated {
  id: string;
  name: string;
  role: Role;
  group: string | null;
  scope: MemberScope | null;
}

export const seatedIn = async (db: Db, course: string): Promise<Seated[]> =>
  (
    await rows<Omit<Seated, 'scope'> & { scope: unknown }>(
      db,
      `SELECT m.id, m.called AS name, m.role, m.group_name AS \`group\`, m.scope
         FROM members m WHERE m.course_id = ?
        ORDER BY FIELD(m.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), m.name`,
      [course],
    )
  ).map((m) => ({ ...m, scope: m.scope === null ? null : json<MemberScope>(m.scope) }));
