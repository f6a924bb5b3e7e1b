import { PlanEdit } from '@nimble-bell/core/api';
import type { Fix } from '@nimble-bell/core/readiness';
import type { Context } from '../context';
import { courseById, sessionsOfCourse } from '../courses/store';
import { run, transaction } from '../db/pool';
import { AppError } from '../errors';
import { inviteNew } from '../mail/queue';
import { changePlan } from './change';
import { applyEdit } from './edit';
import { checkCourse } from './setup';

/** Does the fix of a finding, worked out anew: a finding that is not there any more fixes nothing. */
export async function fixFinding(ctx: Context, courseId: string, by: string, id: string): Promise<string> {
  const course = (await courseById(ctx.db, courseId))!;
  const { findings } = await checkCourse(ctx, course, await sessionsOfCourse(ctx.db, courseId));
  const finding = findings.find((f) => f.id === id);
  if (!finding?.fix) throw new AppError('finding-gone');
  await doFix(ctx, courseId, by, finding.fix.fix);
  return finding.fix.label;
}

async function doFix(ctx: Context, courseId: string, by: string, fix: Fix) {
  const course = (await courseById(ctx.db, courseId))!;
  const now = ctx.now();
  switch (fix.do) {
    case 'edit': {
      const edit = PlanEdit.parse(fix.edit);
      await transaction(ctx.db, (db) => {
        const at = { db, courseId, term: course.term, now };
        return changePlan(db, {
          courseId,
          term: course.term,
          by,
          now,
          tellAt: now + ctx.config.gatherMs,
          make: () => applyEdit(at, edit),
        });
      });
      return;
    }
    case 'limits': {
      const limits = { ...course.limits, [fix.capability]: fix.permission };
      await run(ctx.db, 'UPDATE courses SET limits = ?, limits_by = ?, limits_at = ? WHERE id = ?', [
        JSON.stringify(limits),
        by,
        now,
        courseId,
      ]);
      return;
    }
    case 'door':
      await run(ctx.db, 'UPDATE courses SET door = ? WHERE id = ?', [
        JSON.stringify({ ...course.door, ...fix.rules }),
        courseId,
      ]);
      return;
    case 'recording':
      if (!course.recordingPlan) throw new AppError('finding-gone');
      await run(ctx.db, 'UPDATE courses SET recording_plan = ? WHERE id = ?', [
        JSON.stringify({ ...course.recordingPlan, ...fix.plan }),
        courseId,
      ]);
      return;
    case 'invite':
      await transaction(ctx.db, (db) => inviteNew(db, courseId, now));
      return;
    case 'go':
      return;
  }
}
