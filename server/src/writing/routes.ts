import { Router } from 'express';
import {
  WrittenInput,
  type CourseWritten,
  type SessionWritten,
  type WrittenInfo,
} from '@nimble-bell/core/api';
import type { Capability } from '@nimble-bell/core/limits';
import { sees, type Addressee } from '@nimble-bell/core/room';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { asked } from '../accounts/principal';
import { membersWhere } from '../accounts/store';
import { newId, type Context } from '../context';
import { sessionById, sessionsOfCourse } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { here } from '../sessions/here';
import { plannedRoom, timeOf, whyNot } from './rights';
import { holdWriter, insertWritten, latestWritten, writtenOn, writtenSince } from './store';

/** Nobody writes more than this within a minute. */
const MOST_A_MINUTE = 10;
const LATEST = 8;

/** The capability that writing to them needs; the one person must be somebody of the course. */
async function needed(db: Db, courseId: string, from: string, addressee: Addressee): Promise<Capability> {
  if (addressee.to === 'class') return 'writeToClass';
  if (addressee.to === 'teachers') return 'writeToTeachers';
  if (addressee.member === from) throw new AppError('invalid', 'This would only reach yourself.');
  const [other] = await membersWhere(db, 'm.course_id = ? AND m.id = ?', [courseId, addressee.member]);
  if (!other) throw new AppError('not-found', 'This person is not on the class list.');
  return teaches(other.role) ? 'writeToTeachers' : 'writeToStudents';
}

/** The others of the class without their names. */
const nameless = (all: readonly WrittenInfo[], me: string): WrittenInfo[] =>
  all.map((w) => (w.from === me || teaches(w.role) ? w : { ...w, name: 'A student' }));

/** What is written on a session's page, before its door opens and after its class. */
export function writingRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/sessions/:id/written', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const now = ctx.now();
    const room = await plannedRoom(ctx.db, session, now);
    const all = await writtenOn(ctx.db, session.id, { id: me.id, teaching: teaches(me.role) });
    const written: SessionWritten = {
      now: timeOf(session, now),
      written: sees(room, { member: me.id, role: me.role }, 'seeNames') ? all : nameless(all, me.id),
      closed: {
        class: whyNot(session, room, me, 'writeToClass', now),
        teachers: whyNot(session, room, me, 'writeToTeachers', now),
      },
    };
    res.json(written);
  });

  router.post('/sessions/:id/written', async (req, res) => {
    const { me } = await here(ctx, req);
    const { addressee, text } = parse(WrittenInput, req.body);
    const made = await once(ctx, req, async (db) => {
      await holdWriter(db, me.id);
      // Asked again by this line to the database alone, which a second one might wait for: what was closed since is closed.
      const session = await sessionById(db, req.params.id);
      const [still] = await membersWhere(db, 'm.id = ?', [me.id]);
      if (!session || !still) throw new AppError('forbidden');
      const at = ctx.now();
      const capability = await needed(db, session.courseId, me.id, addressee);
      const closed = whyNot(session, await plannedRoom(db, session, at), me, capability, at);
      if (closed) throw new AppError('closed', closed);
      if ((await writtenSince(db, me.id, at - 60_000)) >= MOST_A_MINUTE)
        throw new AppError('too-often', 'That was much at once. Wait a minute, then go on.');
      const id = newId();
      await insertWritten(db, { id, session: session.id, at, from: me.id, addressee, text });
      return { id };
    });
    res.status(201).json(made);
  });

  /** The latest of the course, for those who teach it: of the sessions that are theirs. */
  router.get('/courses/:course/written', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    const own = (await sessionsOfCourse(ctx.db, me.courseId)).filter((s) => isFor(targetOf(s), me));
    const written = await latestWritten(
      ctx.db,
      own.map((s) => s.id),
      LATEST,
    );
    const latest: CourseWritten[] = written.map((w) => {
      const { seriesTitle, number, startsAt } = own.find((s) => s.id === w.session)!;
      return { ...w, title: `${seriesTitle} ${number}`, startsAt };
    });
    res.json(latest);
  });
  return router;
}
