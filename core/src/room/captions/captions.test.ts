import { ana, ben, lecture, maren } from '../../testing/index';
import { audience, snapshotFor } from '../kernel/audience';
import { classCaptions } from '../../recording/classCaptions';
import { keptOf } from '../../recording/leftOut';
import { heardBy, maskedFor } from '../../recording/withheld';
import type { Actor } from '../kernel/concern';
import type { StoredEvent } from '../kernel/messages';
import { CLASS } from '../kernel/place';
import { LINES_AT_HAND } from './state';
import { OPEN_AT_TABLES } from '../../limits/index';

test('who was asked to writes down what is said, mends it, and nobody else does', () => {
  const room = lecture();
  expect(room.refusal(maren, { type: 'caption', text: 'Good evening' })?.code).toBe('no-captioner');
  expect(room.refusal(ana, { type: 'setCaptioner', member: 'ana', on: true })?.code).toBe('teachers-only');
  expect(room.refusal(maren, { type: 'setCaptioner', member: 'cleo', on: true })?.code).toBe('not-here');
  room.do(maren, { type: 'setCaptioner', member: 'ana', on: true });
  room.do(ana, { type: 'caption', text: 'The tied turns' });
  const { seq } = room.events.at(-1)!;
  room.do(ana, { type: 'caption', text: 'The tide turns', instead: seq });
  room.do(ana, { type: 'caption', text: 'at six.' });
  expect(snapshotFor(room.state, ben).captions.lines.map((l) => l.text)).toEqual([
    'The tide turns',
    'at six.',
  ]);
  expect(room.refusal(ana, { type: 'caption', text: '' })?.code).toBe('no-words');
  expect(room.refusal(ana, { type: 'caption', text: 'x', instead: 9999 })?.code).toBe('no-line');
  room.do(maren, { type: 'setCaptioner', member: 'ana', on: false });
  expect(room.refusal(ana, { type: 'caption', text: 'More' })?.code).toBe('no-captioner');
});

test('each is of where it was said: a table has none of the class’s, and neither another’s', () => {
  const room = lecture();
  room.do(maren, { type: 'setCaptioner', member: 'maren', on: true });
  room.do(maren, {
    ...{ type: 'layTables', seconds: null, limits: OPEN_AT_TABLES },
    tables: [
      { name: 'Table 1', members: ['ana'] },
      { name: 'Table 2', members: ['ben'] },
    ],
  });
  room.do(maren, { type: 'setCaptioner', member: 'ana', on: true });
  const textsOf = (viewer: Actor) => snapshotFor(room.state, viewer).captions.lines.map((l) => l.text);
  room.do(maren, { type: 'caption', text: 'Only in class' });
  const inClass = room.events.at(-1)!;
  expect(audience(inClass, ana, room.state)).toBeNull();
  expect(textsOf(ana)).toEqual([]);
  room.do(ana, { type: 'caption', text: 'Only at the table' });
  const atTable = room.events.at(-1)!;
  expect(audience(atTable, ben, room.state)).toBeNull();
  expect([textsOf(ana), textsOf(ben)]).toEqual([['Only at the table'], []]);
  expect(textsOf(maren)).toEqual(['Only in class', 'Only at the table']);
  // One mends what was said where one is.
  const mended = (actor: Actor, { seq }: StoredEvent) =>
    room.refusal(actor, { type: 'caption', text: 'x', instead: seq })?.code;
  expect([mended(ana, inClass), mended(maren, atTable)]).toEqual(['no-line', 'no-line']);
  // What is said much at one takes nothing of another's.
  for (let i = 0; i < 60; i++) room.do(ana, { type: 'caption', text: `Line ${i}` });
  expect(textsOf(ana)).toHaveLength(LINES_AT_HAND);
  expect(textsOf(ana).at(-1)).toBe('Line 59');
  expect(textsOf(maren)[0]).toBe('Only in class');
  // What was said apart is in no recording of the class.
  const whole = [{ from: 0, until: room.now + 1000 }];
  expect(classCaptions(room.events, whole).map((c) => c.text)).toEqual(['Only in class']);
  expect(JSON.stringify(heardBy(room.events, maren))).not.toMatch(/the table|Line 5/);
});

test('in the recording each stands where it was said, mended, one after another, and none of a pause', () => {
  const room = lecture();
  room.do(maren, { type: 'setCaptioner', member: 'maren', on: true });
  const write = (text: string, more: object = {}) => {
    room.later += 10_000;
    room.do(maren, { type: 'caption', text, ...more });
    return room.events.at(-1)!;
  };
  const first = write('Good evening');
  const paused = write('In the pause');
  const last = write('The tied turns');
  write('The tide turns', { instead: last.seq });
  const removed = write('Nothing');
  write('', { instead: removed.seq });
  const parts = [
    { from: first.at - 9000, until: first.at + 1000 },
    { from: paused.at + 1000, until: last.at + 5000 },
  ];
  const cues = classCaptions(room.events, parts);
  expect(cues.map((c) => c.text)).toEqual(['Good evening', 'The tide turns']);
  expect(cues[0]!.from).toBe(9000 - 1200 - 45 * 12);
  expect(cues[1]!.from).toBe(10_000 + (last.at - paused.at - 1000) - 1200 - 45 * 14);
  for (const [i, c] of cues.entries()) {
    expect(c.until).toBeGreaterThan(c.from);
    expect(c.until).toBeLessThanOrEqual(cues[i + 1]?.from ?? Infinity);
  }
});

test('a program’s lines are said by whoever spoke, are mended by those who write, and are none of who withheld', () => {
  const room = lecture();
  expect(room.refusal(ana, { type: 'letListen', on: true })?.code).toBe('teachers-only');
  room.do(maren, { type: 'letListen', on: true });
  const { length } = room.events;
  room.do(maren, { type: 'letListen', on: true });
  expect(room.events).toHaveLength(length);
  const hears = (by: string, text: string) => {
    room.later += 10_000;
    room.happen({ type: 'captioned', place: CLASS, by, text, heard: true });
    return room.events.at(-1)!;
  };
  const first = hears('ana', 'The tied turns');
  const second = hears('ben', 'At six');
  room.do(maren, { type: 'setCaptioner', member: 'maren', on: true });
  room.do(maren, { type: 'caption', text: 'The tide turns', instead: first.seq });
  expect(snapshotFor(room.state, ben).captions).toMatchObject({
    listens: true,
    lines: [
      { by: 'ana', text: 'The tide turns', heard: true },
      { by: 'ben', text: 'At six', heard: true },
    ],
  });
  const whole = [{ from: 0, until: room.now + 1000 }];
  expect(classCaptions(room.events, whole).map((c) => c.text)).toEqual(['The tide turns', 'At six']);
  room.do(ben, { type: 'answerRecording', agrees: false });
  expect(classCaptions(room.events, whole).map((c) => c.text)).toEqual(['The tide turns']);
  room.do(maren, { type: 'caption', text: 'At seven', instead: second.seq });
  const told = JSON.stringify(maskedFor(room.events, new Set(['ben'])));
  expect(told).toContain('The tide turns');
  expect(told).not.toMatch(/At six|At seven/);
  expect(JSON.stringify(keptOf(room.events, ['studentsVoices']))).not.toMatch(/The ti|At s/);
  room.do(maren, { type: 'dismiss' });
  expect(room.state.captions.listens).toBe(false);
});
