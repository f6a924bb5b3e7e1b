import { bounceWords, noticeIn, repliesIn, type DeliveryNotice } from '@nimble-bell/core/mail';
import { simpleParser, type ParsedMail } from 'mailparser';
import type { PoolConnection } from 'mysql2/promise';
import { seriesOfUid } from '../calendars/entries';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { InboxVisit } from './pop3';
import { keepReply } from './replies';
import { membersWhere } from '../accounts/store';
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
  const replies = calendars.flatMap((c) => repliesIn(c.content.toString('utf8')));
  if (!replies.length) return 'neither an answer nor a delivery notice';
  const kept: string[] = [];
  for (const reply of replies) {
    const of = seriesOfUid(reply.uid);
    const member =
      of &&
      (
        await membersWhere(db, 'p.email = ? AND m.course_id = (SELECT course_id FROM series WHERE id = ?)', [
          reply.attendee,
          of.seriesId,
        ])
      )[0];
    const known =
      member && of
        ? await keepReply(
            db,
            member,
            {
              seriesId: of.seriesId,
              date: of.date ?? reply.date,
              answer: reply.answer,
              sequence: reply.sequence,
            },
            ctx.now(),
          )
        : false;
    kept.push(known ? `${reply.attendee} ${reply.answer}` : `${reply.attendee} is not invited to that`);
  }
  return kept.join('; ');
}

/** Notes a letter that did not arrive, found by the Message-ID that the notice sends back. */
async function noteBounce(ctx: Context, db: PoolConnection, notice: DeliveryNotice): Promise<string> {
  const failed = notice.statuses.find((s) => s.action === 'failed');
  if (!failed) return 'a delivery notice of no failure';
  if (!notice.messageId) return 'a delivery notice that names no letter';
  const result = await noteBounced(db, ctx.now(), bounceWords(failed).slice(0, 500), notice.messageId);
  return result.affectedRows ? `${failed.recipient} bounced` : 'a delivery notice of an unknown letter';
}
