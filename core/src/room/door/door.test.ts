import fc from 'fast-check';
import type { DoorRules } from '../../door/index';
import { noSettings, withValues, type Layer } from '../../settings/index';
import { ana, entry, maren, opening, TestRoom } from '../../testing/index';
import {
  arriving,
  atDoor,
  audience,
  goneFromDoor,
  isHere,
  logOf,
  sends,
  snapshotFor,
  type Comer,
  type RoomCommand,
} from '../index';

const doorOf = (door: Partial<DoorRules>): Layer => ({
  name: 'course',
  settings: withValues(noSettings(), 'door', door, 'maren', 1),
});
const ANA: Comer = { member: 'ana', name: 'Ana Lanyon', role: 'student' };
const BEN: Comer = { member: 'ben', name: 'Ben Garrow', role: 'student' };
const CORIN: Comer = { member: 'corin', name: 'Corin Vane', role: 'guest' };

function evening(door: Partial<DoorRules> = {}) {
  const room = new TestRoom().happen(opening([doorOf(door)]), entry('maren', 'Maren Oduya', 'teacher'));
  room.do(maren, { type: 'ringIn' });
  const comes = (who: Comer) => room.happen(...arriving(room.state, who, room.now));
  const verdict = (who: Comer) => {
    const at = atDoor(room.state, who, room.now);
    return typeof at === 'string' ? at : at.code;
  };
  return { room, comes, verdict };
}
const knocking = (room: TestRoom) => room.state.door.knocks.map((k) => k.member);

test('who knocks waits, once, until let in, turned away, or gone; a teacher never does', () => {
  const { room, comes, verdict } = evening({ classList: 'knocks', guests: 'not' });
  comes(ANA);
  comes(ANA);
  comes(BEN);
  comes(CORIN);
  expect(knocking(room)).toEqual(['ana', 'ben']);
  expect(verdict(CORIN)).toBe('not-let-in');
  expect(isHere(room.state, 'ana')).toBe(false);
  room.do(maren, { type: 'letIn', members: ['ana', 'corin', 'nobody'] });
  expect(room.events.at(-1)).toMatchObject({ type: 'admitted', members: ['ana'] });
  comes(ANA);
  expect(isHere(room.state, 'ana')).toBe(true);
  room.do(maren, { type: 'turnAway', members: ['ben'], word: 'Come on Thursday.' });
  expect([knocking(room), verdict(BEN)]).toEqual([[], 'put-out']);
  expect(atDoor(room.state, BEN, room.now)).toMatchObject({ message: expect.stringContaining('Thursday') });
  room.do(maren, { type: 'letBack', member: 'ben' });
  expect(verdict(BEN)).toBe('in');
  room.happen({ type: 'left', member: 'ana' });
  expect(verdict(ANA)).toBe('in');
  expect(goneFromDoor(room.state, 'ana')).toEqual([]);
});

test('a locked door lets nobody new in; who was in comes back', () => {
  const { room, comes, verdict } = evening();
  comes(ANA);
  room.do(maren, { type: 'lock' });
  room.happen({ type: 'left', member: 'ana' });
  expect([verdict(ANA), verdict(BEN)]).toEqual(['in', 'locked']);
  expect(room.do(maren, { type: 'lock' })).toEqual({ ok: true, events: [] });
  room.do(maren, { type: 'unlock' });
  expect(verdict(BEN)).toBe('in');
});

test('who is put out is out at once, and comes back as the teacher said', () => {
  for (const [back, stands] of [
    ['may', 'in'],
    ['knocks', 'knocks'],
    ['not', 'put-out'],
  ] as const) {
    const { room, comes, verdict } = evening();
    comes(ANA);
    room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
    room.do(ana, { type: 'microphone', on: true });
    expect(sends(room.state, 'ana', 'sound')).toBe(true);
    room.do(maren, { type: 'putOut', member: 'ana', back, reason: 'Noise' });
    expect([isHere(room.state, 'ana'), sends(room.state, 'ana', 'sound')]).toEqual([false, false]);
    expect(verdict(ANA)).toBe(stands);
    // Who may come back and does is out no more.
    comes(ANA);
    expect(Object.keys(room.state.door.out)).toEqual(back === 'may' ? [] : ['ana']);
    expect(
      logOf(room.events)
        .map((l) => l.text)
        .join(),
    ).toContain('put out Ana Lanyon');
  }
  const { room } = evening();
  expect(room.refusal(maren, { type: 'putOut', member: 'maren', back: 'not', reason: '' })?.code).toBe(
    'teaches-here',
  );
});

