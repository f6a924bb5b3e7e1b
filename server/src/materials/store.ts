import type { MaterialInfo } from '@nimble-bell/core/api';
import type { MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { rows, type Db } from '../db/pool';
import { ticketFor } from '../recordings/ticket';
import { isFor, targetOf } from '@nimble-bell/core/roster';

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
}

export const MATERIAL = `SELECT id, course_id AS courseId, session_id AS sessionId, name, url, hash, type, bytes, made_by AS \`by\`, at
                           FROM materials WHERE removed_at IS NULL`;

/** The files and links of a course that are for this member, each file with an address that is good for some hours. */
export async function materialsFor(ctx: Context, db: Db, member: MemberRow): Promise<MaterialInfo[]> {
  const [found, sessions] = await Promise.all([
    rows<MaterialRow>(db, `${MATERIAL} AND course_id = ? ORDER BY at`, [member.courseId]),
    sessionsOfCourse(db, member.courseId),
  ]);
  const own = new Set(sessions.filter((s) => isFor(targetOf(s), member)).map((s) => s.id));
  return found
    .filter((m) => (m.sessionId ? own.has(m.sessionId) : !member.scope))
    .map((m) => infoOf(ctx, m, member));
}

export function infoOf(ctx: Context, m: MaterialRow, member: Pick<MemberRow, 'id' | 'link'>): MaterialInfo {
  const { courseId, hash, url, ...info } = m;
  return {
    ...info,
    kind: url ? 'link' : 'file',
    url: url ?? `/api/materials/${m.id}/file?ticket=${ticketFor(ctx, m.id, member)}`,
  };
}
