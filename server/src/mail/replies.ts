import type { Answer } from '@nimble-bell/core/api';
import type { MemberRow } from '../accounts/principal';
import { one, run, type Db } from '../db/pool';
import { isFor, seriesTarget, targetOf } from '@nimble-bell/core/roster';
import { seriesOf, sessionsOfCourse } from '../courses/store';

export interface GivenReply {
  seriesId: string;
  date: string | null;
  answer: Answer;
  /** Of the request that it answers; null where it was given on one's own page. */
  sequence: number | null;
}

/**
 * Keeps a member's answer to a series or to one session of it. An answer to an older message than one answered already
 * is out of date and changes nothing (RFC 5546 §2.1.5). Gives whether there is such a thing in their plan.
 */
export async function keepReply(
  db: Db,
  member: Pick<MemberRow, 'id' | 'courseId' | 'role' | 'group' | 'scope'>,
  reply: GivenReply,
  now: number,
): Promise<boolean> {
  const series = (await seriesOf(db, member.courseId)).find((s) => s.id === reply.seriesId);
  if (!series) return false;
  const sessions = (await sessionsOfCourse(db, member.courseId)).filter((s) => s.seriesId === series.id);
  const theirs = reply.date
    ? sessions.some((s) => s.date === reply.date && isFor(targetOf(s), member))
    : isFor(seriesTarget(series), member);
  if (!theirs) return false;
  const last = await one<{ sequence: number }>(
    db,
    'SELECT sequence FROM replies WHERE member_id = ? AND series_id = ? AND local_date = ?',
    [member.id, series.id, reply.date ?? ''],
  );
  // No message has a higher SEQUENCE than the series by now: what claims one answers the latest.
  const sequence = Math.min(reply.sequence ?? last?.sequence ?? 0, series.sequence);
  if (last && sequence < Math.min(last.sequence, series.sequence)) return true;
  await run(
    db,
    `INSERT INTO replies (member_id, series_id, local_date, answer, sequence, at) VALUES (?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE answer = VALUES(answer), sequence = VALUES(sequence), at = VALUES(at)`,
    [member.id, series.id, reply.date ?? '', reply.answer, sequence, now],
  );
  return true;
}
