import type { CourseDetail, Role } from '@nimble-bell/core/api';
import type { Context } from '../context';
import type { Settings, SetValue } from '@nimble-bell/core/settings';
import { AppError } from '../errors';
import { checkCourse } from '../planning/setup';
import { bellTimesOf } from '../terms/store';
import { bare, countsOf, courseById, seriesOf, sessionsOfCourse, standingOf, teachersOf } from './store';
import { stagesOf } from './stages';
import { nameOfMember } from '../accounts/store';

/** All that the planning pages show of a course, in one answer. */
export async function courseDetail(ctx: Context, id: string, role: Role): Promise<CourseDetail> {
  const course = await courseById(ctx.db, id);
  if (!course) throw new AppError('not-found');
  const [series, sessions, standing, bellTimes, teachers, counts] = await Promise.all([
    seriesOf(ctx.db, id),
    sessionsOfCourse(ctx.db, id),
    standingOf(ctx.db, id),
    bellTimesOf(ctx.db),
    teachersOf(ctx.db, id),
    countsOf(ctx.db, id),
  ]);
  const checked = await checkCourse(ctx, course, sessions, series);
  const detail = {
    id,
    code: course.code,
    title: course.title,
    role,
    term: course.term,
    termId: course.termId,
    series: series.map(({ sequence, courseId, ...info }) => info),
    sessions: sessions.map(bare),
    standing: standing.map(bare),
    bellTimes,
    teachers,
    youngPupils: course.youngPupils,
    limits: course.limits,
    limitsSet: await limitsSetIn(ctx, course.settings),
    door: course.door,
    recordingPlan: course.recordingPlan,
    counts,
    archivedAt: course.archivedAt,
    reminders: course.reminders,
    inviteBefore: course.inviteBefore,
    telephone: course.telephone,
    invitation: course.invitation,
    ...checked,
  };
  return { ...detail, stages: stagesOf(detail, ctx.now()) };
}

/** Who set the course's limits last, and when; null where they are the college's own. */
async function limitsSetIn(ctx: Context, { limits }: Settings): Promise<CourseDetail['limitsSet']> {
  const last = Object.values(limits).reduce<SetValue<unknown> | null>(
    (latest, v) => (latest && (latest.at ?? 0) >= (v.at ?? 0) ? latest : v),
    null,
  );
  if (!last) return null;
  const who = last.by && (await nameOfMember(ctx.db, last.by));
  return { by: who || 'somebody', at: last.at ?? 0 };
}
