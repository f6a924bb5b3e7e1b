import { refuse } from '@nimble-bell/core/room';
import type { Refused } from '@nimble-bell/core/api';
import type { Logger } from 'pino';
import { AppError } from '../../errors';
import { Elsewhere } from '../lease';

/** A refusal of the room on its way to the page. */
export class RoomRefusal extends Error {
  constructor(readonly refusal: { code: string; message: string }) {
    super(refusal.message);
  }
}

/** What a page is answered where its message led to no result: a refusal in words. */
export function refusalOf(error: unknown, log: Logger): Refused {
  if (error instanceof RoomRefusal) return { ok: false, refusal: error.refusal };
  if (error instanceof Elsewhere) return { ok: false, refusal: refuse('elsewhere') };
  if (error instanceof AppError) return { ok: false, refusal: { code: error.code, message: error.message } };
  log.error(error);
  return { ok: false, refusal: { code: 'internal', message: 'Something went wrong here. Try again.' } };
}
