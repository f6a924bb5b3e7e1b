import fc from 'fast-check';
import { Capability, Permission, type Limits } from '../api/limits';
import type { RoomCommand, RoomEvent, StoredEvent } from '../api/room';
import { COLLEGE_LIMITS } from '../limits/index';
import {
  audience,
  classLimit,
  decide,
  evolve,
  may,
  newRoom,
  refusalWords,
  sends,
  TEACHING_COMMANDS,
  type Actor,
  type RoomState,
} from './index';

const maren: Actor = { member: 'maren', role: 'teacher' };
const ana: Actor = { member: 'ana', role: 'student' };
const ben: Actor = { member: 'ben', role: 'student' };
const NAMES: Record<string, string> = { maren: 'Maren Oduya', ana: 'Ana Lanyon', ben: 'Ben Garrow' };

/** A room that takes commands as the server does: decided, numbered, evolved. */
class TestRoom {
  state: RoomState;
  events: StoredEvent[] = [];

  constructor(limits: Partial<Limits> = {}) {
    this.state = newRoom([
      { name: 'course', values: { ...COLLEGE_LIMITS, ...limits }, by: 'Maren Oduya', at: 1 },
    ]);
    for (const { member, role } of [maren, ana, ben])
      this.happen({ type: 'entered', member, role, name: NAMES[member]! });
  }
  happen(...events: RoomEvent[]) {
    for (const event of events) {
      const stored = { ...event, seq: this.state.seq + 1, at: 1000 * (this.state.seq + 1) } as StoredEvent;
      this.events.push(stored);
      this.state = evolve(this.state, stored);
    }
  }
  do(actor: Actor, command: RoomCommand) {
    const decision = decide(this.state, actor, command);
    if (decision.ok) this.happen(...decision.events);
    return decision;
  }
  refusal(actor: Actor, command: RoomCommand) {
    const decision = decide(this.state, actor, command);
    return decision.ok ? null : decision.refusal;
  }
}

function liveRoom(limits: Partial<Limits> = {}) {
  const room = new TestRoom(limits);
  room.do(maren, { type: 'ringIn' });
  return room;
}

test('everyone walks in muted, with the camera off', () => {
  const { occupants } = liveRoom({ speak: 'open' }).state;
  for (const o of Object.values(occupants)) expect([o.microphone, o.camera]).toEqual([false, false]);
});

test('a closed microphone is refused with who closed it and what one can do instead', () => {
  const room = liveRoom({ speak: 'closed' });
  expect(room.refusal(ana, { type: 'microphone', on: true })!.message).toBe(
    'Speaking is closed for this course by Maren Oduya. You can raise your hand or write to a teacher.',
  );
  expect(room.do(maren, { type: 'microphone', on: true }).ok).toBe(true);
});

test('a student gives no teaching command, whatever it is', () => {
  const room = liveRoom({ speak: 'open' });
  const commands: Record<string, RoomCommand> = {
    ringIn: { type: 'ringIn' },
    dismiss: { type: 'dismiss' },
    setLimit: { type: 'setLimit', capability: 'speak', state: 'open' },
    hush: { type: 'hush' },
    lift: { type: 'lift' },
    mute: { type: 'mute', member: 'ben' },
    muteAll: { type: 'muteAll' },
    giveFloor: { type: 'giveFloor', member: 'ana' },
    takeFloor: { type: 'takeFloor' },
    clearBoard: { type: 'clearBoard' },
    pauseRecording: { type: 'pauseRecording' },
    resumeRecording: { type: 'resumeRecording' },
  };
  expect(Object.keys(commands).sort()).toEqual([...TEACHING_COMMANDS].sort());
  for (const command of Object.values(commands))
    expect(room.refusal(ana, command)?.code).toBe('teachers-only');
});

test('who is not in the room commands nothing', () => {
  const room = liveRoom();
  room.happen({ type: 'left', member: 'ana' });
  expect(room.refusal(ana, { type: 'raiseHand' })?.code).toBe('absent');
  expect(room.refusal({ member: 'nobody', role: 'teacher' }, { type: 'dismiss' })?.code).toBe('absent');
});

