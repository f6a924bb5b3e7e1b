import { courseLimits, entry, maren, opening, TestRoom } from '../testing/index';
import { arriving, devicesOf, isOn, logOf, placeOf, sends, speaksBy, type Comer } from '../room/index';
import { keyed, LINE_WORDS, mayNow, pressed, toldOf, whoSpeaks, type TelephoneKey } from './index';
import { OPEN_AT_TABLES } from '../limits/index';

const ANA: Comer = { member: 'ana', name: 'Ana Lanyon', role: 'student' };
const ana = { member: 'ana', role: 'student' as const };

/** A class with Ana on the telephone, who hears what she is told and presses keys. */
function called() {
  const room = new TestRoom().happen(
    opening([courseLimits({ speak: 'byHand' })]),
    entry('maren', 'Maren Oduya', 'teacher'),
  );
  room.do(maren, { type: 'ringIn' });
  room.happen(...arriving(room.state, { ...ANA, way: 'telephone' }, room.now));
  let heard = room.events.length;
  const told = () => {
    const fresh = room.events.slice(heard);
    heard = room.events.length;
    return fresh.flatMap((e) => toldOf(e, room.state, ana) ?? []);
  };
  const press = (key: TelephoneKey) => {
    const act = pressed(room.state, ana, key);
    if (!act) return null;
    if ('say' in act) return act.say;
    const outcome = room.do(ana, act.command);
    return outcome.ok ? told().join(' ') : outcome.refusal.message;
  };
  return { room, told, press };
}

test('a PIN is eight digits; star begins again, more than eight are none of it', () => {
  const typed = (keys: string) => [...keys].reduce((pin, key) => keyed(pin, key as TelephoneKey), '');
  expect(typed('12*3456#78901')).toBe('34567890');
});

test('hand and microphone go by keys, as the limits say, and each is answered', () => {
  const { room, press, told } = called();
  expect(press('1')).toBe('Your hand is raised.');
  expect(press('1')).toBe('Your hand is lowered.');
  expect(press('2')).toContain('Speaking is by hand');
  expect(mayNow(room.state, ana)).toContain('You may not speak now.');
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  expect(told()).toEqual(['You have the floor. Two switches your microphone on.']);
  expect(press('2')).toBe('Your microphone is on.');
  expect(press('3')).toBe('You may speak. Your microphone is on.');
  expect(press('4')).toBe('You have the floor. Your microphone is on, and no other.');
  room.do(maren, { type: 'mute', member: 'ana' });
  expect(told()).toEqual(['Maren Oduya has turned your microphone off.']);
  room.do(maren, { type: 'askOn', member: 'ana' });
  expect(told()).toEqual(['Maren Oduya asks you to switch your microphone on. Press two.']);
  expect(press('0')).toBe(LINE_WORDS.keys);
  expect(press('7')).toBeNull();
});

test('a caller is told what touches speaking and what is for them, not the rest', () => {
  const { room, told } = called();
  room.happen(entry('ben', 'Ben Garrow', 'student'));
  room.do(maren, { type: 'setLimit', capability: 'draw', state: 'open' });
  room.do({ member: 'ben', role: 'student' }, { type: 'raiseHand' });
  room.do(maren, { type: 'say', addressee: { to: 'class' }, text: 'Page 12.' });
  room.do(maren, { type: 'say', addressee: { to: 'member', member: 'ben' }, text: 'You next.' });
  expect(told()).toEqual([]);
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  room.do(maren, { type: 'say', addressee: { to: 'member', member: 'ana' }, text: 'You next.' });
  room.do(maren, { type: 'hush' });
  expect(told()).toEqual([
    'Speaking is now open.',
    'Maren Oduya writes to you: You next.',
    'Maren Oduya has hushed the room. Everything is closed for a moment.',
  ]);
  expect(whoSpeaks(room.state, 'ana')).toBe('No microphone is on.');
});

