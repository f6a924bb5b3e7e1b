import { entry, lecture, maren } from '@nimble-bell/core/testing';
import type { Logger } from 'pino';
import { StandInRelay } from '../testing/standInRelay';
import type { Room } from '../room/room';
import type { RoomListener } from '../room/room';
import type { Captioner, Heard } from './captioner';
import { followCaptions } from './follow';
import { scripted } from './scripted';

const log = { warn: () => {} } as unknown as Logger;
const settled = () => new Promise((resolve) => setImmediate(resolve));

describe('the stand-in', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test('it says its script while somebody is heard, a line a sentence, and is silent with them', () => {
    const said: Heard[] = [];
    const reading = scripted.listen('s', (heard) => said.push(heard));
    jest.advanceTimersByTime(5000);
    expect(said).toEqual([]);
    reading.voice('maren', true);
    jest.advanceTimersByTime(330 * 3);
    expect(said.at(-1)).toEqual({ publisher: 'maren', text: 'Good evening, everybody.', whole: true });
    expect(said.filter((h) => !h.whole).map((h) => h.text)).toEqual(['Good', 'Good evening,']);
    jest.advanceTimersByTime(330 * 2);
    // A breath is no end.
    reading.voice('maren', false);
    jest.advanceTimersByTime(1000);
    reading.voice('maren', true);
    jest.advanceTimersByTime(330);
    expect(said.at(-1)).toMatchObject({ text: 'Today we look', whole: false });
    reading.voice('maren', false);
    jest.advanceTimersByTime(1300);
    expect(said.at(-1)).toMatchObject({ text: 'Today we look', whole: true });
    const { length } = said;
    jest.advanceTimersByTime(5000);
    expect(said).toHaveLength(length);
    // The next to speak goes on, in their name; another beside them waits.
    reading.voice('ana', true);
    reading.voice('ben', true);
    jest.advanceTimersByTime(330 * 11);
    expect(said.at(-1)!.publisher).toBe('ana');
    reading.close();
    jest.advanceTimersByTime(5000);
    expect(said.filter((h) => h.publisher === 'ben')).toEqual([]);
  });
});

/** A class, a captioner of the test's, and what reaches the room. */
function followed() {
  const test = lecture();
  const listeners: Partial<RoomListener>[] = [];
  const room = {
    session: 's',
    get state() {
      return test.state;
    },
    happen: async (events: (state: typeof test.state) => never[]) => void test.happen(...events(test.state)),
  } as unknown as Room;
  const relay = new StandInRelay();
  const open: ((heard: Heard) => void)[] = [];
  const voices: string[] = [];
  const captioner: Captioner = {
    about: 'of the test',
    listen: (_s, told) => {
      open.push(told);
      const voice = (publisher: string, on: boolean) => void voices.push(`${publisher} ${on}`);
      return { voice, close: () => void open.splice(0) };
    },
  };
  const begun: string[] = [];
  followCaptions(captioner, {
    rooms: { listen: (l) => void listeners.push(l), held: async () => room },
    relay,
    log,
    told: (_session, member, text) => void begun.push(`${member}: ${text}`),
  });
  const tell = () => {
    for (const l of listeners) l.told?.(room, test.events.slice(-1));
  };
  const letListen = (on: boolean) => {
    test.do(maren, { type: 'letListen', on });
    tell();
  };
  const lines = () => test.state.captions.lines.map((l) => `${l.by}: ${l.text}`);
  return { test, relay, open, voices, begun, letListen, lines, tell };
}

test('it listens while a teacher wishes it and the class is on, and to nobody otherwise', async () => {
  const { test, relay, open, voices, begun, letListen, lines, tell } = followed();
  relay.hear('s', 'ana', true);
  expect(voices).toEqual([]);
  letListen(true);
  relay.hear('s', 'ana', true);
  relay.hear('another', 'ana', true);
  expect(voices).toEqual(['ana true']);
  open[0]!({ publisher: 'ana', text: 'The tied', whole: false });
  open[0]!({ publisher: 'ana', text: '  The tied turns ', whole: true });
  await settled();
  expect(begun).toEqual(['ana: The tied', 'ana: ']);
  expect(lines()).toEqual(['ana: The tied turns']);
  const before = open[0]!;
  letListen(false);
  expect(open).toEqual([]);
  // What comes late is not written any more.
  before({ publisher: 'ana', text: 'Too late', whole: true });
  await settled();
  expect(lines()).toHaveLength(1);
  letListen(true);
  test.do(maren, { type: 'dismiss' });
  tell();
  expect(open).toEqual([]);
});

test('what is said at a table, or by somebody who is gone, is not the class’s', async () => {
  const { test, open, begun, letListen, lines } = followed();
  letListen(true);
  test.do(maren, {
    ...{ type: 'layTables', seconds: null, open: true },
    tables: [{ name: 'Table 1', members: ['ana'] }],
  });
  test.happen(entry('cleo', 'Cleo Garrow'), { type: 'left', member: 'cleo' });
  for (const publisher of ['ana', 'cleo'])
    for (const whole of [false, true]) open[0]!({ publisher, text: 'Between us', whole });
  await settled();
  expect([begun, lines()]).toEqual([[], []]);
});
