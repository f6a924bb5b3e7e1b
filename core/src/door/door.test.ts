import { noSettings, withValues } from '../settings/index';
import { COLLEGE_DOOR, doorFor, doorRules, entryFor, type DoorRules, type DoorSession } from './index';

const MINUTE = 60_000;
const START = Date.UTC(2026, 9, 6, 21, 30);
const rules: DoorRules = COLLEGE_DOOR;
const session = (state: DoorSession['state'] = 'planned'): DoorSession => ({
  state,
  startsAt: START,
  endsAt: START + 80 * MINUTE,
  lingerMinutes: 10,
});
const at = (minutes: number) => START + minutes * MINUTE;

test('before its time the door is shut and says when it opens', () => {
  expect(doorFor(session(), rules, 'student', at(-30))).toEqual({
    open: false,
    because: 'early',
    opensAt: at(-15),
  });
  expect(doorFor(session(), rules, 'teacher', at(-30))).toEqual({ open: true });
  expect(doorFor(session(), rules, 'teacher', at(-180))).toMatchObject({
    because: 'early',
    opensAt: at(-120),
  });
});

test('a teacher goes first where the rules say so', () => {
  expect(doorFor(session(), rules, 'student', at(0))).toEqual({ open: false, because: 'teacher' });
  expect(doorFor(session(), { ...rules, teacherFirst: false }, 'student', at(0))).toEqual({ open: true });
});

test('once rung in it is open until dismissal, however long that takes', () => {
  expect(doorFor(session('live'), rules, 'student', at(-60))).toEqual({ open: true });
  expect(doorFor(session('live'), rules, 'student', at(500))).toEqual({ open: true });
});

test('after class, after its time, or cancelled, it is shut for everyone', () => {
  for (const role of ['student', 'teacher'] as const) {
    expect(doorFor(session('held'), rules, role, at(10))).toEqual({ open: false, because: 'over' });
    expect(doorFor(session(), rules, role, at(91))).toEqual({ open: false, because: 'over' });
    expect(doorFor(session('cancelled'), rules, role, at(0))).toEqual({ open: false, because: 'cancelled' });
  }
});

test('class list, guests and who is late come in as the rules say, the stricter of two', () => {
  const own: DoorRules = {
    ...rules,
    classList: 'straight',
    guests: 'knocks',
    late: 'knocks',
    lateMinutes: 10,
  };
  const entries = (r: DoorRules, minutes: number) =>
    (['teacher', 'student', 'guest'] as const).map((role) => entryFor(r, { role }, START, at(minutes)));
  expect(entries(own, -5)).toEqual(['straight', 'straight', 'knocks']);
  expect(entries(own, 9)).toEqual(['straight', 'straight', 'knocks']);
  expect(entries(own, 10)).toEqual(['straight', 'knocks', 'knocks']);
  expect(entries({ ...own, guests: 'not' }, 10)).toEqual(['straight', 'knocks', 'not']);
  expect(entries({ ...own, late: 'not' }, 10)).toEqual(['straight', 'not', 'not']);
});

test('who comes by the class link has rules of its own, a caller the stricter of two; a visitor that nothing is said of is a guest', () => {
  const own: DoorRules = {
    ...rules,
    guests: 'straight',
    accounts: 'knocks',
    visitors: 'not',
    telephone: 'knocks',
  };
  const entry = (who: Parameters<typeof entryFor>[1]) => entryFor(own, who, START, at(0));
  expect(entry({ role: 'guest' })).toBe('straight');
  expect(entry({ role: 'guest', came: 'account' })).toBe('knocks');
  expect(entry({ role: 'guest', came: 'visitor' })).toBe('not');
  expect(entry({ role: 'guest', came: 'visitor', way: 'telephone' })).toBe('not');
  expect(entry({ role: 'student', way: 'telephone' })).toBe('knocks');
  // Whoever is on the list by now is of the list, however they came.
  expect(entry({ role: 'student', came: 'account' })).toBe('straight');
  expect(entry({ role: 'teacher', way: 'telephone' })).toBe('straight');
  const said = (door: object) =>
    doorRules([{ name: 'course', settings: withValues(noSettings(), 'door', door, null, 0) }]);
  expect(said({ guests: 'knocks' })).toMatchObject({ visitors: 'knocks', accounts: 'straight' });
  expect(said({ guests: 'knocks', visitors: 'straight' }).visitors).toBe('straight');
});
