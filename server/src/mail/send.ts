import nodemailer from 'nodemailer';
import type { Context } from '../context';
import { courseById } from '../courses/store';
import type { Job } from '../jobs/worker';
import { changeLetterFor, invitationFor, ORGANIZER } from './letter';
import { recipients } from './routes';

/** Sends one queued letter by SMTP. The Message-ID comes from the job's key: a repeated hand-over is the same message. */
export function mailer(ctx: Context) {
  const transport = nodemailer.createTransport(ctx.config.smtpUrl, {
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  return async (job: Job) => {
    const member = (await recipients(ctx, 'm.id', job.memberId!))[0];
    const course = await courseById(ctx.db, job.courseId!);
    if (!member || !course) return;
    const { change } = job.payload as { change?: string };
    const letter = change
      ? await changeLetterFor(ctx, course, member, change)
      : await invitationFor(ctx, course, member);
    if (!letter) return;
    const [first, ...others] = letter.calendars;
    await transport.sendMail({
      messageId: `<${job.key.replaceAll('/', '.')}@nimble-bell>`,
      date: new Date(ctx.now()),
      from: { name: `${course.code} at Nimble Bell`, address: ORGANIZER.email },
      to: { name: member.name, address: member.email },
      subject: letter.subject,
      text: letter.text,
      html: letter.html,
      ...(first ? { icalEvent: { method: 'REQUEST', filename: 'class.ics', content: first } } : {}),
      attachments: others.map((content, i) => ({
        filename: `class-${i + 2}.ics`,
        content,
        contentType: 'text/calendar; method=REQUEST; charset=utf-8',
      })),
    });
  };
}
