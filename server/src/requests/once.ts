import { createHash } from 'node:crypto';
import type { Request } from 'express';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { answerOf, claim, forgetBefore, keepAnswer } from './store';

/** A page sends a request again for as long as somebody waits for its answer. */
export const KEPT_MS = 48 * 3_600_000;
const KEY = /^[\w-]{8,80}$/;

class Repeated extends Error {}

/**
 * Does what a request asks, once: the id that it carries (`Idempotency-Key`) is stored with what was done, and with the
 * answer. Sent again, at the same time or after a lost answer, it gets that answer and nothing more happens. Without an
 * id it is a plain transaction.
 */
export async function once<T>(
  ctx: Context,
  req: Request,
  work: (db: PoolConnection) => Promise<T>,
): Promise<T> {
  const key = req.get('idempotency-key');
  if (key === undefined) return transaction(ctx.db, work);
  if (!KEY.test(key)) throw new AppError('invalid', 'The id of a request is 8 to 80 letters and digits.');
  // Of whoever asks: nobody hears another's answer by guessing an id.
  const asker = `${req.get('authorization') ?? ''}\n${req.get('cookie') ?? ''}`;
  const id = createHash('sha256').update(`${key}\n${req.method} ${req.originalUrl}\n${asker}`).digest('hex');
  try {
    return await transaction(ctx.db, async (db) => {
      if (!(await claim(db, id, ctx.now()))) throw new Repeated();
      const answer = await work(db);
      await keepAnswer(db, id, answer);
      return answer;
    });
  } catch (error) {
    if (error instanceof Repeated) return (await answerOf(ctx.db, id)) as T;
    throw error;
  }
}

export const forgetOldRequests = (ctx: Context) => forgetBefore(ctx.db, ctx.now() - KEPT_MS);
