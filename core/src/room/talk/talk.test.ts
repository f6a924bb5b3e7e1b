import { ana, ben, lecture, maren } from '../../testing/index';
import { audience, snapshotFor } from '../kernel/audience';
import { noticeOf } from '../kernel/telling';

const TO_CLASS = { to: 'class' as const };
const open = () => lecture({ writeToClass: 'open', writeToTeachers: 'open' });
const last = (room: ReturnType<typeof lecture>) => room.state.talk.messages.at(-1)!;

test('a message answers one that its writer may read, and no other', () => {
  const room = open();
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'Between us' });
  const own = last(room).seq;
  expect(room.refusal(ben, { type: 'say', addressee: TO_CLASS, text: 'What?', reply: own })?.code).toBe(
    'no-message',
  );
  expect(room.refusal(ana, { type: 'say', addressee: TO_CLASS, text: 'x', reply: 999 })?.code).toBe(
    'no-message',
  );
  room.do(maren, { type: 'say', addressee: { to: 'member', member: 'ana' }, text: 'Yes', reply: own });
  expect(last(room)).toMatchObject({ text: 'Yes', reply: own });
});

test('who teaches calls everybody over the stage; a student does not', () => {
  const room = open();
  expect(room.refusal(ana, { type: 'say', addressee: TO_CLASS, text: 'Hey', call: true })?.code).toBe(
    'teachers-only',
  );
  room.do(maren, { type: 'say', addressee: TO_CLASS, text: 'Two minutes', call: true });
  expect(noticeOf(room.events.at(-1)!, room.state)).toBe('Two minutes');
  // What is over the stage, a late page is given: so no word for some goes there, and none that was taken back stays.
  expect(
    room.refusal(maren, { type: 'say', addressee: { to: 'teachers' }, text: 'Between us', call: true })?.code,
  ).toBe('call-to-class');
  room.do(maren, { type: 'unsay', message: last(room).seq });
  expect(JSON.stringify(snapshotFor(room.state, ana))).not.toContain('Two minutes');
});

test('what was taken back keeps its place and none of its words, for whoever comes later as well', () => {
  const room = open();
  room.do(ana, { type: 'say', addressee: TO_CLASS, text: 'Xylophone' });
  const { seq } = last(room);
  const said = room.events.at(-1)!;
  expect(room.refusal(ana, { type: 'unsay', message: seq })?.code).toBe('teachers-only');
  room.do(maren, { type: 'unsay', message: seq });
  expect(last(room)).toMatchObject({ seq, text: '', unsaid: true });
  for (const viewer of [ben, maren]) {
    expect(JSON.stringify(snapshotFor(room.state, viewer))).not.toContain('Xylophone');
    expect(audience(said, viewer, room.state)).toMatchObject({ type: 'said', text: '' });
  }
  const { length } = room.events;
  room.do(maren, { type: 'unsay', message: seq });
  expect(room.events).toHaveLength(length);
  expect(room.refusal(maren, { type: 'keepQuestion', message: seq, as: 'later' })?.code).toBe('no-message');
});

test('a message is kept as a question, answered, and let go; only those whom it was for are told', () => {
  const room = open();
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'Why neaps?' });
  const { seq } = last(room);
  room.do(maren, { type: 'keepQuestion', message: seq, as: 'later' });
  expect(last(room).kept).toBe('later');
  expect(audience(room.events.at(-1)!, ben, room.state)).toBeNull();
  expect(audience(room.events.at(-1)!, ana, room.state)).not.toBeNull();
  room.do(maren, { type: 'keepQuestion', message: seq, as: 'answered' });
  room.do(maren, { type: 'keepQuestion', message: seq, as: 'none' });
  expect(last(room)).not.toHaveProperty('kept');
});
