import { noSettings, withValues } from '@nimble-bell/core/settings';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import { StandInRelay } from '../testing/standInRelay';
import { addSpoken } from './store';
import { Voices } from './voices';

jest.mock('../courses/store', () => ({ sessionById: jest.fn() }));
jest.mock('./store', () => ({ addSpoken: jest.fn() }));

const ctx = { db: {}, log: { warn: jest.fn() } } as unknown as Context;
const counted: [string, string, number][] = [];
let now = 0;
let voices: Voices;
let relay: StandInRelay;

beforeEach(() => {
  counted.length = 0;
  now = 0;
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick'] });
  jest.mocked(sessionById).mockResolvedValue({ layers: [] } as never);
  jest.mocked(addSpoken).mockImplementation(async (_db, session, member, ms) => {
    counted.push([session, member, ms]);
    return {} as never;
  });
  relay = new StandInRelay();
  voices = new Voices(ctx, relay, () => now);
});
afterEach(() => jest.useRealTimers());

const sums = () => {
  const all: Record<string, number> = {};
  for (const [session, member, ms] of counted)
    all[`${session}/${member}`] = (all[`${session}/${member}`] ?? 0) + ms;
  return all;
};

test('each is counted for as long as the relay hears them, a page and a telephone as one person', async () => {
  relay.hear('s1', 'ana', true);
  now = 2000;
  relay.hear('s1', 'ben.telephone', true);
  now = 5000;
  relay.hear('s1', 'ana', false);
  now = 6000;
  relay.hear('s1', 'ben.telephone', false);
  relay.hear('s1', 'ben.telephone', false);
  now = 7000;
  relay.hear('s1', 'ben', true);
  now = 7500;
  await voices.stop();
  expect(sums()).toEqual({ 's1/ana': 5000, 's1/ben': 4500 });
});

test('whoever goes on is counted on the way, and nothing twice', async () => {
  relay.hear('s1', 'ana', true);
  for (let i = 0; i < 3; i++) {
    now += 10_000;
    jest.advanceTimersByTime(10_000);
  }
  relay.hear('s1', 'ana', true);
  now += 1000;
  relay.hear('s1', 'ana', false);
  now += 9000;
  await voices.stop();
  expect(counted.length).toBeGreaterThan(3);
  expect(sums()).toEqual({ 's1/ana': 31_000 });
});

test('where it is switched off nothing is kept; a fault of the database stops nothing', async () => {
  const off = withValues(noSettings(), 'after', { participation: false }, null, 0);
  jest.mocked(sessionById).mockResolvedValueOnce({ layers: [{ name: 'course', settings: off }] } as never);
  jest.mocked(addSpoken).mockRejectedValueOnce(new Error('away'));
  for (const member of ['ana', 'ben', 'cem']) {
    relay.hear('s1', member, true);
    now += 1000;
    relay.hear('s1', member, false);
  }
  await voices.stop();
  expect(sums()).toEqual({ 's1/cem': 1000 });
});
