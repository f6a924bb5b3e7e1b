import type { LetterTopic } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { doorRules } from '@nimble-bell/core/door';
import {
  courseById,
  noteMissed,
  notBegun,
  sessionById,
  sessionsOfCourse,
  type CourseRow,
} from '../courses/store';
import { transaction, type Db } from '../db/pool';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { queueLetters } from './queue';
import { membersWhere, type MemberRow } from '../accounts/store';
import { coursesWithTimed, invitedOf } from './store';

const EVERY_MS = 5000;
const MINUTE = 60_000;

/** Looks now and then which letters are due before a session. Their keys make looking twice harmless. */
export function keepTime(ctx: Context): NodeJS.Timeout {
  return setInterval(() => {
    writeAllDue(ctx).catch((error: unknown) => ctx.log.error(error));
  }, EVERY_MS);
}

export async function writeAllDue(ctx: Context): Promise<number> {
  const now = ctx.now();
  for (const { id } of await notBegun(ctx.db, now - LATEST_MS, now)) await tellMissing(ctx, id, now);
  const due = await coursesWithTimed(ctx.db, now, now + 14 * 24 * 60 * MINUTE);
  let queued = 0;
  for (const { id } of due) queued += await writeDue(ctx, id, now);
  return queued;
}

/** A letter that leaves some minutes before each session, and to whom of those whom the session is for. */
interface Timed {
  topic: LetterTopic;
  minutes: number;
  isTo: (member: MemberRow) => boolean;
}

/** Reminders go to those who were invited; invitations to everybody, or those chosen. */
async function timedOf(db: Db, { id, reminders, inviteBefore }: CourseRow): Promise<Timed[]> {
  const timed: Timed[] = [];
  if (reminders.length) {
    const invited = await invitedOf(db, id);
    timed.push(
      ...reminders.map((minutes): Timed => ({ topic: 'reminder', minutes, isTo: (m) => invited.has(m.id) })),
    );
  }
  if (inviteBefore) {
    const { minutes, members, groups } = inviteBefore;
    const isTo = (m: MemberRow) =>
      members ? members.includes(m.id) : groups ? m.group !== null && groups.includes(m.group) : true;
    timed.push({ topic: 'invitation', minutes, isTo });
  }
  return timed;
}

/** A session's time is in the cause: moved, it is written of anew, and an older letter has nothing left to say. */
async function writeDue(ctx: Context, courseId: string, now: number): Promise<number> {
  return transaction(ctx.db, async (db) => {
    const course = (await courseById(db, courseId))!;
    const ahead = (await sessionsOfCourse(db, courseId)).filter(
      (s) => s.startsAt > now && (s.state === 'planned' || s.state === 'moved'),
    );
    const timed = await timedOf(db, course);
    let people: MemberRow[] | null = null;
    let queued = 0;
    for (const session of ahead)
      for (const { topic, minutes, isTo } of timed) {
        const at = session.startsAt - minutes * MINUTE;
        // One that fell due long before anybody could set it is not made up for.
        if (at > now || now - at > Math.min(minutes, 60) * MINUTE) continue;
        people ??= await membersWhere(db, "m.course_id = ? AND m.role IN ('student', 'guest')", [courseId]);
        queued += await queueLetters(db, {
          courseId,
          topic,
          cause: `${session.id}-${session.startsAt}-${minutes}`,
          members: people.filter((m) => isTo(m) && isFor(targetOf(session), m)).map((m) => m.id),
          dueAt: now,
          about: { session: session.id, startsAt: session.startsAt },
        });
      }
    return queued;
  });
}

/** Of a class that was to begin longer ago nobody is told any more, ms. */
const LATEST_MS = 60 * MINUTE;

/** Where nobody has rung in for as long as the door's rules say, those who teach are told, once. */
async function tellMissing(ctx: Context, id: string, now: number) {
  const session = await sessionById(ctx.db, id);
  const { missingMinutes } = doorRules(session?.layers ?? []);
  if (!session || !missingMinutes || now < session.startsAt + missingMinutes * MINUTE) return;
  await transaction(ctx.db, async (db) => {
    if (!(await noteMissed(db, id, now))) return;
    const teaching = await membersWhere(db, "m.course_id = ? AND m.role IN ('teacher', 'assistant')", [
      session.courseId,
    ]);
    await queueLetters(db, {
      courseId: session.courseId,
      topic: 'missing',
      cause: `${id}-${session.startsAt}`,
      members: teaching.filter((m) => isFor(targetOf(session), m)).map((m) => m.id),
      dueAt: now,
      about: { session: id, startsAt: session.startsAt },
    });
  });
}
