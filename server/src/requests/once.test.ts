import type { Request } from 'express';
import type { Context } from '../context';
import { once } from './once';

const rows = new Map<string, { at: number; answer: unknown }>();
let begun: Map<string, { at: number; answer: unknown }> | null = null;
jest.mock('../db/pool', () => ({
  transaction: async (_pool: unknown, work: (db: object) => Promise<unknown>) => {
    const before = new Map(rows);
    begun = before;
    try {
      return await work({});
    } catch (error) {
      rows.clear();
      for (const [key, value] of before) rows.set(key, value);
      throw error;
    }
  },
}));
jest.mock('./store', () => ({
  claim: async (_db: unknown, id: string, at: number) => {
    if (rows.has(id)) return false;
    rows.set(id, { at, answer: null });
    return true;
  },
  keepAnswer: async (_db: unknown, id: string, answer: unknown) => void (rows.get(id)!.answer = answer),
  answerOf: async (_db: unknown, id: string) => rows.get(id)?.answer ?? null,
}));

const ctx = { db: {}, now: () => 1000 } as unknown as Context;
const request = (key?: string, cookie = 'nb_session=maren', path = '/api/courses') =>
  ({
    method: 'POST',
    originalUrl: path,
    get: (name: string) => ({ 'idempotency-key': key, cookie })[name],
  }) as unknown as Request;
let made = 0;
const make = async () => ({ id: ++made });
beforeEach(() => {
  rows.clear();
  begun = null;
  made = 0;
});

test('a request sent again gets the first answer, and nothing is made twice', async () => {
  expect(await once(ctx, request('a-request-1'), make)).toEqual({ id: 1 });
  expect(await once(ctx, request('a-request-1'), make)).toEqual({ id: 1 });
  expect(made).toBe(1);
  expect(begun).not.toBeNull();
});

test('another id, another asker, another path are another request', async () => {
  await once(ctx, request('a-request-1'), make);
  await once(ctx, request('a-request-2'), make);
  await once(ctx, request('a-request-1', 'nb_session=ines'), make);
  await once(ctx, request('a-request-1', 'nb_session=maren', '/api/terms'), make);
  expect(made).toBe(4);
});

test('what failed was not done: it may be asked again under the same id', async () => {
  const fails = once(ctx, request('a-request-1'), async () => {
    throw new Error('no');
  });
  await expect(fails).rejects.toThrow('no');
  expect(await once(ctx, request('a-request-1'), make)).toEqual({ id: 1 });
});

test('without an id a request is what it is; an id that is none is refused', async () => {
  await once(ctx, request(), make);
  await once(ctx, request(), make);
  expect(made).toBe(2);
  await expect(once(ctx, request('short'), make)).rejects.toMatchObject({ code: 'invalid' });
});
