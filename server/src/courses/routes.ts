import { Router } from 'express';
import {
  LimitsInput,
  NewCourse,
  RecordingPlan,
  SeriesInput,
  type CourseCard,
  type SessionState,
} from '@nimble-bell/core/api';
import { sessionsOf } from '@nimble-bell/core/calendar';
import { COLLEGE_DOOR } from '@nimble-bell/core/door';
import { COLLEGE_LIMITS } from '@nimble-bell/core/limits';
import { personIdOf, principalOf, requireRight, type Right } from '../accounts/principal';
import { newId, newLinkCode, type Context } from '../context';
import { one, run, transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { courseDetail } from './detail';
import { addMember, courseById, coursesOf, insertCourse, insertSeries, laySessions } from './store';
import type { Request } from 'express';

export function courseRoutes(ctx: Context): Router {
  const router = Router();
  const asked = async (req: Request, right: Right, courseId = req.params.course as string) =>
    requireRight(ctx, await principalOf(ctx, req.headers), courseId, right);

  router.get('/courses', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account') throw new AppError('forbidden');
    const found = await coursesOf(ctx.db, personIdOf(principal), ctx.now());
    const cards: CourseCard[] = found.map(({ nextId, nextAt, nextState, ...card }) => ({
      ...card,
      next: nextId ? { id: nextId, startsAt: nextAt!, state: nextState as SessionState } : null,
    }));
    res.json(cards);
  });

  router.post('/courses', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
    const input = parse(NewCourse, req.body);
    const term = await one<{ id: string }>(ctx.db, 'SELECT id FROM terms LIMIT 1');
    if (!term) throw new AppError('not-found', 'The college has no term yet.');
    const id = await transaction(ctx.db, async (db) => {
      const taken = await one(db, 'SELECT id FROM courses WHERE term_id = ? AND code = ?', [
        term.id,
        input.code,
      ]);
      if (taken)
        throw new AppError('code-taken', undefined, [{ path: 'code', message: 'This code is taken.' }]);
      const course = await insertCourse(db, {
        ...input,
        termId: term.id,
        limits: COLLEGE_LIMITS,
        door: COLLEGE_DOOR,
      });
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
    const member = await asked(req, 'teach');
    res.json(await courseDetail(ctx, member.courseId, member.role));
  });

  router.post('/courses/:course/series', async (req, res) => {
    const { courseId } = await asked(req, 'plan');
    const input = parse(SeriesInput, req.body);
    const { term } = (await courseById(ctx.db, courseId))!;
    if (sessionsOf(term, input.pattern).sessions.length === 0) throw new AppError('no-sessions');
    const id = await transaction(ctx.db, async (db) => {
      const series = await insertSeries(db, { courseId, ...input, group: null });
      await laySessions(db, { id: series, courseId, pattern: input.pattern }, term);
      return series;
    });
    res.status(201).json({ id });
  });

  router.put('/series/:series', async (req, res) => {
    const series = await one<{ courseId: string }>(
      ctx.db,
      'SELECT course_id AS courseId FROM series WHERE id = ?',
      [req.params.series],
    );
    const principal = await principalOf(ctx, req.headers);
    if (!series) throw new AppError('not-found');
    await requireRight(ctx, principal, series.courseId, 'plan');
    const input = parse(SeriesInput, req.body);
    const { term } = (await courseById(ctx.db, series.courseId))!;
    if (sessionsOf(term, input.pattern).sessions.length === 0) throw new AppError('no-sessions');
    await transaction(ctx.db, async (db) => {
      const live = await one(db, "SELECT id FROM sessions WHERE series_id = ? AND state = 'live'", [
        req.params.series,
      ]);
      if (live) throw new AppError('class-running');
      await run(db, 'UPDATE series SET title = ?, pattern = ?, sequence = sequence + 1 WHERE id = ?', [
        input.title,
        JSON.stringify(input.pattern),
        req.params.series,
      ]);
      await laySessions(
        db,
        { id: req.params.series, courseId: series.courseId, pattern: input.pattern },
        term,
      );
    });
    res.json({});
  });

  router.put('/courses/:course/limits', async (req, res) => {
    const member = await asked(req, 'plan');
    const { limits } = parse(LimitsInput, req.body);
    await run(ctx.db, 'UPDATE courses SET limits = ?, limits_by = ?, limits_at = ? WHERE id = ?', [
      JSON.stringify(limits),
      member.name,
      ctx.now(),
      member.courseId,
    ]);
    res.json({});
  });

  router.put('/courses/:course/recording-plan', async (req, res) => {
    const { courseId } = await asked(req, 'plan');
    const plan = parse(RecordingPlan, req.body);
    await run(ctx.db, 'UPDATE courses SET recording_plan = ? WHERE id = ?', [JSON.stringify(plan), courseId]);
    res.json({});
  });
  return router;
}
