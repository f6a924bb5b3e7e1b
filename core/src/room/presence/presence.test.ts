import { ana, ben, courseLimits, lecture, maren } from '../../testing/index';
import { consequencesOf, nameIn } from '../index';

test('a teacher corrects a name, and it is kept; nobody takes a teacher’s', () => {
  const room = lecture();
  const before = room.state;
  const done = room.do(maren, { type: 'rename', member: 'ana', name: 'Ana M. Lanyon' });
  expect(done.ok).toBe(true);
  expect(nameIn(room.state, 'ana')).toBe('Ana M. Lanyon');
  expect(consequencesOf(before, room.events.slice(-1))).toEqual([
    { do: 'rename', member: 'ana', name: 'Ana M. Lanyon', by: 'maren' },
  ]);
  const teacher = nameIn(room.state, 'maren').toUpperCase();
  expect(room.refusal(maren, { type: 'rename', member: 'ana', name: teacher })?.code).toBe('name-taken');
  expect(room.refusal(maren, { type: 'rename', member: 'nobody', name: 'X' })?.code).toBe('never-here');
});

test('a student renames themselves where they may, and nobody else', () => {
  const room = lecture();
  expect(room.refusal(ana, { type: 'rename', member: 'ana', name: 'Anna' })?.code).toBe('closed');
  room.happen({
    type: 'settingsChanged',
    by: 'maren',
    layer: 'course',
    settings: courseLimits({ rename: 'open' }).settings,
  });
  expect(room.refusal(ana, { type: 'rename', member: 'ben', name: 'Anna' })?.code).toBe('teachers-only');
  room.do(ana, { type: 'rename', member: 'ana', name: 'Anna' });
  expect(nameIn(room.state, 'ana')).toBe('Anna');
  expect(room.refusal(ben, { type: 'rename', member: 'maren', name: 'Ben' })?.code).toBe('teachers-only');
});

test('what somebody gave of themselves goes with them, and with what they are called', () => {
  const room = lecture();
  room.happen({ type: 'known', member: 'ana', name: 'Ana L.', role: 'student', pronouns: 'they' });
  expect(room.state.presence.people.ana).toMatchObject({ name: 'Ana L.', pronouns: 'they', present: true });
  room.happen({ type: 'known', member: 'ana', name: 'Ana L.', role: 'student' });
  expect(room.state.presence.people.ana).not.toHaveProperty('pronouns');
});
