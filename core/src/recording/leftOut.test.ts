import type { Leavable } from '../settings/index';
import { ana, ben, lecture, maren } from '../testing/index';
import { forAnybody, isKept, keepsTables, keptOf } from './index';

test('what is left out is nowhere in what a recording tells; students without names are numbered as they came', () => {
  const room = lecture({ writeToClass: 'open', draw: 'open' });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Written by Ana' });
  room.do(ben, { type: 'draw', stroke: { points: [0.1, 0.1], colour: 'ink' } });
  const told = (...left: Parameters<typeof keptOf>[1]) => JSON.stringify(keptOf(room.events, left));
  expect(keptOf(room.events, [])).toEqual(room.events);
  expect(told('writing')).not.toContain('Written by Ana');
  expect(told('writing')).toContain('drawn');
  expect(told('board')).not.toContain('drawn');
  const nameless = told('names');
  expect(nameless).not.toMatch(/Ana Lanyon|Ben/);
  expect(nameless).toContain('Student 1');
  expect(nameless).toContain('Student 2');
  expect(nameless).toContain(room.state.presence.people[maren.member]!.name);
});

test('of voices, cameras and screens those are kept that are not left out; students’ cameras where that is said', () => {
  const without = (...leavesOut: Leavable[]) => ({ leavesOut });
  expect(isKept(null, 'sound', 'student')).toBe(true);
  expect(isKept(without('studentsVoices'), 'sound', 'student')).toBe(false);
  expect(isKept(without('studentsVoices'), 'sound', 'assistant')).toBe(true);
  expect(isKept(without('teachersVoices'), 'sound', 'teacher')).toBe(false);
  expect(isKept(null, 'camera', 'student')).toBe(false);
  expect([keepsTables({ tables: true }), keepsTables({}), keepsTables(null)]).toEqual([true, false, false]);
  expect(keepsTables({ ...without('studentsVoices'), tables: true })).toBe(false);
  expect(isKept({ studentsCameras: true }, 'camera', 'student')).toBe(true);
  expect(isKept({ ...without('names'), studentsCameras: true }, 'camera', 'student')).toBe(false);
  expect(isKept(without('teachersCameras'), 'camera', 'teacher')).toBe(false);
  expect(isKept(without('screens'), 'screen', 'student')).toBe(false);
});

test('by a link that anybody may have no student is named, and nothing that was written is told', () => {
  const room = lecture({ writeToClass: 'open' });
  room.do(maren, { type: 'say', addressee: { to: 'class' }, text: 'From the teacher' });
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'From Ana' });
  const told = JSON.stringify(forAnybody(room.events));
  expect(told).not.toMatch(/Ana Lanyon|From the teacher|From Ana/);
  expect(told).toContain('rangIn');
});
