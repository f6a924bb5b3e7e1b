import { ana, lecture, maren } from '../../testing/index';
import { frontOf } from './index';

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
    ...{ type: 'layTables', seconds: null, open: true },
    tables: [{ name: 'Table 1', members: ['ben'] }],
  });
  expect(large()).toBeNull();
  room.do(maren, { type: 'endTables', now: true });
  room.do(maren, { type: 'feature', member: 'ana' });
  room.happen({ type: 'left', member: 'ana' });
  expect(large()).toBeNull();
});
