import { ANYBODY, chaptersOf, heardBy } from '../recording/index';
import { ana, ben, entry, lecture, maren } from '../testing/index';
import { pressed, toldOf } from '../telephone/index';
import {
  audience,
  dueBy,
  hiddenCameras,
  may,
  newRoom,
  evolve,
  peopleFor,
  sees,
  seers,
  snapshotFor,
  type Actor,
  type StoredEvent,
} from './index';

const observer: Actor = { member: 'olu', role: 'observer' };
const nameless = () => {
  const room = lecture({ seeNames: 'closed', seeMarks: 'closed', seeCameras: 'closed' });
  return room.happen(entry('olu', 'Olu Observer', 'observer'));
};
const textOf = (what: unknown) => JSON.stringify(what);

test('who may not know names has no other student’s, by no way; teachers’ and their own they have', () => {
  const room = nameless();
  room.happen({ type: 'renamed', by: 'maren', member: 'ben', name: 'Benedict' });
  room.do(maren, { type: 'giveFloor', member: 'ben' });
  const heard = room.events.flatMap((e) => audience(e, ana, room.state) ?? []);
  const page = heard.reduce(evolve, newRoom());
  for (const had of [heard, page, snapshotFor(room.state, ana)])
    expect(textOf(had)).not.toMatch(/Garrow|Benedict|Olu/);
  expect(page.notice?.text).toBe('Student 2 has the floor.');
  expect(page.presence.people.ana!.name).toBe('Ana Lanyon');
  expect(page.presence.people.maren!.name).toBe('Maren Oduya');
  for (const viewer of [maren, observer])
    expect(snapshotFor(room.state, viewer).presence.people.ben!.name).toBe('Benedict');
  room.do(ben, { type: 'microphone', on: true });
  expect(pressed(room.state, ana, '4')).toEqual({
    say: 'Student 2 has the floor. The microphone of Student 2 is on.',
  });
  room.happen({
    ...{ type: 'said', from: 'ben', addressee: { to: 'member', member: 'ana' } },
    ...{ text: 'Hello', place: 'class' },
  });
  expect(toldOf(room.events.at(-1)!, room.state, ana)).toBe('Student 2 writes to you: Hello');
  const list = [maren, ana, ben].map((a) => ({ ...a, name: a.member }));
  expect(peopleFor(room.state, ana, list).map((p) => p.name)).toEqual(['maren', 'ana']);
  expect(peopleFor(room.state, maren, list)).toEqual(list);
});

test('an exception lets one see what the class does not, or the other way round', () => {
  const room = lecture({ seeNames: 'closed' });
  const open = { type: 'excepted', by: 'maren', capability: 'seeNames', until: null } as const;
  room.happen({ ...open, member: 'ana', state: 'open' });
  expect([ana, ben].map((a) => sees(room.state, a, 'seeNames'))).toEqual([true, false]);
  expect(seers(room.state, 'seeNames')).toEqual(['maren', 'ana']);
  room.do(maren, { type: 'setLimit', capability: 'seeNames', state: 'open' });
  expect(seers(room.state, 'seeNames')).toBeNull();
  room.happen({ ...open, member: 'ana', state: 'closed' });
  expect(seers(room.state, 'seeNames')).toEqual(['maren', 'ben']);
});

test('hands and signs are one’s own and the teachers’ where marks are closed', () => {
  const room = nameless();
  room.do(ana, { type: 'raiseHand' });
  room.do(ana, { type: 'giveSign', sign: 'lost' });
  const own = room.events.slice(-2);
  const has = (viewer: Actor) => own.map((e) => audience(e, viewer, room.state) !== null);
  expect([ana, ben, maren, observer].map(has)).toEqual([
    [true, true],
    [false, false],
    [true, true],
    [true, true],
  ]);
  expect(snapshotFor(room.state, ben)).toMatchObject({ floor: { hands: [] }, signs: {} });
  expect(snapshotFor(room.state, ana).signs.ana?.sign).toBe('lost');
});

test('cameras of the others are hidden, but for who teaches and who has the floor', () => {
  const room = nameless();
  expect([...hiddenCameras(room.state, ana)]).toEqual(['ben', 'olu']);
  expect(hiddenCameras(room.state, maren).size).toBe(0);
  room.do(maren, { type: 'giveFloor', member: 'ben' });
  expect([...hiddenCameras(room.state, ana)]).toEqual(['olu']);
});

test('a sign fades by itself, with those given about then; "away" stands; and what is closed can be taken back', () => {
  const room = lecture();
  room.do(ana, { type: 'giveSign', sign: 'slower' });
  room.do(ben, { type: 'giveSign', sign: 'agree' });
  expect(room.do(ben, { type: 'giveSign', sign: 'agree' })).toMatchObject({ ok: true, events: [] });
  room.do(maren, { type: 'giveSign', sign: 'away' });
  room.do(maren, { type: 'setLimit', capability: 'react', state: 'closed' });
  expect(room.refusal(ana, { type: 'giveSign', sign: 'faster' })?.message).toContain('Signs are closed');
  expect(dueBy(room.state, room.now)).toEqual([]);
  const gone = dueBy(room.state, room.now + 90_000);
  expect(gone.map((e) => 'member' in e && e.member)).toEqual(['ana', 'ben']);
  expect(room.do(ben, { type: 'giveSign', sign: null }).ok).toBe(true);
  expect(Object.keys(room.happen(...gone).state.signs)).toEqual(['maren']);
  expect(room.happen({ type: 'left', member: 'maren' }).state.signs).toEqual({});
});

test('writing for one question is over once so many students have written, or its time is', () => {
  const room = lecture({ writeToClass: 'closed' });
  const openFor = { type: 'openFor', capability: 'writeToClass', seconds: 60, answers: 2 } as const;
  const say = (by: Actor) => room.do(by, { type: 'say', addressee: { to: 'class' }, text: 'Ebb' });
  room.do(maren, openFor);
  for (const by of [ana, ana, maren]) say(by);
  expect(dueBy(room.state, room.now)).toEqual([]);
  say(ben);
  expect(dueBy(room.state, room.now)).toEqual([{ type: 'lentBack', by: null, capability: 'writeToClass' }]);
  room.happen(...dueBy(room.state, room.now));
  expect(say(ana).ok).toBe(false);
  room.do(maren, openFor);
  say(ana);
  expect(dueBy(room.state, room.now + 60_000)).toHaveLength(1);
});

test('a recording names nobody to those from whom names were hidden in any part of the class', () => {
  const room = lecture();
  room.do(maren, { type: 'setLimit', capability: 'seeNames', state: 'closed' });
  room.do(maren, { type: 'giveFloor', member: 'ben' });
  room.do(maren, { type: 'setLimit', capability: 'seeNames', state: 'open' });
  const parts = [{ from: 0, until: 1e9 }];
  const chapters = (events: readonly StoredEvent[]) => chaptersOf(parts, [...events]).map((c) => c.title);
  expect(chapters(heardBy(room.events, ANYBODY))).toContain('Student 2 has the floor');
  expect(textOf(heardBy(room.events, ana))).not.toMatch(/Garrow/);
  expect(textOf(heardBy(room.events, ana))).toMatch(/Ana Lanyon/);
  expect(heardBy(room.events, maren)).toEqual(room.events);
  const open = lecture();
  expect(heardBy(open.events, ana)).toEqual(open.events);
  expect(may(open.state, observer, 'seeNames').allowed).toBe(true);
  expect(may(open.state, observer, 'react').allowed).toBe(false);
});
