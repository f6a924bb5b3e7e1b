import {
  bounceWords,
  noticeIn,
  repliesIn,
  sessionMeant,
  type CalendarReply,
  type DeliveryNotice,
} from '@nimble-bell/core/mail';
import { decodeText } from '@nimble-bell/core/text';
import { simpleParser, type ParsedMail } from 'mailparser';
import type { PoolConnection } from 'mysql2/promise';
import { entryKey, entryOfUid } from '../calendars/uid';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { InboxVisit } from './pop3';
import { copyOf, keepReply } from './replies';
import { membersWhere, type MemberRow } from '../accounts/store';
import { courseById, sessionsOfCourse } from '../courses/store';
import { noteBounced, noteFault, noteInboxSeen, wasSeen } from './store';

const POLL_MS = 2000;
const LARGEST = 2_000_000;

/**
 * Reads the mailbox that answers and delivery notices come to, by POP3 (RFC 1939): the stand-in's, or the one that
 * `INBOX_URL` names. A letter is dealt with in one transaction with the note that it was, and then removed: a server
 * that dies between the two finds it noted.
 */
export function keepReading(ctx: Context): { stop: () => Promise<void> } {
  let stopped = false;
  let quiet = false;
  const running = (async () => {
    while (!stopped) {
      try {
        await readAll(ctx, () => stopped);
        quiet = false;
      } catch (error) {
        if (!quiet) ctx.log.warn(`the inbox could not be read: ${String(error)}`);
        quiet = true;
      }
      await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    }
  })();
  return {
    stop: () => {
      stopped = true;
      return running;
    },
  };
}

async function readAll(ctx: Context, stopped: () => boolean) {
  const visit = new InboxVisit(ctx.config.inboxUrl);
  try {
    for (const { number, uidl } of await visit.list()) {
      if (stopped()) break;
      if (await dealWith(ctx, uidl, await visit.read(number))) await visit.remove(number);
    }
  } finally {
    await visit.end();
  }
}

/** A letter that cannot be dealt with is tried so often, then set aside. */
const TRIES = 3;

/**
 * Deals with a letter, and says whether it can go. One that fails is left for the next visit, and after some tries set
 * aside with what went wrong: it holds up no other.
 */
export async function dealWith(ctx: Context, uidl: string, raw: string): Promise<boolean> {
  try {
    await take(ctx, uidl, raw);
    return true;
  } catch (error) {
    ctx.log.warn({ uidl, why: String(error) }, 'a letter could not be dealt with');
    return noteFault(ctx.db, uidl, String(error), raw.slice(0, LARGEST), TRIES, ctx.now());
  }
}

/** One letter, once: what it says is written together with the note that it was read. */
export async function take(ctx: Context, uidl: string, raw: string): Promise<string> {
  const mail = raw.length > LARGEST ? null : await simpleParser(raw).catch(() => null);
  return transaction(ctx.db, async (db) => {
    if (await wasSeen(db, uidl)) return 'read before';
    const outcome = mail ? await outcomeOf(ctx, db, mail, raw) : 'could not be read';
    await noteInboxSeen(db, uidl, ctx.now(), outcome.slice(0, 255));
    return outcome;
  });
}

async function outcomeOf(ctx: Context, db: PoolConnection, mail: ParsedMail, raw: string): Promise<string> {
  const notice = noticeIn(raw);
  if (notice) return noteBounce(ctx, db, notice);
  const calendars = mail.attachments.filter((a) => /^text\/calendar|^application\/ics/.test(a.contentType));
  const replies = calendars.flatMap((c) => repliesIn(decodeText(c.content).text));
  if (!replies.length)
    return isAutomatic(mail) ? 'a letter that nobody wrote' : 'neither an answer nor a delivery notice';
  const from = mail.from?.value.map((a) => a.address?.toLowerCase()) ?? [];
  const kept: string[] = [];
  for (const reply of replies) {
    const { attendee, answer } = reply;
    const verified = from.length === 1 && from[0] === attendee;
    const known = await keepAnswer(db, reply, verified, ctx.now());
    if (!known) kept.push(`${attendee} is not invited to that`);
    else kept.push(verified ? `${attendee} ${answer}` : `${attendee} ${answer}, by another address`);
  }
  return kept.join('; ');
}

/** An answer by absence, and whatever else a program sends by itself (RFC 3834). */
const isAutomatic = (mail: ParsedMail) =>
  /^auto-/i.test(String(mail.headers.get('auto-submitted') ?? '')) ||
  /^(bulk|junk|list|auto_reply)$/i.test(String(mail.headers.get('precedence') ?? ''));

/** One answer, where it names somebody of the course by what only their own entries say. Gives whether it does. */
async function keepAnswer(db: PoolConnection, reply: CalendarReply, verified: boolean, now: number) {
  const entry = entryOfUid(reply.uid);
  if (!entry) return false;
  const { seriesId } = entry;
  const [member] = await membersWhere(
    db,
    'p.email = ? AND m.course_id = (SELECT course_id FROM series WHERE id = ?)',
    [reply.attendee, seriesId],
  );
  if (!member || member.calendarSecret !== entry.secret) return false;
  const session = entry.session ?? (await sessionNamed(db, member, seriesId, reply));
  if (session === undefined) return false;
  const { answer, sequence, stamp } = reply;
  return keepReply(db, member, { seriesId, session, answer, sequence, stamp, verified }, now);
}

/** The session of a series that an answer names; null where it is for the whole, undefined where there is none such. */
async function sessionNamed(
  db: PoolConnection,
  member: MemberRow,
  seriesId: string,
  { occurrence }: CalendarReply,
) {
  if (!occurrence) return null;
  const { term } = (await courseById(db, member.courseId))!;
  const all = await sessionsOfCourse(db, member.courseId);
  const sessions = all.filter((s) => s.seriesId === seriesId && s.take === 0);
  const copy = await copyOf(db, member.id, entryKey(seriesId, null));
  return sessionMeant(occurrence, sessions, copy?.start ?? null, term.zone) ?? undefined;
}

/** Notes a letter that did not arrive, found by the Message-ID that the notice sends back. */
async function noteBounce(ctx: Context, db: PoolConnection, notice: DeliveryNotice): Promise<string> {
  const failed = notice.statuses.find((s) => s.action === 'failed');
  if (!failed) return 'a delivery notice of no failure';
  if (!notice.messageId) return 'a delivery notice that names no letter';
  const result = await noteBounced(db, ctx.now(), bounceWords(failed).slice(0, 500), notice.messageId);
  return result.affectedRows ? `${failed.recipient} bounced` : 'a delivery notice of an unknown letter';
}