test('the floor lets one person speak and ends with the turn', () => {
  const room = liveRoom({ speak: 'byHand' });
  room.do(ana, { type: 'raiseHand' });
  room.do(ben, { type: 'raiseHand' });
  expect(room.state.hands.map((h) => h.member)).toEqual(['ana', 'ben']);
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  expect(room.state.hands.map((h) => h.member)).toEqual(['ben']);
  expect(may(room.state, 'ana', 'student', 'speak').allowed).toBe(true);
  expect(may(room.state, 'ben', 'student', 'speak').allowed).toBe(false);
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'giveFloor', member: 'ben' });
  expect(room.state.floor).toBe('ben');
  expect(sends(room.state, 'ana', 'microphone')).toBe(false);
});

test('closing a limit turns switches off for good: opening again opens no microphone', () => {
  const room = liveRoom({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'closed' });
  expect(sends(room.state, 'ana', 'microphone')).toBe(false);
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  expect(sends(room.state, 'ana', 'microphone')).toBe(false);
});

test('mute takes one, mute all takes every student and no teacher', () => {
  const room = liveRoom({ speak: 'open' });
  for (const who of [maren, ana, ben]) room.do(who, { type: 'microphone', on: true });
  room.do(maren, { type: 'mute', member: 'ana' });
  expect(['ana', 'ben', 'maren'].map((m) => sends(room.state, m, 'microphone'))).toEqual([false, true, true]);
  room.do(maren, { type: 'muteAll' });
  expect(['ben', 'maren'].map((m) => sends(room.state, m, 'microphone'))).toEqual([false, true]);
});

test('hush leaves a word to a teacher open, and no limit is set beneath it', () => {
  const room = liveRoom({ speak: 'open', writeToClass: 'open' });
  room.do(maren, { type: 'hush' });
  expect(room.refusal(ana, { type: 'say', addressee: { to: 'class' }, text: 'hello' })!.message).toContain(
    'has hushed',
  );
  expect(room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'I am lost' }).ok).toBe(true);
  expect(room.refusal(maren, { type: 'setLimit', capability: 'speak', state: 'open' })?.code).toBe('hushed');
});

const anyCommand: fc.Arbitrary<RoomCommand> = fc.oneof(
  fc.record({
    type: fc.constant('setLimit' as const),
    capability: fc.constantFrom(...Capability.options),
    state: fc.constantFrom(...Permission.options),
  }),
  fc.record({
    type: fc.constantFrom('microphone' as const, 'camera' as const, 'present' as const),
    on: fc.boolean(),
  }),
  fc.record({
    type: fc.constantFrom('mute' as const, 'giveFloor' as const, 'lowerHand' as const),
    member: fc.constantFrom('ana', 'ben'),
  }),
  fc.record({ type: fc.constantFrom('raiseHand' as const, 'takeFloor' as const, 'muteAll' as const) }),
);
const anyStep = fc.tuple(fc.constantFrom(maren, ana, ben), anyCommand);

const picture = (state: RoomState) => ({
  limits: Capability.options.map((c) => classLimit(state, c).state),
  sending: ['maren', 'ana', 'ben'].map((m) =>
    (['microphone', 'camera', 'screen'] as const).map((w) => sends(state, m, w)),
  ),
  floor: state.floor,
  hands: state.hands,
});

test('lifting a hush brings back exactly what was before it, whatever that was', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 30 }), (steps) => {
      const room = liveRoom();
      for (const [actor, command] of steps) room.do(actor, command);
      const before = picture(room.state);
      room.do(maren, { type: 'hush' });
      for (const m of ['ana', 'ben']) expect(sends(room.state, m, 'microphone')).toBe(false);
      room.do(maren, { type: 'lift' });
      expect(picture(room.state)).toEqual(before);
    }),
  );
});

