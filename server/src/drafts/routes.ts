import { Router, type Request } from 'express';
import { z } from 'zod';
import { principalOf } from '../accounts/principal';
import type { Context } from '../context';
import { json } from '../db/pool';
import { AppError, parse } from '../errors';
import { draftOf, dropDraft, keepDraft } from './store';

const Key = z.string().regex(/^[\w/-]{1,80}$/, 'This is no key of a draft.');
const Draft = z.object({ body: z.record(z.string(), z.unknown()) });

/** What somebody was typing, kept until it is saved or thrown away: on any machine it is there again. */
export function draftRoutes(ctx: Context): Router {
  const router = Router();
  const whose = async (req: Request) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'account') throw new AppError('forbidden');
    return [principal.person.id, parse(Key, req.query.key)] as const;
  };

  router.get('/drafts', async (req, res) => {
    const [person, key] = await whose(req);
    const row = await draftOf(ctx.db, person, key);
    res.json({ draft: row ? { body: json(row.body), at: row.at } : null });
  });

  router.put('/drafts', async (req, res) => {
    const [person, key] = await whose(req);
    const { body } = parse(Draft, req.body);
    await keepDraft(ctx.db, person, key, body, ctx.now());
    res.json({});
  });

  router.delete('/drafts', async (req, res) => {
    const [person, key] = await whose(req);
    await dropDraft(ctx.db, person, key);
    res.json({});
  });
  return router;
}
