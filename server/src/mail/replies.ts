import type { Answer } from '@nimble-bell/core/api';
import type { CalendarCopy } from '@nimble-bell/core/calendar';
import { json, type Db } from '../db/pool';
import { isFor, seriesTarget, targetOf } from '@nimble-bell/core/roster';
import { seriesOf, sessionsOfCourse } from '../courses/store';
import type { MemberRow } from '../accounts/store';
import { entryKey, entryOfKey } from '../calendars/uid';
import { copiesOf, keepReplyRow, latestReply, outdateReplies } from './store';

export interface GivenReply {
  seriesId: string;
  /** The session it is for, by its original date and its place among those of that date; null for the series. */
  session: { date: string; take: number } | null;
  answer: Answer;
  /** Of the message that it answers; null where it answers the latest, as on one's own page. */
  sequence: number | null;
  /** When it was given; null for now. */
  stamp: number | null;
  /** Whether it came from the address that it is an answer of. */
  verified: boolean;
}

/** What somebody's calendar holds of an entry by the letters they had; null where they had none of it. */
export async function copyOf(db: Db, member: string, key: string): Promise<CalendarCopy | null> {
  const found = (await copiesOf(db, [member], false)).find((c) => c.key === key);
  return found ? json<CalendarCopy>(found.body) : null;
}

/**
 * Keeps a member's answer to a series or to one session of it. An answer to an older message than one answered already,
 * or given earlier to the same one, is out of date and changes nothing (RFC 5546 §2.1.5). Gives whether there is such a
 * thing in their plan.
 */
export async function keepReply(
  db: Db,
  member: Pick<MemberRow, 'id' | 'courseId' | 'role' | 'group' | 'scope'>,
  reply: GivenReply,
  now: number,
): Promise<boolean> {
  const { session } = reply;
  const series = (await seriesOf(db, member.courseId)).find((s) => s.id === reply.seriesId);
  if (!series) return false;
  const sessions = (await sessionsOfCourse(db, member.courseId)).filter((s) => s.seriesId === series.id);
  const theirs = session
    ? sessions.some((s) => s.date === session.date && s.take === session.take && isFor(targetOf(s), member))
    : isFor(seriesTarget(series), member);
  if (!theirs) return false;
  const copy = await copyOf(db, member.id, entryKey(series.id, session));
  // No message has a higher SEQUENCE than the last: what claims one answers the latest.
  const latest = copy?.sequence ?? series.sequence;
  const sequence = Math.min(reply.sequence ?? latest, latest);
  const stamp = Math.min(reply.stamp ?? now, now);
  const { date, take } = session ?? { date: '', take: 0 };
  const place = { member: member.id, series: series.id, date, take };
  const last = await latestReply(db, place);
  const known = last ? Math.min(last.sequence, latest) : -1;
  if (last && (sequence < known || (sequence === known && stamp < last.stamp))) return true;
  const held = copy?.sessions.filter((s) => !session || s.date === session.date) ?? [];
  const outdated = held.some((s) => (s.since ?? 0) > sequence);
  const { answer, verified } = reply;
  await keepReplyRow(db, place, { answer, sequence, stamp, verified, outdated, at: now });
  return true;
}

/** Answers whose sessions letters tell to be at another time: those to whom the same is told, together. */
export class Outdated {
  readonly #alike = new Map<string, { key: string; dates: string[]; members: string[] }>();

  add(key: string, dates: string[], member: string) {
    const place = `${key} ${dates.join(' ')}`;
    const known = this.#alike.get(place);
    if (known) known.members.push(member);
    else this.#alike.set(place, { key, dates, members: [member] });
  }

  async write(db: Db) {
    for (const { key, dates, members } of this.#alike.values()) {
      const { seriesId: series, session } = entryOfKey(key);
      await outdateReplies(db, { members, series, dates, take: session?.take ?? 0 });
    }
  }
}
