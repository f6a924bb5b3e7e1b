import { PlanEdit } from '@nimble-bell/core/api';
import type { Fix } from '@nimble-bell/core/readiness';
import type { Context } from '../context';
import { courseById, sessionsOfCourse } from '../courses/store';
import { takeTurn } from '../courses/turn';
import { setCourseRules } from '../courses/settings';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { inviteNew } from '../mail/queue';
import { changePlan } from './change';
import { applyEdit } from './edit';
import { checkCourse } from './setup';
import type { MemberRow } from '../accounts/store';

/** Does the fix of a finding, worked out anew: a finding that is not there any more fixes nothing. */
export async function fixFinding(
  ctx: Context,
  { courseId, id: member, name: by }: Pick<MemberRow, 'courseId' | 'id' | 'name'>,
  id: string,
): Promise<string> {
  const course = (await courseById(ctx.db, courseId))!;
  const { findings } = await checkCourse(ctx, course, await sessionsOfCourse(ctx.db, courseId));
  const finding = findings.find((f) => f.id === id);
  if (!finding?.fix) throw new AppError('finding-gone');
  await doFix(ctx, courseId, member, by, finding.fix.fix);
  return finding.fix.label;
}

async function doFix(ctx: Context, courseId: string, member: string, by: string, fix: Fix) {
  const course = (await courseById(ctx.db, courseId))!;
  const now = ctx.now();
  switch (fix.do) {
    case 'edit': {
      const edit = PlanEdit.parse(fix.edit);
      await transaction(ctx.db, async (db) => {
        const { term } = await takeTurn(db, courseId);
        const at = { db, courseId, term, now };
        return changePlan(db, {
          courseId,
          term,
          by,
          now,
          tellAt: now + ctx.config.gatherMs,
          make: () => applyEdit(at, edit),
        });
      });
      return;
    }
    case 'limits': {
      const limits = { [fix.capability]: fix.permission };
      await transaction(ctx.db, (db) => setCourseRules(db, courseId, { limits }, member, now));
      return;
    }
    case 'door':
      await transaction(ctx.db, (db) => setCourseRules(db, courseId, { door: fix.rules }, member, now));
      return;
    case 'recording':
      if (!course.recordingPlan) throw new AppError('finding-gone');
      await transaction(ctx.db, (db) => setCourseRules(db, courseId, { recording: fix.plan }, member, now));
      return;
    case 'invite':
      await transaction(ctx.db, async (db) => {
        await takeTurn(db, courseId);
        return inviteNew(db, courseId, now);
      });
      return;
    case 'go':
      return;
  }
}
