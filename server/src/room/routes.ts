import { Router } from 'express';
import type { MyCourse, SessionDetail } from '@nimble-bell/core/api';
import { doorFor } from '@nimble-bell/core/door';
import { teaches } from '@nimble-bell/core/limits';
import { rollOf } from '@nimble-bell/core/roll';
import { memberIn, principalOf, type MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionById, sessionsOfCourse, standingOf, type SessionRow } from '../courses/store';
import { AppError } from '../errors';
import { infoOf, mayWatch, recordingsWhere, type RecordingRow } from '../recordings/store';
import { isFor, membersOf } from '../roster/store';
import { eventsOf } from './store';

export function sessionRoutes(ctx: Context): Router {
  const router = Router();

  const recordingsFor = (found: RecordingRow[], member: MemberRow) =>
    found
      .filter(
        (r) =>
          mayWatch(r, member) && (teaches(member.role) || (r.state !== 'failed' && r.state !== 'expired')),
      )
      .map((r) => infoOf(r, teaches(member.role)));

  /** A session as this member may see it; the roll is for those who teach. */
  router.get('/sessions/:id', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    const row = await sessionById(ctx.db, req.params.id);
    if (!row) throw new AppError('not-found');
    const member = await memberIn(ctx, principal, row.courseId);
    if (!isFor(row, member)) throw new AppError('forbidden');
    const course = (await courseById(ctx.db, row.courseId))!;
    const [events, members, recordings] = await Promise.all([
      eventsOf(ctx.db, row.id),
      membersOf(ctx.db, row.courseId),
      recordingsWhere(ctx.db, 's.id', row.id),
    ]);
    const people = members
      .filter((m) => isFor(row, m))
      .map((m) => ({ member: m.id, name: m.name, role: m.role }));
    const { courseId, ...session } = row;
    const detail: SessionDetail = {
      session,
      course: { id: course.id, code: course.code, title: course.title },
      role: member.role,
      member: member.id,
      zone: course.term.zone,
      door: doorFor(row, course.door, member.role, ctx.now()),
      roll: teaches(member.role) ? rollOf(events, people, row, ctx.now()) : null,
      recordings: recordingsFor(recordings, member),
    };
    res.json(detail);
  });

  /** The student's page: their course, by their link. */
  router.get('/my-course', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'link') throw new AppError('forbidden');
    const { member } = principal;
    const course = (await courseById(ctx.db, member.courseId))!;
    const [sessions, standing, members, recordings] = await Promise.all([
      sessionsOfCourse(ctx.db, course.id),
      standingOf(ctx.db, course.id),
      membersOf(ctx.db, course.id),
      recordingsWhere(ctx.db, 's.course_id', course.id),
    ]);
    const own = sessions.filter((s) => isFor(s, member));
    const withDoor = ({ courseId, ...s }: SessionRow) => ({
      ...s,
      door: doorFor(s, course.door, member.role, ctx.now()),
    });
    const ids = new Set(own.map((s) => s.id));
    const mine: MyCourse = {
      course: { id: course.id, code: course.code, title: course.title, term: course.term },
      me: { member: member.id, name: member.name, zone: member.zone, role: member.role },
      teachers: members.filter((m) => m.role === 'teacher').map((m) => m.name),
      sessions: own.map(withDoor),
      rooms: standing.filter((s) => s.kind === 'open' && isFor(s, member)).map(withDoor),
      recordings: recordingsFor(
        recordings.filter((r) => ids.has(r.sessionId)),
        member,
      ),
      door: course.door,
    };
    res.json(mine);
  });
  return router;
}