test('who is late knocks, by the time of the start', () => {
  const { room, verdict } = evening({ late: 'knocks', lateMinutes: 5 });
  expect(verdict(ANA)).toBe('in');
  room.later = 5 * 60_000;
  expect(verdict(ANA)).toBe('knocks');
  // So it is for a small group; a room without dates knows nobody who is late.
  for (const [kind, stands] of [
    ['group', 'knocks'],
    ['open', 'in'],
  ] as const) {
    const other = new TestRoom().happen(opening([doorOf({ late: 'knocks', lateMinutes: 5 })], { kind }));
    expect(atDoor(other.state, ANA, 6 * 60_000)).toBe(stands);
  }
});

test('whatever happens at a door: nobody waits twice or is in and waits, no student learns of it', () => {
  const someone = fc.constantFrom(ANA, BEN, CORIN);
  const member = fc.constantFrom('ana', 'ben', 'corin');
  const step = fc.oneof(
    someone.map((who) => ({ comes: who })),
    member.map((m) => ({ goes: m })),
    fc
      .oneof<fc.Arbitrary<RoomCommand>[]>(
        fc.constantFrom<RoomCommand>({ type: 'lock' }, { type: 'unlock' }),
        fc.record({ type: fc.constant('letIn' as const), members: fc.array(member, { minLength: 1 }) }),
        fc.record({
          type: fc.constant('turnAway' as const),
          members: fc.array(member, { minLength: 1 }),
          word: fc.constant(''),
        }),
        fc.record({
          type: fc.constant('putOut' as const),
          member,
          back: fc.constantFrom('may' as const, 'knocks' as const, 'not' as const),
          reason: fc.constant('Noise'),
        }),
        fc.record({ type: fc.constant('letBack' as const), member }),
      )
      .map((command) => ({ command })),
  );
  fc.assert(
    fc.property(
      fc.array(step, { maxLength: 40 }),
      fc.constantFrom('straight', 'knocks'),
      (steps, classList) => {
        const { room, comes } = evening({ classList: classList as 'knocks', guests: 'knocks' });
        for (const s of steps) {
          const { out, locked } = room.state.door;
          if ('command' in s) room.do(maren, s.command);
          else if ('goes' in s) {
            const goes = isHere(room.state, s.goes) ? [{ type: 'left' as const, member: s.goes }] : [];
            room.happen(...goes, ...goneFromDoor(room.state, s.goes));
          } else {
            const { member: who } = s.comes;
            const before = isHere(room.state, who);
            const known = room.state.presence.people[who] || room.state.door.admitted.includes(who);
            comes(s.comes);
            const entered = !before && isHere(room.state, who);
            if (entered) expect(out[who]?.back === 'not' || (locked && !known && !out[who])).toBeFalsy();
          }
          const waits = knocking(room);
          expect(new Set(waits).size).toBe(waits.length);
          expect(waits.filter((m) => isHere(room.state, m))).toEqual([]);
          expect(waits.filter((m) => room.state.door.out[m]?.back === 'not')).toEqual([]);
        }
        for (const e of room.events)
          if (['knocked', 'admitted', 'turnedAway', 'sentOut', 'takenBack', 'porchTold'].includes(e.type))
            expect(audience(e, ana, room.state)).toBeNull();
        expect(snapshotFor(room.state, ana).door).toMatchObject({ knocks: [], out: {}, admitted: [] });
      },
    ),
  );
});
