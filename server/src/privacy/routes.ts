import { Router, type Request, type Response } from 'express';
import { strToU8, zipSync } from 'fflate';
import { principalOf, requireRight } from '../accounts/principal';
import type { Context } from '../context';
import { takeTurn } from '../courses/turn';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { dataOf, everOnList, forget } from './store';

/** What a course holds of a person: to take along, and to have forgotten. */
export function privacyRoutes(ctx: Context): Router {
  const router = Router();

  const about = async (req: Request) => {
    const me = await requireRight(
      ctx,
      await principalOf(ctx, req.headers),
      req.params.course as string,
      'plan',
    );
    const person = await everOnList(ctx.db, req.params.member as string, me.courseId);
    if (!person) throw new AppError('not-found', 'There is no such person on the class list.');
    return { me, person };
  };

  router.get('/courses/:course/members/:member/data', async (req, res) => {
    const { person } = await about(req);
    await send(res, person.id, person.name);
  });

  /** The same for oneself, by one's own link. */
  router.get('/my-course/data', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'link') throw new AppError('forbidden');
    await send(res, principal.member.id, principal.member.name);
  });

  const send = async (res: Response, member: string, name: string) => {
    const files = await dataOf(ctx.db, member);
    const zip = zipSync(
      Object.fromEntries(
        Object.entries(files).map(([file, value]) => [file, strToU8(JSON.stringify(value, null, 2))]),
      ),
    );
    res.attachment(`${name}.zip`).type('application/zip').send(Buffer.from(zip));
  };

  /** Forgets a person in this course: name, address, letters and answers go; the roll stays, of somebody without a name. */
  router.delete('/courses/:course/members/:member/data', async (req, res) => {
    const { me, person } = await about(req);
    if (person.account)
      throw new AppError('in-use', 'Somebody with an account is not forgotten from a class list.');
    await transaction(ctx.db, async (db) => {
      await takeTurn(db, me.courseId);
      await forget(db, person.id, me, ctx.now());
    });
    res.json({});
  });
  return router;
}
