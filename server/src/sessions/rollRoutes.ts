import { createHash, createHmac } from 'node:crypto';
import { Router } from 'express';
import { CorrectionInput, type RollBookInfo } from '@nimble-bell/core/api';
import { markOf, rollRules, slippingWords, type BookCell, type RollBook } from '@nimble-bell/core/roll';
import { logOf, namesIn } from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { asked } from '../accounts/principal';
import { signsOf } from '../after/signs';
import type { Context } from '../context';
import { layeredSessionsOf, sessionById, type LayeredSession, type SessionRow } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { secretOf } from '../secret';
import { eventsOf } from '../room/store';
import { taught } from './taught';
import { correctRoll, heldMinutes, rollLinesWhere, rollMarks, seatedIn } from './store';

/** The roll and the log of sessions, and the roll of the whole term. */
export function rollRoutes(ctx: Context): Router {
  const router = Router();
  router.get('/courses/:course/roll-book', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    const sessions = (await layeredSessionsOf(ctx.db, me.courseId)).filter((s) => isFor(targetOf(s), me));
    res.json(await rollBook(ctx, me.courseId, sessions));
  });

  /** What the rules make of somebody stays beside what is said in their place. */
  router.put('/sessions/:id/roll/:member', async (req, res) => {
    const { me } = await taught(ctx, req);
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

  /** What happened in a session, for those who teach it: who came, wrote, was muted, and when. */
  router.get('/sessions/:id/log', async (req, res) => {
    const { session } = await taught(ctx, req);
    res.json(await sessionLog(ctx.db, session));
  });

  /** The log as it can be handed on: each line is chained to the one before, and the whole is signed by this server. */
  router.get('/sessions/:id/log/signed', async (req, res) => {
    const { session } = await taught(ctx, req);
    let hash = session.id;
    const lines = (await sessionLog(ctx.db, session)).map((line) => {
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

/** Everybody under the name that they had in class; who never came in, as the list has them. */
async function sessionLog(db: Db, { id, courseId }: SessionRow) {
  const [events, seated] = await Promise.all([eventsOf(db, id), seatedIn(db, courseId)]);
  const listed = new Map(seated.map((m) => [m.id, m.name]));
  return logOf(
    events,
    namesIn(events, (member) => listed.get(member) ?? 'Somebody'),
  );
}

/** Students by sessions that were held; whoever has left the list is not in it. */
async function rollBook(
  ctx: Context,
  course: string,
  sessions: readonly LayeredSession[],
): Promise<RollBookInfo> {
  const held = sessions.filter((s) => s.state === 'held');
  const ids = held.map((s) => s.id);
  const [people, lines, lasted, signs] = await Promise.all([
    seatedIn(ctx.db, course),
    rollMarks(ctx.db, ids),
    heldMinutes(ctx.db, ids),
    signsOf(ctx.db, held),
  ]);
  const cells = new Map<string, BookCell>();
  for (const line of lines)
    cells.set(`${line.session}/${line.member}`, {
      mark: markOf(line),
      minutes: line.minutes,
      ...(line.corrected ? { corrected: true as const } : {}),
      ...(line.telephone ? { telephone: true as const } : {}),
    });
  const book: RollBook = {
    sessions: held.map(({ id, seriesTitle, number, startsAt }) => ({
      ...{ id, title: seriesTitle, number, startsAt, minutes: lasted.get(id) ?? 0 },
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
      const words = slippingWords(
        own,
        book.sessions,
        held.map((s) => signs(s.id, member)),
      );
      return words ? [[member, words]] : [];
    }),
  );
  const { lateAfterMinutes, earlyBeforeMinutes, enoughMinutes } = rollRules(sessions[0]?.layers ?? []);
  return { ...book, slipping, rules: { lateAfterMinutes, earlyBeforeMinutes, enoughMinutes } };
}
