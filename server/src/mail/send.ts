import type { CalendarCopy } from '@nimble-bell/core/calendar';
import nodemailer, { type SendMailOptions, type TransportOptions } from 'nodemailer';
import type { PoolConnection } from 'mysql2/promise';
import { membersWhere, type MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { json, rows, run } from '../db/pool';
import type { Job, Lane } from '../jobs/worker';
import { compose, type Letter } from './compose';
import { deskFor } from './desk';

/** A letter as it waits to be sent: composed, with whom it goes to. */
export interface Stored extends Letter {
  from: string;
  to: { name: string; address: string };
}

const PEOPLE = 'm.id IN (?)';

/** Letters are composed many at a time, what they say and what calendars then hold written in one transaction. */
export function composingLane(ctx: Context): Lane {
  return {
    name: 'compose',
    where: "kind = 'mail' AND letter IS NULL",
    batch: 200,
    width: 1,
    work: (jobs, db) => composeAll(ctx, jobs, db),
  };
}

async function composeAll(ctx: Context, jobs: Job[], db: PoolConnection): Promise<Job[]> {
  const desk = await deskFor(ctx, db, jobs[0]!.courseId!);
  const ids = jobs.map((j) => j.memberId!);
  const [members, copies] = await Promise.all([
    recipients(db, ids),
    rows<{ member: string; key: string; body: unknown }>(
      db,
      'SELECT member_id AS member, entry_key AS `key`, body FROM calendar_copies WHERE member_id IN (?) FOR UPDATE',
      [ids],
    ),
  ]);
  const held = new Map<string, Map<string, CalendarCopy>>();
  for (const c of copies) {
    if (!held.has(c.member)) held.set(c.member, new Map());
    held.get(c.member)!.set(c.key, json(c.body));
  }
  const letters: unknown[][] = [];
  const written: unknown[][] = [];
  for (const job of jobs) {
    const member = members.get(job.memberId!);
    const own = held.get(job.memberId!) ?? new Map<string, CalendarCopy>();
    const composed =
      desk && member ? compose(desk, member, { topic: job.topic!, about: job.payload }, own) : null;
    if (!composed?.letter || !member) {
      letters.push([job.id, null, null]);
      continue;
    }
    const stored: Stored = {
      ...composed.letter,
      from: `${desk!.plan.course.code} at Nimble Bell`,
      to: { name: member.name, address: member.email },
    };
    letters.push([job.id, composed.letter.subject.slice(0, 255), JSON.stringify(stored)]);
    for (const [key, copy] of composed.copies) {
      own.set(key, copy);
      written.push([job.memberId, key, JSON.stringify(copy)]);
    }
    held.set(job.memberId!, own);
  }
  if (written.length)
    await run(
      db,
      'INSERT INTO calendar_copies (member_id, entry_key, body) VALUES ? ON DUPLICATE KEY UPDATE body = VALUES(body)',
      [written],
    );
  await writeLetters(db, letters, ctx.now());
  return [];
}

/** Whoever a letter is for; those who left are written to once more. */
async function recipients(db: PoolConnection, ids: readonly string[]): Promise<Map<string, MemberRow>> {
  const on = await membersWhere(db, PEOPLE, [ids]);
  const found = new Map(on.map((m) => [m.id, m]));
  const gone = await rows<MemberRow>(
    db,
    `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`, p.name, p.email, p.zone,
            m.link_code AS link FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id IN (?) AND m.left_at IS NOT NULL`,
    [ids],
  );
  for (const m of gone) found.set(m.id, { ...m, scope: { series: [], sessions: [] }, capabilities: [] });
  return found;
}

async function writeLetters(db: PoolConnection, letters: readonly unknown[][], now: number) {
  for (const [id, subject, letter] of letters)
    await run(
      db,
      letter
        ? 'UPDATE jobs SET subject = ?, letter = ?, attempts = 0 WHERE id = ?'
        : "UPDATE jobs SET state = 'void', done_at = ? WHERE id = ?",
      letter ? [subject as string, letter as string, id as number] : [now, id as number],
    );
}

/** Sends composed letters by SMTP, as they were composed: a repeated hand-over is the same message. */
export function sendingLane(ctx: Context): Lane {
  const transport = nodemailer.createTransport({
    url: ctx.config.smtpUrl,
    pool: true,
    maxConnections: 4,
    disableFileAccess: true,
    disableUrlAccess: true,
  } as TransportOptions);
  return {
    name: 'send',
    where: "kind = 'mail' AND letter IS NOT NULL",
    batch: 1,
    width: 4,
    work: async ([job]) => {
      await transport.sendMail(messageOf(ctx, job!.letter as Stored, job!.messageId!));
      return [job!];
    },
  };
}

/** The MIME message of a letter: text, HTML, and the calendar messages, the first where calendar programs look for it. */
export function messageOf(ctx: Context, letter: Stored, messageId: string): SendMailOptions {
  const [first, ...others] = letter.calendars;
  return {
    messageId,
    date: new Date(ctx.now()),
    from: { name: letter.from, address: ctx.config.organizer },
    to: letter.to,
    subject: letter.subject,
    text: letter.text,
    html: letter.html,
    ...(first ? { icalEvent: { method: first.method, filename: 'class.ics', content: first.content } } : {}),
    attachments: others.map(({ method, content }, i) => ({
      filename: `class-${i + 2}.ics`,
      content,
      contentType: `text/calendar; method=${method}; charset=utf-8`,
    })),
  };
}
