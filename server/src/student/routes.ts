import { Router, type Request } from 'express';
import { LettersInput, MeInput, ReplyInput, Unwanted, type MyCourse } from '@nimble-bell/core/api';
import { doorFor, doorRules } from '@nimble-bell/core/door';
import { linkCode, memberByLink, principalOf } from '../accounts/principal';
import type { Context } from '../context';
import {
  bare,
  courseById,
  layeredSessionsOf,
  type LayeredSession,
  sessionsOfCourse,
  standingOf,
  teachersOf,
  type SessionRow,
} from '../courses/store';
import { AppError, parse } from '../errors';
import { refuseTeachersName } from '../roster/names';
import { forgetOwnCall } from '../roster/store';
import { keepReply } from '../mail/replies';
import { materialsFor } from '../materials/store';
import { noticesFor } from '../notices/store';
import { recordingsWhere } from '../recordings/store';
import { seenBy } from '../recordings/watchable';
import { rollLinesOf } from '../sessions/roll';
import { mayWords } from '@nimble-bell/core/limits';
import { recordingWords } from '@nimble-bell/core/recording';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { timeOf } from '../writing/rights';
import { countsFor } from '../writing/store';
import type { MemberRow } from '../accounts/store';
import { preferredNameOf, repliesOf, setOwnZone, setPreferredName, setPronouns, setQuiet } from './store';

const byLink = async (ctx: Context, req: Request): Promise<MemberRow> => {
  const principal = await principalOf(ctx, req.headers);
  if (principal.kind !== 'link') throw new AppError('forbidden');
  return principal.member;
};

/** One's own line of the roll of each session that was held. */
const attendanceOf = async (ctx: Context, held: readonly SessionRow[], member: MemberRow) => {
  const lines = await rollLinesOf(
    ctx.db,
    member.id,
    held.map((s) => s.id),
  );
  return held.flatMap((s) => {
    const line = lines.get(s.id);
    if (!line) return [];
    // Why a teacher corrected it is for those who teach.
    const corrected = line.corrected && { ...line.corrected, reason: '' };
    return [{ sessionId: s.id, line: { ...line, corrected } }];
  });
};

/** What a person sees and says of their own course, by their link. */
export function studentRoutes(ctx: Context): Router {
  const router = Router();

  ownCourse(router, ctx);

  /** One's own attendance of the term. */
  router.get('/my-course/attendance', async (req, res) => {
    const member = await byLink(ctx, req);
    const held = (await sessionsOfCourse(ctx.db, member.courseId)).filter(
      (s) => s.state === 'held' && isFor(targetOf(s), member),
    );
    res.json(await attendanceOf(ctx, held, member));
  });

  /** How one is called, and where one is: one's own to say. */
  router.put('/my-course/me', async (req, res) => {
    const me = await byLink(ctx, req);
    const { personId } = me;
    const { zone, preferredName, pronouns } = parse(MeInput, req.body);
    if (preferredName) await refuseTeachersName(ctx.db, me.courseId, preferredName, me.id);
    if (zone !== undefined) await setOwnZone(ctx.db, zone, personId);
    if (preferredName !== undefined) {
      await setPreferredName(ctx.db, preferredName || null, personId);
      await forgetOwnCall(ctx.db, personId);
    }
    if (pronouns !== undefined) await setPronouns(ctx.db, pronouns || null, personId);
    res.json({});
  });

  lettersOff(router, ctx);

  /** One's own answer to an invitation. */
  router.put('/my-course/reply', async (req, res) => {
    const member = await byLink(ctx, req);
    const { seriesId, date, take, answer } = parse(ReplyInput, req.body);
    const session = date === null ? null : { date, take };
    const given = { seriesId, session, answer, sequence: null, stamp: null, verified: true };
    const known = await keepReply(ctx.db, member, given, ctx.now());
    if (!known) throw new AppError('not-found', 'There is no such session in your plan.');
    res.json({});
  });
  return router;
}

/** Which letters one does without. */
function lettersOff(router: Router, ctx: Context) {
  router.put('/my-course/letters', async (req, res) => {
    const member = await byLink(ctx, req);
    const { quiet } = parse(LettersInput, req.body);
    await setQuiet(ctx.db, quiet, member.id);
    res.json({});
  });

  /** The same by the address in a letter's own header: read it leads to the page, posted it is done (RFC 8058). */
  router.get('/letters-off/:code/:topic', (req, res) => res.redirect(303, `/in/${req.params.code}/letters`));
  router.post('/letters-off/:code/:topic', async (req, res) => {
    const member = await memberByLink(ctx, linkCode(req.params.code));
    if (!member) throw new AppError('link-unknown');
    const topic = parse(Unwanted, req.params.topic);
    await setQuiet(ctx.db, [...new Set([...member.quiet, topic])], member.id);
    res.json({});
  });
}

/** The student's page: their course, by their link. */
function ownCourse(router: Router, ctx: Context) {
  /** The student's page: their course, by their link. */
  router.get('/my-course', async (req, res) => {
    const member = await byLink(ctx, req);
    const course = (await courseById(ctx.db, member.courseId))!;
    const [sessions, standing, teaching, recordings] = await Promise.all([
      layeredSessionsOf(ctx.db, course.id),
      standingOf(ctx.db, course.id),
      teachersOf(ctx.db, course.id),
      recordingsWhere(ctx.db, 's.course_id', course.id),
    ]);
    const own = sessions.filter((s) => isFor(targetOf(s), member));
    const withDoor = (s: LayeredSession) => ({
      ...bare(s),
      door: doorFor(s, doorRules(s.layers, s.kind), member.role, ctx.now()),
    });
    const ids = new Set(own.map((s) => s.id));
    const written = await countsFor(ctx.db, [...ids], { id: member.id, teaching: teaches(member.role) });
    const [notices, materials, replies, preferred] = await Promise.all([
      noticesFor(ctx, ctx.db, member),
      materialsFor(ctx, ctx.db, member),
      repliesOf(ctx.db, member.id),
      preferredNameOf(ctx.db, member.personId),
    ]);
    const mine: MyCourse = {
      course: { id: course.id, code: course.code, title: course.title, term: course.term },
      me: {
        member: member.id,
        name: member.name,
        preferredName: preferred!.name,
        pronouns: member.pronouns,
        zone: member.zone,
        role: member.role,
        quiet: member.quiet,
      },
      telephone:
        course.telephone !== null && member.pin !== null
          ? { number: course.telephone, pin: member.pin }
          : null,
      teachers: teaching.filter((m) => m.role === 'teacher').map((m) => m.name),
      sessions: own.map((s) => ({
        ...withDoor(s),
        writing: { now: timeOf(s, ctx.now()), written: written.get(s.id) ?? 0 },
      })),
      rooms: standing.filter((s) => s.kind === 'open' && isFor(targetOf(s), member)).map(withDoor),
      recordings: seenBy(
        ctx,
        recordings.filter((r) => ids.has(r.sessionId)),
        member,
      ),
      door: course.door,
      inClass: { may: mayWords(course.limits), recorded: recordingWords(course.recordingPlan) },
      countsPart: course.countsPart,
      notices,
      materials,
      replies,
    };
    res.json(mine);
  });
}