test('a page and a telephone are one seat; sound goes by the telephone, and opens anew by one’s own act', () => {
  const { room } = called();
  expect(devicesOf(room.state, 'ana')).toEqual({ pages: 0, telephone: true });
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.happen({ type: 'pagesChanged', member: 'ana', pages: 1 });
  expect([sends(room.state, 'ana', 'sound'), speaksBy(room.state, 'ana')]).toEqual([true, 'telephone']);
  room.happen({ type: 'hungUp', member: 'ana' });
  expect([isOn(room.state, 'ana', 'sound'), speaksBy(room.state, 'ana')]).toEqual([false, 'page']);
  room.do(ana, { type: 'microphone', on: true });
  room.happen(...arriving(room.state, { ...ANA, way: 'telephone' }, room.now));
  expect(devicesOf(room.state, 'ana')).toEqual({ pages: 1, telephone: true });
  expect(isOn(room.state, 'ana', 'sound')).toBe(false);
  room.happen({ type: 'left', member: 'ana' });
  room.happen(...arriving(room.state, ANA, room.now));
  expect(devicesOf(room.state, 'ana')).toEqual({ pages: 1, telephone: false });
  expect(logOf(room.events).map((l) => l.text)).toContain('Ana Lanyon hung up.');
});

test('what is put before the class is told: a time and its bell, a question, and that one is asked', () => {
  const { room, told } = called();
  room.do(maren, { type: 'startTimer', seconds: 120, what: 'Think' });
  room.happen({ type: 'timerRang', what: 'Think' });
  const question = { text: 'Is it ebb?', kind: 'yesNo' as const, options: [], right: null, anonymous: false };
  room.do(maren, { type: 'ask', question });
  room.do(maren, { type: 'pick' });
  expect(told()).toEqual([
    '2 minutes from now: Think.',
    'The time is over: Think.',
    'You are asked: Is it ebb?',
    'You are asked.',
  ]);
});

test('a caller is told where they are while the class is at tables, calls a teacher there, and is taken back', () => {
  const { room, told, press } = called();
  room.happen(entry('ben', 'Ben Carrick', 'student'), entry('cleo', 'Cleo Moreau', 'student'));
  told();
  expect(press('5')).toBe('You are with the class: it is at no table.');
  room.do(maren, {
    ...{ type: 'layTables', seconds: 600, limits: OPEN_AT_TABLES, task: 'Read the table of the harbour.' },
    tables: [
      { name: 'Table 1', members: ['ana', 'ben'] },
      { name: 'Table 2', members: ['cleo'] },
    ],
  });
  expect(told()).toEqual([
    'You are at Table 1. With you: Ben Carrick. What is to be done: Read the table of the harbour.',
  ]);
  room.do({ member: 'cleo', role: 'student' }, { type: 'microphone', on: true });
  expect(press('4')).toBe('No microphone is on.');
  expect(press('5')).toBe('Your table calls a teacher.');
  expect(press('5')).toBe('Your table calls no more.');
  room.do({ member: 'cleo', role: 'student' }, { type: 'callHelp', on: true });
  expect(told()).toEqual([]);
  room.do(maren, { type: 'wordToTables', text: 'Five minutes more.' });
  expect(told()).toEqual(['Maren Oduya says to all tables: Five minutes more.']);
  // What one may there is said at the table that it is of.
  room.do(maren, { type: 'goTo', place: placeOf(room.state, 'cleo') });
  told();
  room.do(maren, { type: 'limitTables', limits: { speak: 'closed' }, sheet: 'Quiet work' });
  expect(told()).toEqual([]);
  room.do(maren, { type: 'goTo', place: 'class' });
  told();
  room.do(maren, { type: 'limitTables', limits: {} });
  expect(told()).toEqual(['At the tables it is now as in the class.']);
  room.do(maren, { type: 'endTables' });
  expect(told()).toEqual(['In half a minute everybody is back with the class.']);
  room.do(maren, { type: 'endTables', now: true });
  expect(told()).toEqual(['You are back with the class.']);
});
