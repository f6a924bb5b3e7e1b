import type { Answer } from '@nimble-bell/core/api';
import type { Db } from '../db/pool';
import { isFor, seriesTarget, targetOf } from '@nimble-bell/core/roster';
import { seriesOf, sessionsOfCourse } from '../courses/store';
import type { MemberRow } from '../accounts/store';
import { keepReplyRow, replySequence } from './store';

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
  const last = await replySequence(db, member.id, series.id, reply.date ?? '');
  // No message has a higher SEQUENCE than the series by now: what claims one answers the latest.
  const sequence = Math.min(reply.sequence ?? last?.sequence ?? 0, series.sequence);
  if (last && sequence < Math.min(last.sequence, series.sequence)) return true;
  await keepReplyRow(db, {
    member: member.id,
    series: series.id,
    date: reply.date ?? '',
    answer: reply.answer,
    sequence,
    now,
  });
  return true;
}
