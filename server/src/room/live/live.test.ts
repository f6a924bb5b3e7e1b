import { TestRoom, ana, entry, lecture } from '@nimble-bell/core/testing';
import type { StoredEvent } from '@nimble-bell/core/room';
import { memberRow } from '../../testing/coursePlan';
import type { Context } from '../../context';
import { Rounds } from '../effects/rounds';
import { Turns } from '../../turns';
import { Allowance, RATES } from './allowance';
import { runsOf } from './broadcast';
import { roomOf } from './forward';
import { isOther, standingNow } from '../entrance/rights';

let members = [memberRow()];
let signedIn = new Set<string>();
jest.mock('../../accounts/store', () => ({
  membersWhere: async (_db: unknown, _where: string, [ids]: [string[]]) =>
    members.filter((m) => ids.includes(m.id)),
  liveTokens: async () => signedIn,
}));

const ctx = { db: {}, now: () => 1000 } as unknown as Context;
const byLink = { kind: 'link' as const, code: memberRow().link };
const standing = async (credential: Parameters<typeof standingNow>[1][0]['credential']) =>
  (await standingNow(ctx, [{ member: memberRow(), credential }]))[0];
beforeEach(() => {
  members = [memberRow()];
  signedIn = new Set();
});

test('whoever has a good link is who they are now; off the list, replaced or past its time it is nobody', async () => {
  expect(await standing(byLink)).toEqual(memberRow());
  members = [memberRow({ link: 'another' })];
  expect(await standing(byLink)).toBeNull();
  members = [memberRow({ linkUntil: 999 })];
  expect(await standing(byLink)).toBeNull();
  members = [];
  expect(await standing(byLink)).toBeNull();
});

test('an account is somebody for as long as it is signed in', async () => {
  const account = { kind: 'account' as const, tokenHash: 'hash' };
  expect(await standing(account)).toBeNull();
  signedIn = new Set(['hash']);
  expect(await standing(account)).toEqual(memberRow());
});

test('the link of somebody with an account carries a student’s rights at most', async () => {
  members = [memberRow({ role: 'teacher', hasAccount: true })];
  expect((await standing(byLink))?.role).toBe('student');
  members = [memberRow({ role: 'teacher' })];
  expect((await standing(byLink))?.role).toBe('teacher');
});

test('role, name, group, scope and rights are what makes somebody another', () => {
  expect(isOther(memberRow(), memberRow({ zone: 'UTC', linkUntil: 5 }))).toBe(false);
  for (const more of [
    { role: 'assistant' as const },
    { name: 'Other' },
    { group: 'B' },
    { capabilities: ['speak' as const] },
  ])
    expect(isOther(memberRow(), memberRow(more))).toBe(true);
});

test('an allowance lasts for a burst, then for so many a second, each member and each use by itself', () => {
  const allowance = new Allowance();
  const take = (n: number, now: number, member = 'ana') =>
    Array.from({ length: n }, () => allowance.take(member, 'commands', now)).filter(Boolean).length;
  const { burst, perSecond } = RATES.commands;
  expect(take(3000, 0)).toBe(burst);
  expect(take(100, 1000)).toBe(perSecond);
  expect(take(5, 1000, 'ben')).toBe(5);
  expect(allowance.take('ana', 'strokes', 1000)).toBe(true);
  expect(take(1000, 1e9)).toBe(burst);
  const pictures = (now: number) =>
    Array.from({ length: 40 }, () => allowance.take('ana', 'pictures', now)).filter(Boolean).length;
  expect([0, 19_000, 85_000].map(pictures)).toEqual([RATES.pictures.burst, 0, 4]);
});

test('events for the same people go out together, in order, and a word to the teachers to them and its writer', () => {
  const room = lecture({ writeToClass: 'open' });
  const before = room.events.length;
  room.do(ana, { type: 'raiseHand' });
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'I am lost' });
  room.do(ana, { type: 'lowerHand', member: 'ana' });
  const runs = runsOf('s', room.state, room.events.slice(before));
  expect(runs.map((r) => [r.targets, r.events.map((e: StoredEvent) => e.type)])).toEqual([
    [['s'], ['handRaised']],
    [['s/staff', 's/of/ana'], ['said']],
    [['s'], ['handLowered']],
  ]);
  const many = new TestRoom().happen(entry('ana'), entry('ben'));
  expect(runsOf('s', many.state, many.events)).toHaveLength(1);
});

test('a name that is not for all goes to those who may know it, and without it to the others', () => {
  const room = lecture({ seeNames: 'closed' });
  const before = room.events.length;
  room.happen({ type: 'renamed', by: 'maren', member: 'ben', name: 'Benedict' });
  room.happen({ type: 'renamed', by: 'maren', member: 'maren', name: 'M. Oduya' });
  const runs = runsOf('s', room.state, room.events.slice(before));
  const own = ['s/staff', 's/of/maren', 's/of/ben'];
  expect(runs.map((r) => [r.targets, r.but, (r.events[0] as { name: string }).name])).toEqual([
    [own, [], 'Benedict'],
    [['s'], own, 'Student 2'],
    [['s'], [], 'M. Oduya'],
  ]);
});

test('the room that a line is for stands in its address, if it is one', () => {
  expect(roomOf('/live/?room=abc123&EIO=4')).toBe('abc123');
  for (const url of ['/live/', '/live/?room=', '/live/?room=../x', undefined]) expect(roomOf(url)).toBeNull();
});

test('turns of one key wait for each other, of others they do not, and a failed one holds up none', async () => {
  const turns = new Turns();
  const done: string[] = [];
  const step = (key: string, name: string, ms: number) =>
    turns.take(key, async () => {
      await new Promise((resolve) => setTimeout(resolve, ms));
      done.push(name);
      if (name === 'bad') throw new Error(name);
    });
  const all = [step('a', 'a1', 20), step('a', 'bad', 1), step('a', 'a3', 1), step('b', 'b1', 5)];
  expect((await Promise.allSettled(all)).map((r) => r.status)).toEqual([
    'fulfilled',
    'rejected',
    'fulfilled',
    'fulfilled',
  ]);
  expect(done).toEqual(['b1', 'a1', 'bad', 'a3']);
});

test('what is asked while it is being done is done once more, however often it was asked, and never missed', async () => {
  let rounds = 0;
  const work = new Rounds(async () => {
    rounds++;
    await null;
  });
  await Promise.all([work.run(), work.run(), work.run()]);
  expect(rounds).toBe(2);
  // Asked in the very step in which the last round ends.
  for (let i = 0; i < 200; i++) {
    const before = rounds;
    const first = work.run();
    for (let k = 0; k < i % 7; k++) await null;
    await Promise.all([first, work.run()]);
    expect(rounds).toBeGreaterThan(before);
  }
});
