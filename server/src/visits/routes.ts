import type { PoolConnection } from 'mysql2/promise';
import { Router, type Request } from 'express';
import rateLimit from 'express-rate-limit';
import { VisitInput, type ListedSession } from '@nimble-bell/core/api';
import { countWords, singlesOf } from '@nimble-bell/core/calendar';
import { principalIfAny } from '../accounts/principal';
import { nobodysAddress } from '@nimble-bell/core/roster';
import { membersWhere } from '../accounts/store';
import { newId, newLinkCode, type Context } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { refuseTeachersName } from '../roster/names';
import { courseByClassLink, enrolVisitor, insertVisitor, listedSessions, visitorsNow } from './store';

const HOUR = 3_600_000;

/** Who comes by a class link: by a name that they give, or as who they are signed in as. */
type Visitor = { came: 'visitor'; name: string } | { came: 'account'; person: string };

/** The session that is on or comes next, for whoever belongs to no group. */
async function nextSession(db: PoolConnection, courseId: string, now: number) {
  const session = (await sessionsOfCourse(db, courseId)).find(
    (s) => s.published && s.group === null && s.state !== 'held' && s.state !== 'cancelled' && s.endsAt > now,
  );
  if (!session) throw new AppError('not-found', 'No session is ahead.');
  return session;
}

/** A visitor of a course becomes a guest of the session that is on or comes next, with a link of their own. */
async function takeIn(db: PoolConnection, course: { id: string }, visitor: Visitor, now: number) {
  const session = await nextSession(db, course.id, now);
  const visitors = await visitorsNow(db, course.id, now);
  if (visitors!.n >= 500)
    throw new AppError('too-often', `${countWords(500, 'visitor')} are here already. Ask the teacher.`);
  const person = visitor.came === 'account' ? visitor.person : newId();
  const link = newLinkCode();
  if (visitor.came === 'visitor')
    await insertVisitor(db, person, visitor.name, nobodysAddress('visitor', person));
  await enrolVisitor(db, {
    ...{ member: newId(), courseId: course.id, person, link, now, came: visitor.came },
    scope: { series: [], sessions: [session.id] },
    until: session.endsAt + session.lingerMinutes * 60_000 + HOUR,
  });
  return { path: visitor.came === 'account' ? `/room/${session.id}` : `/in/${link}` };
}

const listed = (ctx: Context) => listedSessions(ctx.db, ctx.now());

const courseOf = async (ctx: Context, code: string) => {
  const course = await courseByClassLink(ctx.db, code);
  if (!course)
    throw new AppError('not-found', 'This class link is not known. It may have been replaced or hidden.');
  return course;
};

/** What anybody may see and do without a link of their own: the college's listed sessions, and the class link's door. */
export function visitRoutes(ctx: Context): Router {
  const router = Router();

  listedRoutes(router, ctx);

  const tries = rateLimit({
    windowMs: 60_000,
    limit: 10,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: (req) => String(req.params.code),
    handler: (_req, _res, next) => next(new AppError('too-often')),
  });

  router.get('/class/:code', async (req, res) => {
    const { code, title } = await courseOf(ctx, req.params.code);
    res.json({ code, title });
  });

  /**
   * A visitor by the class link: with the passcode and a name they get a link of their own, for the session that is on
   * or comes next, dead an hour after it. Whoever is signed in to an account of the college needs neither. They stand on
   * the class list as a guest, where a teacher can take them off; whoever is on it already is led to their class.
   */
  router.post('/class/:code', tries, async (req, res) => {
    const course = await courseOf(ctx, req.params.code as string);
    const asks = await principalIfAny(ctx, req.headers);
    if (asks?.kind === 'account')
      return void res.status(201).json(await byAccount(ctx, req, course, asks.person.id));
    const { name, passcode } = parse(VisitInput, req.body);
    if (passcode.trim().toLowerCase() !== course.passcode.toLowerCase()) throw new AppError('wrong-passcode');
    await refuseTeachersName(ctx.db, course.id, name);
    res
      .status(201)
      .json(await once(ctx, req, (db) => takeIn(db, course, { came: 'visitor', name }, ctx.now())));
  });
  return router;
}

/** What the college shows to everybody. */
function listedRoutes(router: Router, ctx: Context) {
  router.get('/listed', async (_req, res) => {
    const found = await listed(ctx);
    const sessions: ListedSession[] = found.map(({ id, ...s }) => ({
      ...s,
      teachers: String(s.teachers ?? '')
        .split(', ')
        .filter(Boolean),
    }));
    res.json(sessions);
  });

  /** The same as a calendar to subscribe to. No link stands in it. */
  router.get('/listed.ics', async (_req, res) => {
    const events = (await listed(ctx)).map((s) => ({
      uid: `listed-${s.id}@nimble-bell`,
      title: `${s.course}: ${s.series}${s.title ? `, ${s.title}` : ''}`,
      startsAt: s.startsAt,
      endsAt: s.endsAt,
    }));
    res.type('text/calendar; charset=utf-8').send(singlesOf(events, 'Listed sessions', ctx.now()));
  });
}

const byAccount = (ctx: Context, req: Request, course: { id: string }, person: string) =>
  once(ctx, req, async (db) => {
    const [known] = await membersWhere(db, 'm.course_id = ? AND m.person_id = ?', [course.id, person]);
    if (known && known.came !== 'account') return { path: `/course/${course.id}` };
    return takeIn(db, course, { came: 'account', person }, ctx.now());
  });
