import { teaches } from '../../roster/role';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { noSettings, withValues, type Layer } from '../../settings/index';
import {
  ana,
  anyStep,
  ben,
  courseLimits,
  entry,
  lecture,
  maren,
  opening,
  TestRoom,
} from '../../testing/index';
import {
  audience,
  classLimit,
  documentOfRoom,
  dueBy,
  entering,
  evolve,
  EVENTS,
  knowing,
  newRoom,
  nextDue,
  readEvent,
  snapshotFor,
  TALK_AT_ONCE,
  versionOf,
  type EventType,
} from '../index';
import { SAMPLES } from './samples';

test('every version of every event that was ever stored is read today', () => {
  for (const [type, rule] of Object.entries(EVENTS)) {
    const samples = SAMPLES.filter((s) => s.body.type === type);
    expect([type, samples.map((s) => s.version).sort()]).toEqual([
      type,
      Array.from({ length: rule.version }, (_, i) => i + 1),
    ]);
    for (const [i, { version, body }] of samples.entries())
      expect(readEvent({ seq: i + 1, at: 5, version, body })).toMatchObject({ type, seq: i + 1, at: 5 });
    const today = samples.find((s) => s.version === rule.version)!;
    for (const { version, body } of samples)
      expect(Object.keys(readEvent({ seq: 1, at: 0, version, body }))).toEqual(
        expect.arrayContaining(Object.keys(today.body).filter((key) => key !== 'grants')),
      );
  }
});

test('a row that holds no event, or one of a later program, is a fault in words', () => {
  const read =
    (body: object, version = 1) =>
    () =>
      readEvent({ seq: 1, at: 0, version, body });
  expect(read({ type: 'exploded' })).toThrow('There is no event of type exploded.');
  expect(read({ type: 'hushed', by: 'maren' }, 9)).toThrow('of a later version');
  expect(read({ type: 'hushed' })).toThrow();
});

test('a room of the first format replays, without an opening', () => {
  const old = SAMPLES.filter((s) => s.version === 1 && ['entered', 'rangIn', 'said'].includes(s.body.type));
  const room = old
    .map((s, i) => readEvent({ seq: i + 1, at: i, ...s }))
    .reduce((state, event) => evolve(state, event), newRoom());
  expect(room.talk.messages).toMatchObject([{ place: 'class' }]);
  expect(classLimit(room, 'speak').because.layer).toBe('college');
});

test('replay of the events alone gives the room, with the permissions that were in force', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 40 }), (steps) => {
      const room = lecture({ speak: 'open', draw: 'open' });
      for (const [actor, command] of steps) room.do(actor, command);
      const stored = room.events.map(({ seq, at, ...body }) => ({
        seq,
        at,
        version: versionOf(body.type as EventType),
        body: JSON.parse(JSON.stringify(body)),
      }));
      expect(stored.map(readEvent).reduce(evolve, newRoom())).toEqual(room.state);
    }),
  );
});

test('a late page has what it would have had, but of long talk the last part, and nothing that is not for it', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 60 }), (steps) => {
      const room = lecture({ writeToStudents: 'open', draw: 'open' });
      for (const [actor, command] of steps) room.do(actor, command);
      for (const viewer of [maren, ana, ben]) {
        const heard = room.events.flatMap((e) => audience(e, viewer, room.state) ?? []);
        const followed = heard.reduce(evolve, newRoom());
        const late = snapshotFor(room.state, viewer);
        // Who is with us is for those who teach; a student's page makes its own of what it hears, and shows nothing of it.
        const same = { seq: 0, notice: null, ...(teaches(viewer.role) ? {} : { withUs: {} }) };
        expect({ ...late, ...same }).toEqual({ ...followed, ...same });
      }
    }),
  );
  const room = lecture({ writeToClass: 'open' });
  for (let i = 0; i < TALK_AT_ONCE + 5; i++)
    room.do(ana, { type: 'say', addressee: { to: 'class' }, text: `word ${i}` });
  const { talk } = snapshotFor(room.state, ben);
  expect([talk.messages.length, talk.earlier, talk.messages[0]!.text]).toEqual([TALK_AT_ONCE, 5, 'word 5']);
});

test('limits of the course that are saved during class reach it; what was set in class stays and says so', () => {
  const room = lecture({ speak: 'closed', draw: 'closed' });
  room.do(maren, { type: 'setLimit', capability: 'draw', state: 'open' });
  const saved: Layer = courseLimits({ speak: 'open', draw: 'byHand' });
  room.happen({ type: 'settingsChanged', by: 'teo', layer: 'course', settings: saved.settings });
  expect(classLimit(room.state, 'speak')).toMatchObject({ state: 'open', because: { layer: 'course' } });
  expect(classLimit(room.state, 'draw')).toMatchObject({
    state: 'open',
    because: { layer: 'live', by: 'maren' },
  });
  expect(room.state.notice!.text).toContain('What was set in class stays.');
});

