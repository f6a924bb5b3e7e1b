import { Router, type Request } from 'express';
import { z } from 'zod';
import { CollegeRulesInput, ExceptionInput, RulesInput, SheetInput } from '@nimble-bell/core/api';
import { asked, personIdOf, principalOf } from '../accounts/principal';
import { membersWhere } from '../accounts/store';
import { newId, type Context } from '../context';
import { takeTurn } from '../courses/turn';
import { isDuplicate } from '../db/pool';
import { AppError, parse } from '../errors';
import { baseOf, stillOn } from '../history/base';
import { once } from '../requests/once';
import { letInAlways } from '../roster/store';
import { collegeRules, rulesDetail } from './detail';
import { setRules, undoRules } from './rules';
import { spreadSheet, usesOf } from './sheets';
import {
  COLLEGE,
  coursesUsing,
  deleteSheet,
  endException,
  insertException,
  insertSheet,
  memberRole,
  placesOf,
  sheetForUpdate,
  writeSheet,
} from './store';

const UndoInput = z.object({ change: z.string().min(1).max(20) });

/** What students may do: rules by place, rule sheets, exceptions. */
export function rulesRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses/:course/rules', async (req, res) => {
    res.json(await rulesDetail(ctx, await asked(ctx, req, 'teach')));
  });

  router.put('/courses/:course/rules', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const input = parse(RulesInput, req.body);
    if (input.at.layer === 'session' && input.recording?.automatic !== undefined)
      throw new AppError('invalid', 'Whether one session is recorded is said in the plan.');
    const change = await once(ctx, req, async (db) => {
      const course = await takeTurn(db, member.courseId);
      await stillOn(db, 'rule_changes', course, baseOf(req));
      return { change: await setRules(db, course, member, input, ctx.now()) };
    });
    res.json(change);
  });

  router.post('/courses/:course/rules/undo', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { change } = parse(UndoInput, req.body);
    await once(ctx, req, async (db) => {
      const course = await takeTurn(db, member.courseId);
      return { change: await undoRules(db, course, member, change, ctx.now()) };
    });
    res.json({});
  });

  /** Whoever was always let in knocks again like others. */
  router.delete('/courses/:course/always/:member', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const [whose] = await membersWhere(ctx.db, 'm.course_id = ? AND m.id = ?', [courseId, req.params.member]);
    if (!whose?.alwaysIn) throw new AppError('not-found', 'This person knocks like others.');
    await letInAlways(ctx.db, [whose.id], false);
    res.json({});
  });

  collegeRoutes(router, ctx);
  exceptionRoutes(router, ctx);
  sheetRoutes(router, ctx);
  return router;
}

function exceptionRoutes(router: Router, ctx: Context) {
  /** One person may, or may not. Another teacher needs no exception, nobody else's class has one. */
  router.post('/courses/:course/exceptions', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const input = parse(ExceptionInput, req.body);
    const now = ctx.now();
    if (input.until !== null && input.until <= now)
      throw new AppError('invalid', 'This is over already.', [
        { path: 'until', message: 'This is over already.' },
      ]);
    const made = await once(ctx, req, async (db) => {
      await takeTurn(db, member.courseId);
      const whose = await memberRole(db, member.courseId, input.member);
      if (!whose) throw new AppError('not-found', 'This person is not on the class list.');
      if (whose.role !== 'student' && whose.role !== 'guest')
        throw new AppError('invalid', 'Exceptions are for students and guests.');
      const id = newId();
      await insertException(db, member.courseId, { id, by: member.id, at: now, ...input });
      return { id };
    });
    res.status(201).json(made);
  });

  router.post('/courses/:course/exceptions/:id/end', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    await once(ctx, req, async (db) => {
      if (!(await endException(db, member.courseId, req.params.id, ctx.now())))
        throw new AppError('not-found', 'This exception is over already.');
      return {};
    });
    res.json({});
  });
}

async function staff(ctx: Context, req: Request) {
  const principal = await principalOf(ctx, req.headers);
  if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
  return { id: personIdOf(principal), name: principal.person.name };
}

/** What the college says: its staff's, as its terms are. */
function collegeRoutes(router: Router, ctx: Context) {
  /** The college's name stands by what it says, in rooms and ladders; who set it stands in its history. */
  const setter = async (req: Request) => {
    const { id: personId, name } = await staff(ctx, req);
    return { id: null, personId, name };
  };
  const college = { id: COLLEGE, term: { zone: 'UTC' } };

  router.get('/college/rules', async (req, res) => {
    await staff(ctx, req);
    res.json(await collegeRules(ctx));
  });

  router.put('/college/rules', async (req, res) => {
    const by = await setter(req);
    const input = parse(CollegeRulesInput, req.body);
    const change = await once(ctx, req, async (db) => {
      await placesOf(db, COLLEGE, 'college', []);
      await stillOn(db, 'rule_changes', college, baseOf(req));
      return { change: await setRules(db, college, by, { at: { layer: 'college' }, ...input }, ctx.now()) };
    });
    res.json(change);
  });

  router.post('/college/rules/undo', async (req, res) => {
    const by = await setter(req);
    const { change } = parse(UndoInput, req.body);
    await once(ctx, req, async (db) => {
      await placesOf(db, COLLEGE, 'college', []);
      return { change: await undoRules(db, college, by, change, ctx.now()) };
    });
    res.json({});
  });
}

/** Sheets belong to whoever made them. */
function sheetRoutes(router: Router, ctx: Context) {
  const owner = (req: Request) => staff(ctx, req);
  const ofName = <T>(work: Promise<T>) =>
    work.catch((error: unknown) => {
      if (!isDuplicate(error)) throw error;
      const message = 'You have a sheet with this name.';
      throw new AppError('name-taken', message, [{ path: 'name', message }]);
    });

  router.post('/rule-sheets', async (req, res) => {
    const person = await owner(req);
    const input = parse(SheetInput, req.body);
    const made = await ofName(
      once(ctx, req, async (db) => {
        const id = newId();
        await insertSheet(db, { id, ...input }, person.id, ctx.now());
        return { id };
      }),
    );
    res.status(201).json(made);
  });

  router.get('/rule-sheets/:id/uses', async (req, res) => {
    const person = await owner(req);
    const sheet = await sheetForUpdate(ctx.db, req.params.id, person.id);
    if (!sheet) throw new AppError('not-found');
    res.json(await usesOf(ctx.db, sheet));
  });

  router.put('/rule-sheets/:id', async (req, res) => {
    const person = await owner(req);
    const input = parse(SheetInput, req.body);
    await ofName(
      once(ctx, req, async (db) => {
        const sheet = await sheetForUpdate(db, req.params.id, person.id);
        if (!sheet) throw new AppError('not-found');
        const at = ctx.now();
        await writeSheet(db, { ...input, id: sheet.id }, at);
        await spreadSheet(db, sheet, input, { person: person.id, by: person.name, at });
        return {};
      }),
    );
    res.json({});
  });

  router.delete('/rule-sheets/:id', async (req, res) => {
    const person = await owner(req);
    await once(ctx, req, async (db) => {
      if (!(await sheetForUpdate(db, req.params.id, person.id))) throw new AppError('not-found');
      if ((await coursesUsing(db, req.params.id)).length)
        throw new AppError('in-use', 'Courses go by this sheet: take it away there first.');
      await deleteSheet(db, req.params.id);
      return {};
    });
    res.json({});
  });
}
