import type { Context } from '../context';
import { principalIfAny } from './principal';

const ctx = (query: () => Promise<unknown>) => ({ now: () => 0, db: { query } }) as unknown as Context;

test('nobody who is known is nobody; a store that is away is not taken for that', async () => {
  const none = ctx(async () => [[]]);
  expect(await principalIfAny(none, {})).toBeNull();
  expect(await principalIfAny(none, { cookie: 'nb_session=forged' })).toBeNull();
  expect(await principalIfAny(none, { authorization: 'Link nosuchlink' })).toBeNull();
  const away = ctx(async () => {
    throw Object.assign(new Error('connect'), { code: 'ECONNREFUSED' });
  });
  await expect(principalIfAny(away, { cookie: 'nb_session=good' })).rejects.toThrow('connect');
});