test('limits that close outside turn switches off, as those in class do', () => {
  const room = lecture({ camera: 'open' });
  room.do(ana, { type: 'camera', on: true });
  room.happen({
    type: 'settingsChanged',
    by: 'maren',
    layer: 'course',
    settings: courseLimits({ camera: 'closed' }).settings,
  });
  expect(room.state.desk.camera).toEqual({});
});

test('each value set in class says who set it', () => {
  const room = lecture().happen(entry('teo', 'Teo Vanterpool', 'assistant'));
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  room.do({ member: 'teo', role: 'assistant' }, { type: 'setLimit', capability: 'draw', state: 'open' });
  expect(classLimit(room.state, 'speak').because.by).toBe('maren');
  expect(classLimit(room.state, 'draw').because.by).toBe('teo');
});

test('what changes nothing stores nothing', () => {
  const room = lecture({ speak: 'open', camera: 'open' });
  const before = room.events.length;
  for (const command of [
    { type: 'microphone', on: false },
    { type: 'camera', on: false },
    { type: 'present', on: false },
    { type: 'lowerHand', member: 'ana' },
  ] as const)
    expect(room.do(ana, command)).toEqual({ ok: true, events: [] });
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  for (const type of ['muteAll', 'takeFloor', 'clearBoard', 'lift', 'ringIn'] as const)
    room.do(maren, { type });
  expect(room.events).toHaveLength(before);
});

const automatic: Layer = {
  name: 'course',
  settings: withValues(noSettings(), 'recording', { automatic: true }, 'maren', 1),
};

test('ring-in and the recording that it starts are one decision', () => {
  const room = new TestRoom().happen(opening([automatic]), entry('maren', 'Maren Oduya', 'teacher'));
  const { events } = room.do(maren, { type: 'ringIn' }) as { events: { type: string }[] };
  expect(events.map((e) => e.type)).toEqual(['rangIn', 'recordingStarted']);
});

test('an always-open room begins with whoever comes first, and records nothing by itself', () => {
  const room = new TestRoom().happen(opening([automatic], { kind: 'open' }));
  room.happen(...entering(room.state, { member: 'ana', name: 'Ana Lanyon', role: 'student' }));
  expect(room.state.bell.phase).toBe('live');
  expect(room.state.recording.state).toBe('off');
  expect(nextDue(room.state)).toBeNull();
  room.happen({ type: 'left', member: 'ana' });
  const left = room.events.at(-1)!.at;
  expect(dueBy(room.state, left + 59_999)).toEqual([]);
  expect(dueBy(room.state, left + 60_000)).toEqual([{ type: 'dismissed', by: null }]);
});

test('a class without a teacher closes minutes after that, past its end in one; not if one returns', () => {
  const room = lecture();
  expect(nextDue(room.state)).toBeNull();
  room.happen({ type: 'left', member: 'maren' });
  expect(nextDue(room.state)?.at).toBe(room.events.at(-1)!.at + 10 * 60_000);
  room.happen(entry('maren', 'Maren Oduya', 'teacher'));
  expect(nextDue(room.state)).toBeNull();
  room.later = 200 * 60_000;
  room.happen({ type: 'left', member: 'maren' });
  expect(nextDue(room.state)?.at).toBe(room.events.at(-1)!.at + 60_000);
});

test('somebody known otherwise is so at once, and loses what they may do no more', () => {
  const room = lecture().happen(entry('teo', 'Teo Vanterpool', 'assistant'));
  room.do({ member: 'teo', role: 'assistant' }, { type: 'microphone', on: true });
  const asStudent = { member: 'teo', name: 'Teo V.', role: 'student' as const };
  room.happen(...knowing(room.state, asStudent));
  expect(room.state.presence.people.teo).toMatchObject({ name: 'Teo V.', role: 'student', present: true });
  expect(room.state.desk.microphone).toEqual({});
  expect(knowing(room.state, asStudent)).toEqual([]);
  expect(entering(room.state, asStudent)).toEqual([]);
});

test('the list of commands and events in the docs is of this registry', () => {
  const written = readFileSync(path.join(__dirname, '../../../../docs/room-events.md'), 'utf8');
  expect(written).toBe(documentOfRoom());
});
