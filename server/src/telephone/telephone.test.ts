import { mkdtemp, readdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { LINE_WORDS } from '@nimble-bell/core/telephone';
import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { memberRow } from '../testing/coursePlan';
import { StandInRelay } from '../testing/standInRelay';
import { MOST_WRONG, whoseCall } from './pins';
import { Prompts } from './prompts';
import { Voice } from './voice';

let wrong: { line: string; caller: string; at: number }[] = [];
const members: MemberRow[] = [memberRow({ pin: '12345678' })];
jest.mock('./store', () => ({
  memberByPin: async (_db: unknown, line: string, pin: string) =>
    line === 'L' ? (members.find((m) => m.pin === pin) ?? null) : null,
  noteWrongPin: async (_db: unknown, line: string, caller: string, at: number) =>
    void wrong.push({ line, caller, at }),
  wrongPinsSince: async (_db: unknown, line: string, caller: string, since: number) => {
    const all = wrong.filter((w) => w.line === line && w.at > since);
    return { all: all.length, own: all.filter((w) => w.caller === caller).length };
  },
  forgetWrongPins: async (_db: unknown, before: number) => {
    wrong = wrong.filter((w) => w.at >= before);
  },
}));

let now = 0;
const ctx = { db: {}, now: () => now } as unknown as Context;
const asks = (pin: string, caller: string | null, line = 'L') => whoseCall(ctx, line, caller, pin);
const log = { warn: () => {} } as never;
beforeEach(() => {
  now = 1e12;
  wrong = [];
});

test('a caller who was wrong too often is not tried, right or wrong, until some time has gone by', async () => {
  expect(await asks('12345678', 'a')).toMatchObject({ pin: '12345678' });
  for (let n = 0; n < MOST_WRONG.caller; n++) expect(await asks('00000000', 'a')).toBe('wrong');
  expect(await asks('12345678', 'a')).toBe('tooOften');
  expect(await asks('12345678', 'b')).toMatchObject({ pin: '12345678' });
  expect(await asks('12345678', 'b', 'another')).toBe('wrong');
  now += 16 * 60_000;
  expect(await asks('12345678', 'a')).toMatchObject({ pin: '12345678' });
});

test('those who withhold their number share a wider limit, and a line has its own', async () => {
  for (let n = 0; n < MOST_WRONG.withheld; n++) expect(await asks('0', null)).toBe('wrong');
  expect(await asks('12345678', null)).toBe('tooOften');
  for (let n = 0; n < MOST_WRONG.line; n++) wrong.push({ line: 'L', caller: `c${n}`, at: now });
  expect(await asks('12345678', 'quite new')).toBe('tooOften');
});

test('the line’s own words are spoken once and kept; what is said of people is not', async () => {
  const folder = await mkdtemp(path.join(tmpdir(), 'prompts-'));
  const spoken: string[] = [];
  const prompts = new Prompts(folder, async (text, file) => {
    spoken.push(text);
    await writeFile(file, text);
  });
  const [one, two] = await Promise.all([prompts.of(LINE_WORDS.keys), prompts.of(LINE_WORDS.keys)]);
  expect(one.file).toBe(two.file);
  await one.done();
  const again = new Prompts(folder, async () => {
    throw new Error('It is there.');
  });
  expect((await again.of(LINE_WORDS.keys)).file).toBe(one.file);
  const own = await prompts.of('Ana Lanyon writes to you.');
  expect(await readdir(folder)).toHaveLength(2);
  await own.done();
  expect(await readdir(folder)).toHaveLength(1);
  expect(spoken).toEqual([LINE_WORDS.keys, 'Ana Lanyon writes to you.']);
});

test('things are said one after another; a key ends what was being said', async () => {
  const relay = new StandInRelay();
  const played: string[] = [];
  let over: (() => void)[] = [];
  relay.play = (_line, file) => new Promise((resolve) => (played.push(file), over.push(resolve)));
  const prompts = { of: async (text: string) => ({ file: text, done: async () => {} }) } as Prompts;
  const voice = new Voice('call', relay, prompts, log, () => {});
  const settle = () => new Promise((resolve) => setTimeout(resolve, 1));
  void voice.say('One.');
  void voice.say('Two.');
  await settle();
  expect(played).toEqual(['One. Two.']);
  void voice.say('Three.');
  await settle();
  expect(played).toHaveLength(1);
  voice.interrupt();
  const last = voice.say('Four.');
  await settle();
  expect(played).toEqual(['One. Two.', 'Four.']);
  for (const resolve of over.splice(0)) resolve();
  over = [];
  await last;
  expect(played).toHaveLength(2);
});
