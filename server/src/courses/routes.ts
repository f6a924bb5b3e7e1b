import { DoorInput } from '@nimble-bell/core/door';
import { Router } from 'express';
import {
  CourseSettings,
  LimitsInput,
  NewCourse,
  RecordingPlan,
  type CourseCard,
} from '@nimble-bell/core/api';
import { dateIn } from '@nimble-bell/core/calendar';
import { asked, personIdOf, principalOf } from '../accounts/principal';
import { newId, newLinkCode, type Context } from '../context';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { setRules } from '../rules/rules';
import { termsOf } from '../terms/store';
import { courseDetail } from './detail';
import { takeTurn } from './turn';
import { setCourseRules } from './settings';
import { addMember, courseByCode, coursesOf, insertCourse, nameCourse, pulseOf } from './store';

/** The term that is named; or the one that runs, or begins next, or was last. */
const termFor = async (ctx: Context, id: string | undefined) => {
  const terms = await termsOf(ctx.db);
  const ahead = terms.find((t) => t.lastDay >= dateIn(t.zone, ctx.now()));
  const term = id ? terms.find((t) => t.id === id) : (ahead ?? terms.at(-1));
  if (!term) throw new AppError('not-found', 'The college has no such term yet. Make one first.');
  return term;
};

export function courseRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account') throw new AppError('forbidden');
    const cards: CourseCard[] = await coursesOf(ctx.db, personIdOf(principal), ctx.now());
    res.json(cards);
  });

  router.post('/courses', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
    const input = parse(NewCourse, req.body);
    const term = await termFor(ctx, input.term);
    const id = await once(ctx, req, async (db) => {
      const taken = await courseByCode(db, term.id, input.code);
      if (taken)
        throw new AppError('code-taken', undefined, [{ path: 'code', message: 'This code is taken.' }]);
      const course = await insertCourse(db, { ...input, termId: term.id });
      await addMember(db, {
        id: newId(),
        courseId: course,
        personId: principal.person.id,
        role: 'teacher',
        group: null,
        link: newLinkCode(),
      });
      return course;
    });
    res.status(201).json({ id });
  });

  router.get('/courses/:course', async (req, res) => {
    const member = await asked(ctx, req, 'teach');
    res.json(await courseDetail(ctx, member.courseId, member.role));
  });

  /** Whether anything of it changed, asked often by the pages that show it. */
  router.get('/courses/:course/pulse', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    res.json(await pulseOf(ctx.db, courseId));
  });

  ruleRoutes(router, ctx);
  return router;
}

/** What a course says of itself and of its sessions. */
function ruleRoutes(router: Router, ctx: Context) {
  router.put('/courses/:course/limits', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { limits } = parse(LimitsInput, req.body);
    await transaction(ctx.db, async (db) => {
      const course = await takeTurn(db, member.courseId);
      await setRules(db, course, member, { at: { layer: 'course' }, limits }, ctx.now());
    });
    res.json({});
  });

  router.put('/courses/:course/door', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const door = parse(DoorInput, req.body);
    await transaction(ctx.db, async (db) => {
      const course = await takeTurn(db, member.courseId);
      await setRules(db, course, member, { at: { layer: 'course' }, door }, ctx.now());
    });
    res.json({});
  });

  /** What the course says of itself: its title, and whether its pupils are young. */
  router.put('/courses/:course/settings', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const { title, youngPupils } = parse(CourseSettings, req.body);
    await nameCourse(ctx.db, title, youngPupils, courseId);
    res.json({});
  });

  router.put('/courses/:course/recording-plan', async (req, res) => {
    const { courseId, id } = await asked(ctx, req, 'plan');
    const recording = parse(RecordingPlan, req.body);
    await transaction(ctx.db, (db) => setCourseRules(db, courseId, { recording }, id, ctx.now()));
    res.json({});
  });
}
