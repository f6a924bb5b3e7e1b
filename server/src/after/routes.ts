import { Router, type Request } from 'express';
import type { Participation, TermThoughts, ThoughtAsked } from '@nimble-bell/core/api';
import { afterRules, SAID_UNTIL_MS, ThoughtInput, thoughtsShown } from '@nimble-bell/core/after';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { asked, memberIn, principalOf } from '../accounts/principal';
import type { Context } from '../context';
import { layeredSessionsOf, sessionById, type LayeredSession } from '../courses/store';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { seatedIn } from '../sessions/store';
import { hasGiven, keepThought, noteGiven, partsTaken, thoughtsOf, wasIn } from './store';

const headOf = ({ id, seriesTitle, number, startsAt }: LayeredSession) => ({
  ...{ id, title: seriesTitle, number, startsAt },
});

/** What is counted of a class, and what the class thought of it. */
export function afterRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses/:course/participation', async (req, res) => {
    const me = await asked(ctx, req, 'member');
    const all = (await layeredSessionsOf(ctx.db, me.courseId)).filter((s) => isFor(targetOf(s), me));
    const rules = afterRules(all[0]?.layers ?? []);
    // Where it is switched off nobody sees what was counted before.
    const held = rules.participation ? all.filter((s) => s.state === 'held') : [];
    const ids = held.map((s) => s.id);
    const own = teaches(me.role) ? null : me.id;
    const [people, parts] = await Promise.all([seatedIn(ctx.db, me.courseId), partsTaken(ctx.db, ids, own)]);
    const cells = new Map(parts.map(({ session, member, ...p }) => [`${session}/${member}`, p]));
    const answer: Participation = {
      sessions: held.map(headOf),
      rows: people
        .filter((p) => p.role === 'student' && (own === null || p.id === own))
        .map(({ id, name, group }) => ({
          ...{ member: id, name, group },
          cells: ids.map((s) => cells.get(`${s}/${id}`) ?? null),
        })),
      rules,
    };
    res.json(answer);
  });

  router.get('/courses/:course/thoughts', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    const all = (await layeredSessionsOf(ctx.db, me.courseId)).filter((s) => isFor(targetOf(s), me));
    const held = all.filter((s) => s.state === 'held');
    const said = await thoughtsOf(
      ctx.db,
      held.map((s) => s.id),
    );
    const answer: TermThoughts = {
      asked: afterRules(all[0]?.layers ?? []).thoughts,
      sessions: held.map((s) => ({
        ...headOf(s),
        thoughts: thoughtsShown(said.filter((t) => t.session === s.id)),
      })),
    };
    res.json(answer);
  });

  thoughtRoutes(ctx, router);
  return router;
}

/** What somebody thought of a class they were in. */
function thoughtRoutes(ctx: Context, router: Router) {
  const attended = async (req: Request) => {
    const session = await sessionById(ctx.db, req.params.id as string);
    if (!session) throw new AppError('not-found');
    const me = await memberIn(ctx, await principalOf(ctx, req.headers), session.courseId);
    if (!isFor(targetOf(session), me)) throw new AppError('forbidden');
    return { session, me };
  };
  const isAsked = async ({ session, me }: Awaited<ReturnType<typeof attended>>): Promise<boolean> =>
    !teaches(me.role) &&
    session.state === 'held' &&
    ctx.now() < session.endsAt + SAID_UNTIL_MS &&
    afterRules(session.layers).thoughts &&
    (await wasIn(ctx.db, session.id, me.id));

  router.get('/sessions/:id/thought', async (req, res) => {
    const who = await attended(req);
    const given = await hasGiven(ctx.db, who.session.id, who.me.id);
    const answer: ThoughtAsked = { asked: await isAsked(who), given };
    res.json(answer);
  });

  /** Said once; nothing that is kept tells who said what, so it cannot be taken back. */
  router.post('/sessions/:id/thought', async (req, res) => {
    const who = await attended(req);
    const thought = parse(ThoughtInput, req.body);
    if (!(await isAsked(who))) throw new AppError('closed', 'Nobody is asked this of you now.');
    const { session, me } = who;
    await once(ctx, req, async (db) => {
      if (!(await noteGiven(db, session.id, me.id))) throw new AppError('spent', 'You have said it already.');
      await keepThought(db, session.id, thought);
      return {};
    });
    res.status(201).json({});
  });
}
