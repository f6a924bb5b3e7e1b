import type { NextFunction, Request, Response } from 'express';
import { z } from 'zod';
import { faultsOf, type ErrorBody } from '@nimble-bell/core/api';
import type { Logger } from 'pino';
import { isAway, isCrossed } from './db/pool';

/** Every error that reaches a person: its status and its sentence. */
const CATALOGUE = {
  'not-signed-in': [401, 'Sign in, or use your personal link.'],
  'wrong-passcode': [401, 'The passcode is not right.'],
  'wrong-type': [415, 'A file of this kind is not taken.'],
  'wrong-password': [401, 'The e-mail address or the password is not right.'],
  'link-unknown': [401, 'This link is not known. It may have been replaced: look for a newer invitation.'],
  'off-list': [401, 'You are no longer on the class list of this course.'],
  forbidden: [403, 'You are not on the class list of this course, or this is for its teacher.'],
  closed: [403, 'This is closed.'],
  'door-shut': [403, 'The door is shut.'],
  'not-found': [404, 'There is nothing at this address.'],
  invalid: [422, 'Something in the form needs mending.'],
  'code-taken': [409, 'A course with this code exists in this term.'],
  'class-running': [409, 'A session of this series is live. Change the pattern after class.'],
  'session-over': [409, 'This session is live or over: it stays as it was.'],
  'series-taught': [
    409,
    'Sessions of this series were held. Cancel the rest instead: the past stays on record.',
  ],
  'no-change': [422, 'This changes nothing.'],
  'moved-on': [409, 'The plan has moved on since.'],
  'not-latest': [409, 'Something was changed since. Undo the latest change first.'],
  spent: [409, 'Nothing is left of this change to take back.'],
  'name-taken': [409, 'There is one with this name already.'],
  'must-stay': [409, 'Something of this has to stay.'],
  'in-use': [409, 'This is in use and cannot be removed.'],
  'finding-gone': [409, 'This is settled already.'],
  'no-sessions': [422, 'This pattern gives no session in the term.'],
  'nobody-to-invite': [422, 'There is no student to invite. Import the class list first.'],
  'nothing-planned': [422, 'There is no session to invite to. Plan one, and publish it, first.'],
  'not-live': [409, 'The class has not begun.'],
  'download-off': [403, 'Downloads of this recording are off.'],
  expired: [410, 'This recording was kept until its date, and is gone.'],
  'not-ready': [409, 'The recording is being prepared.'],
  'too-large': [413, 'This is more than can be sent at once.'],
  busy: [503, 'Others are writing here just now. Nothing was changed. Try again.'],
  away: [
    503,
    'The college’s records are away for a moment. Send it again: what was done already is not done twice.',
  ],
  'too-often': [429, 'Too many tries. Wait a minute.'],
  internal: [500, 'Something went wrong here. Nothing was changed. Try again.'],
} as const satisfies Record<string, [number, string]>;

export type ErrorCode = keyof typeof CATALOGUE;
type Fields = { path: string; message: string }[];

export class AppError extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string = CATALOGUE[code][1],
    readonly fields?: Fields,
  ) {
    super(message);
  }
  get status() {
    return CATALOGUE[this.code][0];
  }
}

/** A value checked against its schema, or the faults of each field. */
export function parse<T extends z.ZodType>(schema: T, value: unknown): z.infer<T> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const fields = faultsOf(result.error).map((f) => ({ path: f.path.join('.'), message: f.message }));
  throw new AppError('invalid', fields[0]?.message, fields);
}

export function errorHandler(log: Logger) {
  return (error: unknown, _req: Request, res: Response, next: NextFunction) => {
    if (res.headersSent) return next(error);
    const known = asAppError(error);
    if (known.code === 'internal') log.error(error);
    if (known.code === 'away') log.warn(String(error));
    const body: ErrorBody = { error: { code: known.code, message: known.message } };
    if (known.fields) body.error.fields = known.fields;
    res.status(known.status).json(body);
  };
}

function asAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  const type = (error as { type?: string }).type;
  if (type === 'entity.too.large') return new AppError('too-large');
  if (type === 'entity.parse.failed') return new AppError('invalid', 'This is not JSON.');
  if (isCrossed(error)) return new AppError('busy');
  if (isAway(error)) return new AppError('away');
  if ((error as { code?: string }).code === 'ENOENT') return new AppError('not-found');
  return new AppError('internal');
}
