import { Router, type Request } from 'express';
import { z } from 'zod';
import type { RehearsalInfo } from '@nimble-bell/core/api';
import { ALOUD, MOST_STAND_INS, PROMPTS, SEEN } from '@nimble-bell/core/rehearsal';
import type { Context } from '../context';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { taught } from '../sessions/taught';
import { beginRehearsal } from './begin';
import type { Rehearsals } from './keeper';
import { linksOf, noteOver, rehearsalIn } from './store';
import { voiceOf } from './voices';

const Begin = z.object({
  size: z
    .int()
    .min(1, 'A class has somebody in it.')
    .max(MOST_STAND_INS, `At most ${MOST_STAND_INS} stand-ins.`),
});
const Prompted = z.object({ what: z.enum(PROMPTS) });

/** What the keeper of rehearsals is asked. */
export type Rehearsing = Pick<Rehearsals, 'says' | 'tried' | 'prompt'>;

/** Trying a session with a made-up class. */
export function rehearsalRoutes(ctx: Context, keeper: Rehearsing): Router {
  const router = Router();
  /** The rehearsal whose room it is, to whoever teaches there: that is who began it. */
  const own = async (req: Request) => {
    const { session } = await taught(ctx, req);
    const rehearsal = await rehearsalIn(ctx.db, session.id);
    if (!rehearsal || rehearsal.over) throw new AppError('not-found', 'This is no rehearsal.');
    return rehearsal;
  };

  /** Begins one: answers with the session whose room it is. One that the same person began before is thrown away. */
  router.post('/sessions/:id/rehearsal', async (req, res) => {
    const { session, me } = await taught(ctx, req);
    const { size } = parse(Begin, req.body);
    if (await rehearsalIn(ctx.db, session.id)) throw new AppError('invalid', 'This is a rehearsal already.');
    res
      .status(201)
      .json(await once(ctx, req, (db) => beginRehearsal(db, { session, me, size, now: ctx.now() })));
  });

  /** How it goes, and what was not tried yet. */
  router.get('/sessions/:id/rehearsal', async (req, res) => {
    const { session, course, of, ofCourse, size } = await own(req);
    const [tried, links] = await Promise.all([keeper.tried(session), linksOf(ctx.db, course)]);
    const info: RehearsalInfo = {
      of,
      course: ofCourse,
      size,
      refused: keeper.says(session)?.refused ?? null,
      tried,
      lent: [...links].flatMap(([nr, link]) => (nr < SEEN ? [link] : [])),
    };
    res.json(info);
  });

  /** What one says aloud who is lent a microphone (WAVE). */
  router.get('/sessions/:id/rehearsal/voices/:nr', async (req, res) => {
    await own(req);
    const nr = Number(req.params.nr);
    if (!(nr in ALOUD)) throw new AppError('not-found');
    const file = await voiceOf(ctx, nr).catch((error: unknown) => {
      ctx.log.warn({ why: String(error) }, 'no voice for a stand-in');
      throw new AppError('not-ready', 'There is no voice for a stand-in.');
    });
    res.sendFile(file, { dotfiles: 'allow', headers: { 'Cache-Control': 'private, max-age=3600' } });
  });

  /** Lets something happen in the made-up class. */
  router.post('/sessions/:id/rehearsal/prompt', async (req, res) => {
    const { session } = await own(req);
    const { what } = parse(Prompted, req.body);
    if (!keeper.prompt(session, what))
      throw new AppError('not-ready', 'The class is not here yet. Try again in a moment.');
    res.json({});
  });

  /** Throws it away with all that is in it. */
  router.delete('/sessions/:id/rehearsal', async (req, res) => {
    const { session } = await own(req);
    await noteOver(ctx.db, session);
    res.json({});
  });
  return router;
}
