import { ana, ben, lecture, maren } from '../../testing/index';
import { frontOf } from './index';
import { OPEN_AT_TABLES } from '../../limits/index';

test('one is large for all until a teacher says otherwise, or until they are gone from there', () => {
  const room = lecture();
  const large = () => room.state.stage.featured.class ?? null;
  expect(room.refusal(ana, { type: 'feature', member: 'ana' })?.code).toBe('teachers-only');
  expect(room.refusal(maren, { type: 'feature', member: 'cleo' })?.code).toBe('not-here');
  room.do(maren, { type: 'setFront', tool: 'faces' });
  room.do(maren, { type: 'feature', member: 'ana' });
  expect(large()).toBe('ana');
  expect(frontOf(room.state, 'class')).toBe('picture');
  room.do(maren, { type: 'feature', member: null });
  expect(large()).toBeNull();
  room.do(maren, { type: 'feature', member: 'ben' });
  room.do(maren, {
    ...{ type: 'layTables', seconds: null, limits: OPEN_AT_TABLES },
    tables: [{ name: 'Table 1', members: ['ben'] }],
  });
  expect(large()).toBeNull();
  room.do(maren, { type: 'endTables', now: true });
  room.do(maren, { type: 'feature', member: 'ana' });
  room.happen({ type: 'left', member: 'ana' });
  expect(large()).toBeNull();
});

test('two present side by side where a teacher lets them; a third waits; one goes on alone when that ends', () => {
  const room = lecture({ present: 'open' });
  const presenting = () => room.state.stage.presenting.class ?? [];
  const present = (on: boolean) => ({ type: 'present', on }) as const;
  expect(room.refusal(ana, { type: 'letTwoPresent', on: true })?.code).toBe('teachers-only');
  room.do(maren, { type: 'letTwoPresent', on: true });
  expect(room.do(maren, { type: 'letTwoPresent', on: true })).toMatchObject({ events: [] });
  room.do(ana, present(true));
  room.do(ben, present(true));
  expect(presenting()).toEqual(['ana', 'ben']);
  // A teacher takes the place of whoever began first.
  room.do(maren, present(true));
  expect(presenting()).toEqual(['ben', 'maren']);
  expect(room.refusal(ana, present(true))?.message).toContain('are presenting. You can present when one of');
  room.do(maren, { type: 'letTwoPresent', on: false });
  expect(presenting()).toEqual(['ben']);
  expect(room.refusal(ana, present(true))?.message).toContain('Ben');
  room.do(maren, { type: 'letTwoPresent', on: true });
  room.do(ana, present(true));
  room.happen({ type: 'left', member: 'ben' });
  expect(presenting()).toEqual(['ana']);
  room.do(maren, { type: 'setLimit', capability: 'present', state: 'closed' });
  expect(room.state.stage.presenting).toEqual({});
});