test('nobody ever sends what the limits do not allow, after any commands', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(anyStep, fc.boolean()), { maxLength: 40 }), (steps) => {
      const room = liveRoom();
      for (const [[actor, command], hush] of steps) {
        room.do(actor, command);
        if (hush) room.do(maren, { type: room.state.hush ? 'lift' : 'hush' });
        for (const m of ['ana', 'ben']) {
          if (sends(room.state, m, 'microphone'))
            expect(may(room.state, m, 'student', 'speak').allowed).toBe(true);
          if (sends(room.state, m, 'camera'))
            expect(may(room.state, m, 'student', 'camera').allowed).toBe(true);
          if (sends(room.state, m, 'screen'))
            expect(may(room.state, m, 'student', 'present').allowed).toBe(true);
        }
      }
    }),
  );
});

test('a page that evolves the same events has the same room', () => {
  const room = liveRoom({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'say', addressee: { to: 'class' }, text: 'Good evening.' });
  room.do(maren, { type: 'draw', stroke: { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' } });
  const again = room.events.reduce(evolve, newRoom(room.state.base));
  expect(again).toEqual(room.state);
});

test('a word to the teachers reaches them and its writer, and no other student', () => {
  const room = liveRoom();
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'May I leave early?' });
  const said = room.events.at(-1)!;
  expect(audience(said, ana)).toEqual(said);
  expect(audience(said, maren)).toEqual(said);
  expect(audience(said, ben)).toBeNull();
});

test('students write to one another only where it is open, and a teacher can read it', () => {
  const room = liveRoom();
  const note: RoomCommand = { type: 'say', addressee: { to: 'member', member: 'ben' }, text: 'psst' };
  expect(room.refusal(ana, note)?.code).toBe('closed');
  room.do(maren, { type: 'setLimit', capability: 'writeToStudents', state: 'open' });
  expect(room.do(ana, note).ok).toBe(true);
  expect(audience(room.events.at(-1)!, maren)).not.toBeNull();
  expect(
    room.do(ana, { type: 'say', addressee: { to: 'member', member: 'maren' }, text: 'to the teacher' }).ok,
  ).toBe(true);
});

test('one presents at a time; a teacher takes it over', () => {
  const room = liveRoom({ present: 'open' });
  room.do(ana, { type: 'present', on: true });
  expect(room.refusal(ben, { type: 'present', on: true })!.message).toContain('Ana Lanyon is presenting');
  room.do(maren, { type: 'present', on: true });
  expect(room.state.presenting).toBe('maren');
});

test('dismissal empties the room, and nothing more is taken', () => {
  const room = liveRoom();
  room.do(maren, { type: 'dismiss' });
  expect(Object.values(room.state.occupants).some((o) => o.present)).toBe(false);
  expect(room.refusal(maren, { type: 'ringIn' })?.code).toBe('absent');
});

test('each change is told to students in one line', () => {
  const room = liveRoom();
  const line = (command: RoomCommand) => (room.do(maren, command), room.state.notice?.text);
  expect(line({ type: 'setLimit', capability: 'writeToClass', state: 'closed' })).toBe(
    'Writing to the class is now closed.',
  );
  expect(line({ type: 'setLimit', capability: 'speak', state: 'byHand' })).toBe(
    'Speaking is now by hand: raise yours to ask.',
  );
  expect(line({ type: 'giveFloor', member: 'ana' })).toBe('Ana Lanyon has the floor.');
  expect(line({ type: 'hush' })).toContain('Maren Oduya has hushed the room');
});

test('an observer may do nothing', () => {
  const room = liveRoom({ speak: 'open' });
  const observer: Actor = { member: 'olu', role: 'observer' };
  room.happen({ type: 'entered', member: 'olu', role: 'observer', name: 'Olu' });
  expect(room.refusal(observer, { type: 'microphone', on: true })).toEqual({
    code: 'closed',
    message: 'Observers watch and listen.',
  });
  expect(refusalWords(room.state, observer, 'draw')).toBe('Observers watch and listen.');
});
