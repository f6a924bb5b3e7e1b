import { Router, type Request } from 'express';
import { RosterText, type MemberInfo } from '@nimble-bell/core/api';
import { readRoster } from '@nimble-bell/core/roster';
import { principalOf, requireRight, type Right } from '../accounts/principal';
import type { Context } from '../context';
import { courseById } from '../courses/store';
import { transaction, type Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { addressesIn, enrol, membersOf } from './store';

export function rosterRoutes(ctx: Context): Router {
  const router = Router();
  const asked = async (req: Request, right: Right) =>
    requireRight(ctx, await principalOf(ctx, req.headers), req.params.course as string, right);

  const preview = async (db: Db, course: string, text: string) => {
    const { term } = (await courseById(db, course))!;
    return readRoster(text, await addressesIn(db, course), term.zone);
  };

  router.get('/courses/:course/members', async (req, res) => {
    const { courseId } = await asked(req, 'teach');
    const found = await membersOf(ctx.db, courseId);
    const members: MemberInfo[] = found.map(({ code, jobState, ...m }) => ({
      ...m,
      link: `/in/${code}`,
      invitation:
        jobState === 'done' ? 'sent' : jobState === 'failed' ? 'failed' : jobState ? 'queued' : 'none',
    }));
    res.json(members);
  });

  /** What an import would do. Nothing is written. */
  router.post('/courses/:course/members/preview', async (req, res) => {
    const { courseId } = await asked(req, 'plan');
    res.json(await preview(ctx.db, courseId, parse(RosterText, req.body).text));
  });

  /** The import itself: the new people of the same text, all or none. Bad rows stay out. */
  router.post('/courses/:course/members/import', async (req, res) => {
    const { courseId } = await asked(req, 'plan');
    const { text } = parse(RosterText, req.body);
    const added = await transaction(ctx.db, async (db) => {
      const { fresh, fault } = await preview(db, courseId, text);
      if (fault) throw new AppError('invalid', fault);
      for (const row of fresh) await enrol(db, courseId, row, 'student');
      return fresh.length;
    });
    res.status(201).json({ added });
  });
  return router;
}
