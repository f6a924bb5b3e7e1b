import { createHash, createHmac } from 'node:crypto';
import { Router, type Request } from 'express';
import { CorrectionInput, type RollBookInfo } from '@nimble-bell/core/api';
import { markOf, rollRules, slippingWords, type BookCell, type RollBook } from '@nimble-bell/core/roll';
import { logOf } from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { asked, principalOf, requireRight, type Right } from '../accounts/principal';
import type { Context } from '../context';
import { layeredSessionsOf, sessionById, type LayeredSession } from '../courses/store';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { secretOf } from '../secret';
import { eventsOf } from '../room/store';
import { correctRoll, rollLinesWhere, rollMarks, seatedIn } from './store';

/** The roll and the log of sessions, and the roll of the whole term. */
export function rollRoutes(ctx: Context): Router {
  const router = Router();
  const taught = async (req: Request, right: Right) => {
    const session = await sessionById(ctx.db, req.params.id as string);
    if (!session) throw new AppError('not-found');
    const me = await requireRight(ctx, await principalOf(ctx, req.headers), session.courseId, right);
    if (!isFor(targetOf(session), me)) throw new AppError('forbidden');
    return { session, me };
  };

  router.get('/courses/:course/roll-book', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    const sessions = (await layeredSessionsOf(ctx.db, me.courseId)).filter((s) => isFor(targetOf(s), me));
    res.json(await rollBook(ctx, me.courseId, sessions));
  });

  /** What the rules make of somebody stays beside what is said in their place. */
  router.put('/sessions/:id/roll/:member', async (req, res) => {
    const { me } = await taught(req, 'teach');
    const { mark, reason } = parse(CorrectionInput, req.body);
    await once(ctx, req, async (db) => {
      const session = (await sessionById(db, req.params.id))!;
      if (session.state !== 'held')
        throw new AppError('not-live', 'The roll is written when the class is over.');
      const { member } = req.params;
      const [line] = await rollLinesWhere(db, 'l.session_id = ? AND l.member_id = ?', [session.id, member]);
      if (!line) throw new AppError('not-found', 'This person is not on the roll.');
      const said = mark && { mark, reason, by: me.name, at: ctx.now() };
      await correctRoll(db, { session: session.id, member }, said);
      return {};
    });
    res.json({});
  });

  /** The log as it can be handed on: each line is chained to the one before, and the whole is signed by this server. */
  router.get('/sessions/:id/log/signed', async (req, res) => {
    const { session } = await taught(req, 'teach');
    let hash = session.id;
    const lines = logOf(await eventsOf(ctx.db, session.id)).map((line) => {
      hash = createHash('sha256').update(`${hash}\n${line.at}\n${line.text}`).digest('hex');
      return { ...line, hash };
    });
    const signature = createHmac('sha256', secretOf(ctx)).update(hash).digest('hex');
    res
      .attachment(`Log of ${session.seriesTitle} ${session.number}.json`)
      .send(JSON.stringify({ session: session.id, lines, signature }, null, 1));
  });
  return router;
}

/** Students by sessions that were held; whoever has left the list is not in it. */
async function rollBook(
  ctx: Context,
  course: string,
  sessions: readonly LayeredSession[],
): Promise<RollBookInfo> {
  const held = sessions.filter((s) => s.state === 'held');
  const ids = held.map((s) => s.id);
  const [people, lines] = await Promise.all([seatedIn(ctx.db, course), rollMarks(ctx.db, ids)]);
  const cells = new Map<string, BookCell>();
  for (const line of lines)
    cells.set(`${line.session}/${line.member}`, {
      mark: markOf(line),
      minutes: line.minutes,
      ...(line.corrected ? { corrected: true as const } : {}),
      ...(line.telephone ? { telephone: true as const } : {}),
    });
  const book: RollBook = {
    sessions: held.map(({ id, seriesTitle, number, startsAt, minutes }) => ({
      ...{ id, title: seriesTitle, number, startsAt, minutes },
    })),
    rows: people
      .filter((p) => p.role === 'student')
      .map(({ id, name, group }) => ({
        ...{ member: id, name, group },
        cells: held.map((s) => cells.get(`${s.id}/${id}`) ?? null),
      })),
  };
  const slipping = Object.fromEntries(
    book.rows.flatMap(({ member, cells: own }) => {
      const words = slippingWords(own, book.sessions);
      return words ? [[member, words]] : [];
    }),
  );
  const { lateAfterMinutes, earlyBeforeMinutes, enoughMinutes } = rollRules(sessions[0]?.layers ?? []);
  return { ...book, slipping, rules: { lateAfterMinutes, earlyBeforeMinutes, enoughMinutes } };
}
