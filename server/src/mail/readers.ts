import type { CalendarCopy } from '@nimble-bell/core/calendar';
import { membersWhere, type MemberRow } from '../accounts/principal';
import { json, rows, type Db } from '../db/pool';

/** Whom a letter is for, and what their calendar holds by the letters they had. */
export interface Reader {
  member: MemberRow;
  held: Map<string, CalendarCopy>;
}

/** Readers by member id; those who left the list too, who are written to once more. */
export async function readersOf(
  db: Db,
  ids: readonly string[],
  { lock = false } = {},
): Promise<Map<string, Reader>> {
  const readers = new Map<string, Reader>();
  if (!ids.length) return readers;
  const [on, gone, copies] = await Promise.all([
    membersWhere(db, 'm.id IN (?)', [ids]),
    rows<MemberRow>(
      db,
      `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`,
              COALESCE(m.own_name, p.name) AS name, p.email, COALESCE(m.own_zone, p.zone) AS zone,
              m.link_code AS link, m.pin FROM enrolments m JOIN people p ON p.id = m.person_id
        WHERE m.id IN (?) AND m.left_at IS NOT NULL`,
      [ids],
    ),
    rows<{ member: string; key: string; body: unknown }>(
      db,
      `SELECT member_id AS member, entry_key AS \`key\`, body FROM calendar_copies WHERE member_id IN (?)${lock ? ' FOR UPDATE' : ''}`,
      [ids],
    ),
  ]);
  for (const member of on) readers.set(member.id, { member, held: new Map() });
  for (const m of gone)
    readers.set(m.id, {
      member: {
        ...m,
        scope: { series: [], sessions: [] },
        capabilities: [],
        linkUntil: null,
        hasAccount: false,
      },
      held: new Map(),
    });
  for (const { member, key, body } of copies) readers.get(member)?.held.set(key, json(body));
  return readers;
}
