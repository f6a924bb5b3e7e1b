import { ana, ben, lecture, maren } from '../../testing/index';
import { audience, snapshotFor } from '../kernel/audience';
import { classCaptions } from '../../recording/classCaptions';
import { keptOf } from '../../recording/leftOut';
import { maskedFor } from '../../recording/withheld';

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

test('they are the class’s: who is at a table has none of them', () => {
  const room = lecture();
  room.do(maren, { type: 'setCaptioner', member: 'maren', on: true });
  room.do(maren, {
    ...{ type: 'layTables', seconds: null, open: true },
    tables: [{ name: 'Table 1', members: ['ana'] }],
  });
  room.do(maren, { type: 'caption', text: 'Only in class' });
  expect(audience(room.events.at(-1)!, ana, room.state)).toBeNull();
  expect(snapshotFor(room.state, ana).captions.lines).toEqual([]);
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
    room.happen({ type: 'captioned', by, text, heard: true });
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
