import type { Request, Response } from 'express';
import pino from 'pino';
import { z } from 'zod';
import { AppError, errorHandler, parse } from './errors';

function answerTo(error: unknown) {
  const said = { status: 0, body: {} as unknown };
  const res = {
    headersSent: false,
    status: (code: number) => ((said.status = code), res),
    json: (body: unknown) => ((said.body = body), res),
  } as unknown as Response;
  errorHandler(pino({ level: 'silent' }))(error, {} as Request, res, () => {});
  return said;
}

test('an error reaches a person as its status and its sentence, an unknown one without its inside', () => {
  expect(answerTo(new AppError('forbidden'))).toMatchObject({
    status: 403,
    body: { error: { code: 'forbidden' } },
  });
  const inside = answerTo(new Error('SELECT secret FROM people'));
  expect(inside.status).toBe(500);
  expect(JSON.stringify(inside.body)).not.toContain('secret');
  // A store that is away is no fault of the request: it can be sent again, under its id.
  for (const gone of [{ code: 'ECONNREFUSED' }, { code: 'PROTOCOL_CONNECTION_LOST' }, { fatal: true }])
    expect(answerTo(Object.assign(new Error(), gone)).status).toBe(503);
  expect(answerTo(new Error("Can't add new command when connection is in closed state")).status).toBe(503);
  expect(answerTo(Object.assign(new Error(), { type: 'entity.too.large' })).status).toBe(413);
  expect(answerTo(Object.assign(new Error(), { type: 'entity.parse.failed' })).status).toBe(422);
});

test('a value that does not fit is refused with each field and its fault', () => {
  const schema = z.object({ code: z.string().min(2, 'Too short.'), minutes: z.number() });
  expect(parse(schema, { code: 'NAV', minutes: 5 })).toEqual({ code: 'NAV', minutes: 5 });
  try {
    parse(schema, { code: 'N', minutes: 'five' });
    throw new Error('It was taken.');
  } catch (error) {
    expect((error as AppError).fields?.map((f) => f.path)).toEqual(['code', 'minutes']);
    expect((error as AppError).message).toBe('Too short.');
  }
});
