import { Router } from 'express';
import rateLimit from 'express-rate-limit';
import { VisitInput, type ListedSession } from '@nimble-bell/core/api';
import { countWords, singlesOf } from '@nimble-bell/core/calendar';
import { newId, newLinkCode, type Context } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { one, rows, run } from '../db/pool';
import { AppError, parse } from '../errors';
import { refuseTeachersName } from '../roster/names';

const HOUR = 3_600_000;

/** What anybody may see and do without a link of their own: the college's listed sessions, and the class link's door. */
export function visitRoutes(ctx: Context): Router {
  const router = Router();

  const listed = () =>
    rows<ListedSession & { id: string }>(
      ctx.db,
      `SELECT s.id, CONCAT(c.code, ' ', c.title) AS course, COALESCE(s.title, '') AS title, r.title AS series,
              s.starts_at AS startsAt, s.ends_at AS endsAt, JSON_VALUE(t.body, '$.zone') AS zone,
              (SELECT GROUP_CONCAT(m.name ORDER BY m.name SEPARATOR ', ') FROM members m
                WHERE m.course_id = c.id AND m.role = 'teacher') AS teachers
         FROM sessions s JOIN series r ON r.id = s.series_id JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = c.term_id
        WHERE COALESCE(s.listed, r.listed) AND r.published_at IS NOT NULL AND s.state IN ('planned', 'moved', 'live') AND s.ends_at > ?
          AND r.kind NOT IN ('open', 'capture')
        ORDER BY s.starts_at LIMIT 300`,
      [ctx.now()],
    );

  router.get('/listed', async (_req, res) => {
    const found = await listed();
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
    const events = (await listed()).map((s) => ({
      uid: `listed-${s.id}@nimble-bell`,
      title: `${s.course}: ${s.series}${s.title ? `, ${s.title}` : ''}`,
      startsAt: s.startsAt,
      endsAt: s.endsAt,
    }));
    res.type('text/calendar; charset=utf-8').send(singlesOf(events, 'Listed sessions', ctx.now()));
  });

  const tries = rateLimit({
    windowMs: 60_000,
    limit: 10,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: (req) => String(req.params.code),
    handler: (_req, _res, next) => next(new AppError('too-often')),
  });
  const courseOf = async (code: string) => {
    const course = await one<{ id: string; code: string; title: string; passcode: string }>(
      ctx.db,
      'SELECT id, code, title, class_passcode AS passcode FROM courses WHERE class_link = ?',
      [code],
    );
    if (!course)
      throw new AppError('not-found', 'This class link is not known. It may have been replaced or hidden.');
    return course;
  };

  router.get('/class/:code', async (req, res) => {
    const { code, title } = await courseOf(req.params.code);
    res.json({ code, title });
  });

  /**
   * A visitor by the class link: with the passcode and a name they get a link of their own, for the session that is on
   * or comes next, dead an hour after it. They stand on the class list as a guest, where a teacher can take them off.
   */
  router.post('/class/:code', tries, async (req, res) => {
    const course = await courseOf(req.params.code as string);
    const { name, passcode } = parse(VisitInput, req.body);
    if (passcode.trim().toLowerCase() !== course.passcode.toLowerCase()) throw new AppError('wrong-passcode');
    await refuseTeachersName(ctx.db, course.id, name);
    const now = ctx.now();
    const session = (await sessionsOfCourse(ctx.db, course.id)).find(
      (s) =>
        s.published && s.group === null && s.state !== 'held' && s.state !== 'cancelled' && s.endsAt > now,
    );
    if (!session) throw new AppError('not-found', 'No session is ahead.');
    const visitors = await one<{ n: number }>(
      ctx.db,
      "SELECT COUNT(*) AS n FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND p.email LIKE 'visitor-%' AND m.link_until > ?",
      [course.id, now],
    );
    if (visitors!.n >= 500)
      throw new AppError('too-often', `${countWords(500, 'visitor')} are here already. Ask the teacher.`);
    const personId = newId();
    const link = newLinkCode();
    await run(ctx.db, 'INSERT INTO people (id, name, email, zone) VALUES (?, ?, ?, ?)', [
      personId,
      name,
      `visitor-${personId}@nimble-bell.invalid`,
      'UTC',
    ]);
    await run(
      ctx.db,
      `INSERT INTO enrolments (id, course_id, person_id, role, link_code, link_at, scope, link_until)
       VALUES (?, ?, ?, 'guest', ?, ?, ?, ?)`,
      [
        newId(),
        course.id,
        personId,
        link,
        now,
        JSON.stringify({ series: [], sessions: [session.id] }),
        session.endsAt + session.lingerMinutes * 60_000 + HOUR,
      ],
    );
    res.status(201).json({ path: `/in/${link}` });
  });
  return router;
}
