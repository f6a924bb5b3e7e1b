import nodemailer, { type SendMailOptions, type TransportOptions } from 'nodemailer';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import type { Job, Lane } from '../jobs/worker';
import { compose, type Letter } from './compose';
import { deskFor } from './desk';
import { readersOf } from './readers';
import { Outdated } from './replies';
import { writeCopies, writeLetters, type ComposedJob } from './store';

/** A letter as it waits to be sent: composed, with whom it goes to. */
export interface Stored extends Letter {
  from: string;
  to: { name: string; address: string };
}

/** Letters are composed many at a time, what they say and what calendars then hold written in one transaction. */
export function composingLane(ctx: Context): Lane {
  return {
    name: 'compose',
    where: "kind = 'mail' AND letter IS NULL",
    // Whoever changes the plan waits for what is being composed: a fraction of a second at most.
    batch: 50,
    width: 1,
    work: (jobs, db) => composeAll(ctx, jobs, db),
  };
}

async function composeAll(ctx: Context, jobs: Job[], db: PoolConnection): Promise<Job[]> {
  const desk = await deskFor(ctx, db, jobs[0]!.courseId!);
  const ids = jobs.map((j) => j.memberId!);
  const readers = await readersOf(db, ids, { lock: true });
  const letters: ComposedJob[] = [];
  const written: unknown[][] = [];
  const outdated = new Outdated();
  for (const job of jobs) {
    const reader = readers.get(job.memberId!);
    const composed =
      // Whoever came back meanwhile is not bidden goodbye.
      desk && reader && !(job.topic === 'goodbye' && reader.onList)
        ? compose(desk, reader.member, { topic: job.topic!, about: job.payload }, reader.held)
        : null;
    if (!composed?.letter || !reader) {
      letters.push({ id: job.id, composed: null });
      continue;
    }
    const stored: Stored = {
      ...composed.letter,
      from: `${desk!.plan.course.code} at Nimble Bell`,
      to: { name: reader.member.name, address: reader.member.email },
    };
    letters.push({
      id: job.id,
      composed: { subject: composed.letter.subject.slice(0, 255), letter: JSON.stringify(stored) },
    });
    for (const [key, dates] of composed.changed) if (dates.length) outdated.add(key, dates, job.memberId!);
    for (const [key, copy] of composed.copies) {
      reader.held.set(key, copy);
      written.push([job.memberId, key, JSON.stringify(copy)]);
    }
  }
  if (written.length) await writeCopies(db, written);
  await outdated.write(db);
  await writeLetters(db, letters, ctx.now());
  return [];
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
    headers: {
      // Nobody's absence answers it (RFC 3834).
      'Auto-Submitted': 'auto-generated',
      ...(letter.off
        ? { 'List-Unsubscribe': `<${letter.off}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' }
        : {}),
    },
    ...(first ? { icalEvent: { method: first.method, filename: 'class.ics', content: first.content } } : {}),
    attachments: others.map(({ method, content }, i) => ({
      filename: `class-${i + 2}.ics`,
      content,
      contentType: `text/calendar; method=${method}; charset=utf-8`,
    })),
  };
}
