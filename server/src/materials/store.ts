import type { MaterialInfo } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { one, rows, run, type Db } from '../db/pool';
import { ticketFor } from '../recordings/ticket';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import type { MemberRow } from '../accounts/store';

export interface MaterialRow {
  id: string;
  courseId: string;
  sessionId: string | null;
  name: string;
  url: string | null;
  hash: string | null;
  type: string | null;
  bytes: number;
  by: string;
  at: number;
  forTeachers: boolean;
}

export const MATERIAL = `SELECT id, course_id AS courseId, session_id AS sessionId, name, url, hash, type, bytes, made_by AS \`by\`, at,
                          for_teachers AS forTeachers
                           FROM materials WHERE removed_at IS NULL`;

/** The files and links of a course that are for this member, each file with an address that is good for some hours. */
export async function materialsFor(ctx: Context, db: Db, member: MemberRow): Promise<MaterialInfo[]> {
  const [found, sessions] = await Promise.all([
    rows<MaterialRow>(db, `${MATERIAL} AND course_id = ? ORDER BY at`, [member.courseId]),
    sessionsOfCourse(db, member.courseId),
  ]);
  const own = new Set(sessions.filter((s) => isFor(targetOf(s), member)).map((s) => s.id));
  return found
    .filter((m) => isOpen(m, member) && (m.sessionId ? own.has(m.sessionId) : !member.scope))
    .map((m) => infoOf(ctx, m, member));
}

/** Whether somebody of this role has it at all: some are for those who teach alone. */
export const isOpen = (m: Pick<MaterialRow, 'forTeachers'>, { role }: Pick<MemberRow, 'role'>): boolean =>
  !m.forTeachers || teaches(role);

export function infoOf(ctx: Context, m: MaterialRow, member: Pick<MemberRow, 'id' | 'link'>): MaterialInfo {
  const { courseId, hash, url, forTeachers, ...info } = m;
  return {
    ...info,
    ...(forTeachers ? { forTeachers: true as const } : {}),
    kind: url ? 'link' : 'file',
    url: url ?? `/api/materials/${m.id}/file?ticket=${ticketFor(ctx, m.id, member)}`,
  };
}

export const insertMaterial = (db: Db, m: MaterialRow) =>
  run(
    db,
    'INSERT INTO materials (id, course_id, session_id, name, url, hash, type, bytes, made_by, at, for_teachers) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [m.id, m.courseId, m.sessionId, m.name, m.url, m.hash, m.type, m.bytes, m.by, m.at, m.forTeachers],
  );

/** Gives it to the students as well, or keeps it from them. */
export const keepForTeachers = (db: Db, id: string, forTeachers: boolean) =>
  run(db, 'UPDATE materials SET for_teachers = ? WHERE id = ?', [forTeachers, id]);

export const materialById = (db: Db, id: string) => one<MaterialRow>(db, `${MATERIAL} AND id = ?`, [id]);
export const removeMaterial = (db: Db, now: number, id: string) =>
  run(db, 'UPDATE materials SET removed_at = ? WHERE id = ?', [now, id]);
