import type { CourseDetail, Role } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { one } from '../db/pool';
import { AppError } from '../errors';
import { courseById, seriesOf, sessionsOfCourse } from './store';
import { stagesOf } from './stages';

/** All that the planning pages show of a course, in one answer. */
export async function courseDetail(ctx: Context, id: string, role: Role): Promise<CourseDetail> {
  const course = await courseById(ctx.db, id);
  if (!course) throw new AppError('not-found');
  const [series, sessions, counts] = await Promise.all([
    seriesOf(ctx.db, id),
    sessionsOfCourse(ctx.db, id),
    one<{ students: number; invited: number; recordings: number }>(
      ctx.db,
      `SELECT (SELECT COUNT(*) FROM members WHERE course_id = ? AND role = 'student') AS students,
              (SELECT COUNT(DISTINCT j.member_id) FROM jobs j JOIN members m ON m.id = j.member_id
                WHERE j.course_id = ? AND j.kind = 'mail' AND m.role = 'student') AS invited,
              (SELECT COUNT(*) FROM recordings r JOIN sessions s ON s.id = r.session_id
                WHERE s.course_id = ? AND r.state = 'ready') AS recordings`,
      [id, id, id],
    ),
  ]);
  const detail = {
    id,
    code: course.code,
    title: course.title,
    role,
    term: course.term,
    series: series.map(({ id: seriesId, title, pattern, group }) => ({
      id: seriesId,
      title,
      pattern,
      group,
    })),
    sessions,
    limits: course.limits,
    limitsSet: course.limitsBy ? { by: course.limitsBy, at: course.limitsAt! } : null,
    door: course.door,
    recordingPlan: course.recordingPlan,
    counts: counts!,
  };
  return { ...detail, stages: stagesOf(detail, ctx.now()) };
}
