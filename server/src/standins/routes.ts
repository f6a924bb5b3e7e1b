import { Router } from 'express';
import { simpleParser } from 'mailparser';
import type { Letter, LetterDetail } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { one, rows } from '../db/pool';
import { AppError } from '../errors';

/** Everyone's post, to read: only where mail goes to the stand-in mailbox of a demo. */
export function mailboxRoutes(ctx: Context): Router {
  const router = Router();
  router.use((_req, _res, next) => {
    next(ctx.config.demo && ctx.config.standinMailbox ? undefined : new AppError('not-found'));
  });

  router.get('/', async (_req, res) => {
    const letters: Letter[] = await rows(
      ctx.db,
      'SELECT id, recipient AS `to`, sender AS `from`, subject, at FROM standin_mail ORDER BY id DESC LIMIT 500',
    );
    res.json(letters);
  });

  router.get('/:id', async (req, res) => {
    const row = await one<Letter & { raw: string }>(
      ctx.db,
      'SELECT id, recipient AS `to`, sender AS `from`, subject, at, raw FROM standin_mail WHERE id = ?',
      [Number(req.params.id) || 0],
    );
    if (!row) throw new AppError('not-found');
    const { raw, ...letter } = row;
    const mail = await simpleParser(raw);
    const calendar = mail.attachments.find((a) => a.contentType === 'text/calendar');
    const detail: LetterDetail = {
      ...letter,
      text: mail.text ?? '',
      html: mail.html || null,
      calendar: calendar ? calendar.content.toString('utf8') : null,
    };
    res.json(detail);
  });
  return router;
}
