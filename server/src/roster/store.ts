import type { MemberInfo, Role } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import type { RosterRow } from '@nimble-bell/core/roster';
import { newId, newLinkCode } from '../context';
import { one, rows, run, type Db } from '../db/pool';
import { addMember } from '../courses/store';

export const membersOf = (db: Db, course: string) =>
  rows<Omit<MemberInfo, 'link' | 'invitation'> & { code: string; jobState: string | null }>(
    db,
    `SELECT m.id, p.name, p.email, p.zone, m.role, m.group_name AS \`group\`, m.link_code AS code,
            (SELECT j.state FROM jobs j WHERE j.member_id = m.id AND j.kind = 'mail' ORDER BY j.id DESC LIMIT 1) AS jobState
       FROM members m JOIN people p ON p.id = m.person_id
      WHERE m.course_id = ? ORDER BY FIELD(m.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), p.name`,
    [course],
  );

export async function addressesIn(db: Db, course: string): Promise<Set<string>> {
  const found = await rows<{ email: string }>(
    db,
    'SELECT p.email FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ?',
    [course],
  );
  return new Set(found.map((row) => row.email));
}

/** Puts a person on a class list, and into the college's people where the address is new. */
export async function enrol(
  db: Db,
  courseId: string,
  row: Omit<RosterRow, 'line'>,
  role: Role,
): Promise<string> {
  const known = await one<{ id: string }>(db, 'SELECT id FROM people WHERE email = ?', [row.email]);
  const personId = known?.id ?? newId();
  if (!known)
    await run(db, 'INSERT INTO people (id, name, email, zone) VALUES (?, ?, ?, ?)', [
      personId,
      row.name,
      row.email,
      row.zone,
    ]);
  const id = newId();
  await addMember(db, { id, courseId, personId, role, group: row.group, link: newLinkCode() });
  return id;
}

/** Whether a session or series is for this member: published, and for the whole course or the member's group. */
export const isFor = (
  session: { group: string | null; published: boolean },
  member: { group: string | null; role: Role },
): boolean =>
  teaches(member.role) ||
  (session.published &&
    (session.group === null || member.role !== 'student' || session.group === member.group));
