import { CLASS, placeOf, type Place, type RoomEvent } from '@nimble-bell/core/room';
import { entry, lecture, maren } from '@nimble-bell/core/testing';
import type { Logger } from 'pino';
import { StandInRelay } from '../testing/standInRelay';
import type { Room } from '../room/room';
import type { RoomListener } from '../room/room';
import type { Captioner, Heard } from './captioner';
import { followCaptions } from './follow';
import { scripted } from './scripted';
import { OPEN_AT_TABLES } from '@nimble-bell/core/limits';

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
    reading.voice('maren', CLASS, true);
    jest.advanceTimersByTime(330 * 3);
    expect(said.at(-1)).toEqual({ publisher: 'maren', text: 'Good evening, everybody.', whole: true });
    expect(said.filter((h) => !h.whole).map((h) => h.text)).toEqual(['Good', 'Good evening,']);
    jest.advanceTimersByTime(330 * 2);
    // A breath is no end.
    reading.voice('maren', CLASS, false);
    jest.advanceTimersByTime(1000);
    reading.voice('maren', CLASS, true);
    jest.advanceTimersByTime(330);
    expect(said.at(-1)).toMatchObject({ text: 'Today we look', whole: false });
    reading.voice('maren', CLASS, false);
    jest.advanceTimersByTime(1300);
    expect(said.at(-1)).toMatchObject({ text: 'Today we look', whole: true });
    const { length } = said;
    jest.advanceTimersByTime(5000);
    expect(said).toHaveLength(length);
    // The next to speak goes on, in their name; another beside them waits.
    reading.voice('ana', CLASS, true);
    reading.voice('ben', CLASS, true);
    jest.advanceTimersByTime(330 * 11);
    expect(said.at(-1)!.publisher).toBe('ana');
    // At a table the script begins anew; who goes there leaves what they had begun.
    const whole = () => said.filter((h) => h.whole).length;
    reading.voice('cleo', 'table-1-1', true);
    jest.advanceTimersByTime(330);
    expect(said.at(-1)).toEqual({ publisher: 'cleo', text: 'Good', whole: false });
    const before = whole();
    reading.gone('ana');
    reading.gone('cleo');
    jest.advanceTimersByTime(1300);
    expect([whole(), said.at(-1)!.publisher]).toEqual([before, 'ben']);
    reading.close();
    jest.advanceTimersByTime(5000);
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
    happen: async (events: (state: typeof test.state) => RoomEvent[]) =>
      void test.happen(...events(test.state)),
  } as unknown as Room;
  const relay = new StandInRelay();
  const open: ((heard: Heard) => void)[] = [];
  const voices: string[] = [];
  const captioner: Captioner = {
    about: 'of the test',
    listen: (_s, told) => {
      open.push(told);
      const voice = (publisher: string, place: Place, on: boolean) =>
        void voices.push(`${publisher} ${place} ${on}`);
      const gone = (publisher: string) => void voices.push(`${publisher} gone`);
      return { voice, gone, close: () => void open.splice(0) };
    },
  };
  const begun: string[] = [];
  followCaptions(captioner, {
    rooms: { listen: (l) => void listeners.push(l), held: async () => room },
    relay,
    log,
    told: (_session, place, member, text) => void begun.push(`${place}, ${member}: ${text}`),
  });
  const tell = () => {
    for (const l of listeners) l.told?.(room, test.events.slice(-1));
  };
  const letListen = (on: boolean) => {
    test.do(maren, { type: 'letListen', on });
    tell();
  };
  const lines = () => test.state.captions.lines.map((l) => `${l.place}, ${l.by}: ${l.text}`);
  return { test, relay, open, voices, begun, letListen, lines, tell };
}

test('it listens while a teacher wishes it and the class is on, and to nobody otherwise', async () => {
  const { test, relay, open, voices, begun, letListen, lines, tell } = followed();
  relay.hear('s', 'ana', true);
  expect(voices).toEqual([]);
  letListen(true);
  relay.hear('s', 'ana', true);
  relay.hear('another', 'ana', true);
  expect(voices).toEqual(['ana class true']);
  open[0]!({ publisher: 'ana', text: 'The tied', whole: false });
  open[0]!({ publisher: 'ana', text: '  The tied turns ', whole: true });
  await settled();
  expect(begun).toEqual(['class, ana: The tied', 'class, ana: ']);
  expect(lines()).toEqual(['class, ana: The tied turns']);
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

test('what is said at a table is of the table, what was begun elsewhere of nowhere, and who is gone says nothing', async () => {
  const { test, relay, open, voices, begun, letListen, lines, tell } = followed();
  letListen(true);
  for (const publisher of ['ana', 'cleo']) relay.hear('s', publisher, true);
  test.do(maren, {
    ...{ type: 'layTables', seconds: null, limits: OPEN_AT_TABLES },
    tables: [{ name: 'Table 1', members: ['ana'] }],
  });
  const table = placeOf(test.state, 'ana');
  // Between the move and its being told, what there is was said in the class.
  open[0]!({ publisher: 'ana', text: 'To the class', whole: true });
  await settled();
  tell();
  expect(voices.splice(0)).toEqual(['ana class true', 'cleo class true', 'ana gone', `ana ${table} true`]);
  open[0]!({ publisher: 'ana', text: 'Between us', whole: true });
  test.happen(entry('cleo', 'Cleo Garrow'), { type: 'left', member: 'cleo' });
  open[0]!({ publisher: 'cleo', text: 'Farewell', whole: true });
  await settled();
  const told = [`${table}, ana: Between us`];
  expect([begun, lines()]).toEqual([[`${table}, ana: `], told]);
  // What is finished just as everybody is called back, or after it, is not said to the class.
  open[0]!({ publisher: 'ana', text: 'Just between us', whole: true });
  test.do(maren, { type: 'endTables', now: true });
  tell();
  await settled();
  expect([voices, lines()]).toEqual([['ana gone', 'ana class true'], told]);
});
