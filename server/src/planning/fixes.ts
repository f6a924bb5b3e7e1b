import { PlanEdit, type RulesInput } from '@nimble-bell/core/api';
import type { Fix } from '@nimble-bell/core/readiness';
import type { Context } from '../context';
import { courseById, sessionsOfCourse } from '../courses/store';
import { takeTurn } from '../courses/turn';
import { setCourseRules } from '../courses/settings';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { setRules } from '../rules/rules';
import { inviteNew } from '../mail/queue';
import { changePlan } from './change';
import { applyEdit } from './edit';
import { checkCourse } from './setup';
import type { MemberRow } from '../accounts/store';

/** Does the fix of a finding, worked out anew: a finding that is not there any more fixes nothing. */
export async function fixFinding(ctx: Context, member: MemberRow, id: string): Promise<string> {
  const { courseId } = member;
  const course = (await courseById(ctx.db, courseId))!;
  const { findings } = await checkCourse(ctx, course, await sessionsOfCourse(ctx.db, courseId));
  const finding = findings.find((f) => f.id === id);
  if (!finding?.fix) throw new AppError('finding-gone');
  await doFix(ctx, member, finding.fix.fix);
  return finding.fix.label;
}

async function doFix(ctx: Context, member: MemberRow, fix: Fix) {
  const { courseId, id, name: by } = member;
  const course = (await courseById(ctx.db, courseId))!;
  const now = ctx.now();
  const rule = (input: RulesInput) =>
    transaction(ctx.db, async (db) => setRules(db, await takeTurn(db, courseId), member, input, now));
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
      await rule({ at: { layer: 'course' }, limits });
      return;
    }
    case 'rules':
      await rule(fix.input);
      return;
    case 'door':
      await transaction(ctx.db, (db) => setCourseRules(db, courseId, { door: fix.rules }, id, now));
      return;
    case 'recording':
      if (!course.recordingPlan) throw new AppError('finding-gone');
      await transaction(ctx.db, (db) => setCourseRules(db, courseId, { recording: fix.plan }, id, now));
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
