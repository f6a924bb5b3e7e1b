import { Router } from 'express';
import { simpleParser, type ParsedMail } from 'mailparser';
import nodemailer from 'nodemailer';
import { z } from 'zod';
import { Answer, type Letter, type LetterDetail } from '@nimble-bell/core/api';
import { replyTo } from '@nimble-bell/core/mail';
import type { Context } from '../context';
import { AppError, parse } from '../errors';
import { allLines } from '../telephone/store';
import { countBySubject, mailById, mailsKept, mailToAnswer } from './store';

/** The calendar messages of a letter: the one inside, and those attached, each once. */
const calendarsIn = (mail: ParsedMail): string[] => [
  ...new Set(
    mail.attachments
      .filter((a) => /^(text\/calendar|application\/ics)/.test(a.contentType))
      .map((a) => a.content.toString('utf8')),
  ),
];

/** Everyone's post, to read: only where mail goes to the stand-in mailbox of a demo. */
export function mailboxRoutes(ctx: Context): Router {
  const router = Router();
  router.use((_req, _res, next) => {
    next(ctx.config.demo && ctx.config.standinMailbox ? undefined : new AppError('not-found'));
  });

  router.get('/', async (_req, res) => {
    const letters: Letter[] = await mailsKept(ctx.db);
    res.json(letters);
  });

  /** How many people have post with such a subject, and how many letters that is. */
  router.get('/count', async (req, res) => {
    const found = await countBySubject(ctx.db, String(req.query.subject ?? ''));
    res.json(found);
  });

  router.get('/:id', async (req, res) => {
    const row = await mailById(ctx.db, Number(req.params.id) || 0);
    if (!row) throw new AppError('not-found');
    const { raw, ...letter } = row;
    const mail = await simpleParser(raw);
    const detail: LetterDetail = {
      ...letter,
      text: mail.text ?? '',
      html: mail.html || null,
      calendars: calendarsIn(mail).map((content) => ({
        method: /^METHOD:(\w+)/m.exec(content)?.[1] ?? '',
        title: /^SUMMARY:(.*)/m.exec(content)?.[1]?.trim() ?? '',
        content,
      })),
    };
    res.json(detail);
  });

  /** Answers the calendar entries of a letter, as its reader's calendar program would: by a letter back. */
  router.post('/:id/answer', async (req, res) => {
    const { answer } = parse(z.object({ answer: Answer }), req.body);
    const row = await mailToAnswer(ctx.db, Number(req.params.id) || 0);
    if (!row) throw new AppError('not-found');
    const replies = calendarsIn(await simpleParser(row.raw)).flatMap((c) => replyTo(c, row.to, answer) ?? []);
    const transport = nodemailer.createTransport(ctx.config.smtpUrl);
    for (const content of replies)
      await transport.sendMail({
        from: row.to,
        to: ctx.config.organizer,
        subject: `${answer[0]!.toUpperCase()}${answer.slice(1)}`,
        text: `This invitation is ${answer}.`,
        icalEvent: { method: 'REPLY', content },
      });
    res.status(202).json({ sent: replies.length });
  });
  return router;
}

/** The numbers that a stand-in telephone can dial: only where calls come from pages. */
export function telephoneRoutes(ctx: Context): Router {
  const router = Router();
  router.get('/telephone', async (_req, res) => {
    if (!ctx.config.standinTelephone) throw new AppError('not-found');
    res.json(await allLines(ctx.db));
  });
  return router;
}
