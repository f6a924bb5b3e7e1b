import { Router } from 'express';
import { z } from 'zod';
import {
  MeInput,
  type MemberInfo,
  type MyCourse,
  type Reply,
  type SessionDetail,
} from '@nimble-bell/core/api';
import { doorFor } from '@nimble-bell/core/door';
import { teaches } from '@nimble-bell/core/limits';
import { rollOf } from '@nimble-bell/core/roll';
import { memberIn, principalOf, requireRight, type MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { courseById, sessionById, sessionsOfCourse, standingOf, type SessionRow } from '../courses/store';
import { one, rows, run, transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { queueLetters } from '../mail/queue';
import { materialsFor } from '../materials/store';
import { noticesFor } from '../notices/store';
import { infoOf, mayWatch, recordingsWhere, type RecordingRow } from '../recordings/store';
import { isFor, membersOf, targetOf } from '../roster/store';
import { eventsOf, eventsOfAll } from './store';

/** Everyone's answer to a session: the one to it alone, or else the one to its series. */
const repliesTo = (session: SessionRow, members: readonly MemberInfo[]) =>
  members
    .filter((m) => isFor(targetOf(session), m))
    .flatMap((m) => {
      const of = (date: string | null) =>
        m.replies.find((r) => r.seriesId === session.seriesId && r.date === date)?.answer;
      const answer = of(session.date) ?? of(null);
      return answer ? [{ member: m.id, name: m.name, answer }] : [];
    });

const NudgeInput = z.object({ members: z.array(z.string().max(20)).max(1000).nullable().default(null) });

export function sessionRoutes(ctx: Context): Router {
  const router = Router();

  /** One's own line of the roll of each session that was held. */
  const attendanceOf = async (held: readonly SessionRow[], member: MemberRow) => {
    if (!held.length) return [];
    const events = await eventsOfAll(
      ctx.db,
      held.map((s) => s.id),
      member.id,
    );
    const me = { member: member.id, name: member.name, role: member.role };
    return held.map((s) => ({
      sessionId: s.id,
      line: rollOf(events.get(s.id) ?? [], [me], s, ctx.now())[0]!,
    }));
  };

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
    if (!isFor(targetOf(row), member)) throw new AppError('forbidden');
    const course = (await courseById(ctx.db, row.courseId))!;
    const [events, members, recordings] = await Promise.all([
      eventsOf(ctx.db, row.id),
      membersOf(ctx.db, row.courseId),
      recordingsWhere(ctx.db, 's.id', row.id),
    ]);
    const people = members
      .filter((m) => isFor(targetOf(row), m))
      .map((m) => ({ member: m.id, name: m.name, role: m.role }));
    // Who was there and left the course since stays on the roll.
    const known = new Set(people.map((p) => p.member));
    for (const e of events)
      if (e.type === 'entered' && !known.has(e.member)) {
        known.add(e.member);
        people.push({ member: e.member, name: e.name, role: e.role });
      }
    const { courseId, take, ...session } = row;
    const detail: SessionDetail = {
      session,
      course: { id: course.id, code: course.code, title: course.title },
      role: member.role,
      member: member.id,
      zone: course.term.zone,
      door: doorFor(row, course.door, member.role, ctx.now()),
      roll: teaches(member.role) ? rollOf(events, people, row, ctx.now()) : null,
      replies: teaches(member.role) ? repliesTo(row, members) : null,
      materials: (await materialsFor(ctx, ctx.db, member)).filter((m) => m.sessionId === row.id),
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
    const own = sessions.filter((s) => isFor(targetOf(s), member));
    const withDoor = ({ courseId, take, ...s }: SessionRow) => ({
      ...s,
      door: doorFor(s, course.door, member.role, ctx.now()),
    });
    const ids = new Set(own.map((s) => s.id));
    const [notices, materials, replies, preferred] = await Promise.all([
      noticesFor(ctx, ctx.db, member),
      materialsFor(ctx, ctx.db, member),
      rows<Reply>(
        ctx.db,
        "SELECT series_id AS seriesId, NULLIF(local_date, '') AS date, answer, at FROM replies WHERE member_id = ?",
        [member.id],
      ),
      one<{ name: string | null }>(ctx.db, 'SELECT preferred_name AS name FROM people WHERE id = ?', [
        member.personId,
      ]),
    ]);
    const mine: MyCourse = {
      course: { id: course.id, code: course.code, title: course.title, term: course.term },
      me: {
        member: member.id,
        name: member.name,
        preferredName: preferred!.name,
        zone: member.zone,
        role: member.role,
      },
      telephone:
        course.telephone !== null && member.pin !== null
          ? { number: course.telephone, pin: member.pin }
          : null,
      teachers: members.filter((m) => m.role === 'teacher').map((m) => m.name),
      sessions: own.map(withDoor),
      rooms: standing.filter((s) => s.kind === 'open' && isFor(targetOf(s), member)).map(withDoor),
      recordings: recordingsFor(
        recordings.filter((r) => ids.has(r.sessionId)),
        member,
      ),
      door: course.door,
      notices,
      materials,
      replies,
    };
    res.json(mine);
  });

  /** One's own attendance of the term. */
  router.get('/my-course/attendance', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'link') throw new AppError('forbidden');
    const { member } = principal;
    const held = (await sessionsOfCourse(ctx.db, member.courseId)).filter(
      (s) => s.state === 'held' && isFor(targetOf(s), member),
    );
    res.json(await attendanceOf(held, member));
  });

  /** How one is called, and where one is: one's own to say. */
  router.put('/my-course/me', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'link') throw new AppError('forbidden');
    const { zone, preferredName } = parse(MeInput, req.body);
    const { personId } = principal.member;
    if (zone !== undefined)
      await run(ctx.db, 'UPDATE people SET zone = ?, zone_own = TRUE WHERE id = ?', [zone, personId]);
    if (preferredName !== undefined)
      await run(ctx.db, 'UPDATE people SET preferred_name = ? WHERE id = ?', [
        preferredName || null,
        personId,
      ]);
    res.json({});
  });

  /** A word to those who are not there yet, once a person and session. */
  router.post('/sessions/:id/nudge', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    const row = await sessionById(ctx.db, req.params.id);
    if (!row) throw new AppError('not-found');
    const me = await requireRight(ctx, principal, row.courseId, 'teach');
    if (!isFor(targetOf(row), me)) throw new AppError('forbidden');
    if (row.state !== 'live') throw new AppError('not-live');
    const { members } = parse(NudgeInput, req.body);
    const here = new Set<string>();
    for (const e of await eventsOf(ctx.db, row.id)) {
      if (e.type === 'entered') here.add(e.member);
      if (e.type === 'left') here.delete(e.member);
    }
    const missing = (await membersOf(ctx.db, row.courseId)).filter(
      (m) =>
        (m.role === 'student' || m.role === 'guest') &&
        isFor(targetOf(row), m) &&
        !here.has(m.id) &&
        (!members || members.includes(m.id)),
    );
    const queued = await transaction(ctx.db, (db) =>
      queueLetters(db, {
        courseId: row.courseId,
        topic: 'nudge',
        cause: row.id,
        members: missing.map((m) => m.id),
        dueAt: ctx.now(),
        about: { session: row.id, startsAt: row.startsAt },
      }),
    );
    res.status(202).json({ queued, missing: missing.length });
  });
  return router;
}
