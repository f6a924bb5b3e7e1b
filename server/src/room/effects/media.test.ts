import type { RelayOffer } from '@nimble-bell/core/api';
import { CLASS, type RoomEvent } from '@nimble-bell/core/room';
import { courseLimits, entry, opening, TestRoom } from '@nimble-bell/core/testing';
import type { Context } from '../../context';
import { StandInRelay } from '../../testing/standInRelay';
import { checkOffer, Media } from './media';

const OFFER = 'v=0\nm=audio 9 UDP\nm=video 9 UDP\nm=video 9 UDP\n';
const ctx = { log: { warn: () => {}, error: () => {} }, now: () => 0 } as unknown as Context;
const settle = (ms = 5) => new Promise((resolve) => setTimeout(resolve, ms));

/** A room that only has a state, and media that heed it as the server lets them. */
function setUp(
  session = 'room',
  relay = new StandInRelay(),
  parts: string | ReadonlyMap<string, string> = new Map(),
) {
  let reels = 0;
  const open = typeof parts === 'string' ? new Map([[CLASS, parts]]) : parts;
  const media = new Media(ctx, relay, {
    partsOf: async () => open,
    begin: async (p) => `${p}-${++reels}`,
  });
  const room = roomOf(session);
  const happen = (...events: RoomEvent[]) => room.happen(media, ...events);
  const enter = (member: string, role: 'teacher' | 'student') => entry(member, member, role);
  const publishAndStand = async (member: string) => {
    await media.publish(room, member, OFFER);
    relay.stand();
    await settle();
  };
  return { relay, media, room, happen, enter, publishAndStand };
}

function roomOf(session: string) {
  const test = new TestRoom().happen(opening([courseLimits({ speak: 'closed', camera: 'open' })]));
  return {
    session,
    get state() {
      return test.state;
    },
    async happen(media: Media, ...events: RoomEvent[]) {
      const before = test.events.length;
      test.happen(...events);
      await media.heed(this, test.events.slice(before));
    },
  };
}

test('a new publisher is closed, whatever it sends, until the room says otherwise', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('ana', 'student'));
  expect(await media.publish(room, 'ana', OFFER)).toBe('answer for ana');
  expect([...relay.open]).toEqual([]);
  await happen({ type: 'microphone', member: 'ana', on: true });
  expect([...relay.open]).toEqual([]);
  await happen({ type: 'camera', member: 'ana', on: true });
  expect([...relay.open]).toEqual(['ana/camera']);
});

test('a page is told of each kind once it is passed on, and of no publishing of before', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('ana', 'student'));
  const told: string[] = [];
  const passed = (of: string) => (kind: string) => void told.push(`${of} ${kind}`);
  await media.publish(room, 'ana', OFFER, 'page', passed('first'));
  await happen({ type: 'microphone', member: 'ana', on: true });
  expect(told).toEqual([]);
  await happen({ type: 'camera', member: 'ana', on: true });
  await happen({ type: 'camera', member: 'ana', on: false });
  await happen({ type: 'camera', member: 'ana', on: true });
  expect(told).toEqual(['first camera', 'first camera']);
  await media.publish(room, 'ana', OFFER, 'page', passed('second'));
  expect(told.slice(2)).toEqual(['second camera']);
  relay.fail('moderate', 1);
  await happen({ type: 'limitSet', by: 'maren', capability: 'camera', state: 'closed' });
  expect(told).toHaveLength(3);
});

test('limits, floor and hush open and close tracks at the relay, and ask only for what changed', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), { type: 'rangIn', by: 'maren' });
  await media.publish(room, 'ana', OFFER);
  await happen(
    { type: 'floorGiven', by: 'maren', member: 'ana' },
    { type: 'microphone', member: 'ana', on: true },
  );
  expect([...relay.open]).toEqual(['ana/sound']);
  relay.said.length = 0;
  await happen({ type: 'hushed', by: 'maren' });
  expect(relay.said).toEqual(['closes ana sound']);
  await happen({ type: 'lifted', by: 'maren' });
  expect(relay.said).toEqual(['closes ana sound', 'opens ana sound']);
  await happen({ type: 'floorTaken', by: 'maren', member: 'ana' });
  expect([...relay.open]).toEqual([]);
});

test('where the others’ cameras are closed none is received but teachers’; who answers no offer watches nothing more', async () => {
  const { relay, media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), enter('ben', 'student'));
  for (const member of ['maren', 'ben']) await publishAndStand(member);
  const kinds = (page: string) =>
    Object.fromEntries((relay.watched.get(page) ?? []).map((p) => [p.publisher, p.kinds.join(' ')]));
  const dropped = jest.fn();
  await media.watch(room, 'page', 'ana', { offer: () => {}, dropped });
  await media.answer('page', '');
  const all = 'sound camera screen';
  expect(kinds('page')).toEqual({ maren: all, ben: all });
  const limit = (state: 'open' | 'closed') =>
    happen({ type: 'limitSet', by: 'maren', capability: 'seeCameras', state });
  await limit('closed');
  await settle();
  expect(kinds('page')).toEqual({ maren: all, ben: 'sound screen' });
  await media.answer('page', '');
  await happen({ type: 'floorGiven', by: 'maren', member: 'ben' });
  await settle();
  expect(kinds('page')).toEqual({ maren: all, ben: all });
  // That offer is left without an answer: once it should be hidden again, it is taken away from them.
  jest.useFakeTimers();
  await happen({ type: 'floorTaken', by: 'maren', member: 'ben' });
  await jest.advanceTimersByTimeAsync(5000);
  jest.useRealTimers();
  expect(relay.watched.has('page')).toBe(false);
  expect(dropped).toHaveBeenCalledTimes(1);
});

test('a publisher is watched once its connection stands, by everyone else, and again when it publishes anew', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'));
  const offers: RelayOffer[] = [];
  await media.watch(room, 'page of ana', 'ana', { offer: (offer) => offers.push(offer) });
  await media.watch(room, 'page of maren', 'maren', { offer: (offer) => offers.push(offer) });
  await media.publish(room, 'maren', OFFER);
  await settle();
  expect(offers).toEqual([]);
  relay.stand();
  await settle();
  expect(offers.map((o) => o.sdp)).toEqual(['offer of maren']);
  expect(relay.watched.get('page of maren')).toEqual([]);
  await media.answer('page of ana', 'answer');
  await media.publish(room, 'maren', OFFER);
  relay.stand();
  await settle();
  expect(offers).toHaveLength(2);
});

test('who is in another place of the room is neither seen nor heard', async () => {
  const { relay, media, room, happen, enter, publishAndStand } = setUp();
  const apart = { ...enter('ana', 'student'), place: 'table-1' } as RoomEvent;
  await happen(enter('maren', 'teacher'), apart, enter('ben', 'student'));
  await media.watch(room, 'page of ana', 'ana', { offer: () => {} });
  await media.watch(room, 'page of ben', 'ben', { offer: () => {} });
  await publishAndStand('maren');
  expect(relay.watched.get('page of ben')).toMatchObject([{ publisher: 'maren' }]);
  expect(relay.watched.get('page of ana') ?? []).toEqual([]);
});

test('who goes to another place is received there and nowhere else, and is not written there', async () => {
  const all = setUp('room', new StandInRelay(), 'part');
  const { relay, media, room, happen, enter, publishAndStand } = all;
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), enter('ben', 'student'));
  await happen({ type: 'rangIn', by: 'maren' }, { type: 'recordingStarted', by: null });
  for (const member of ['maren', 'ana']) await publishAndStand(member);
  const watched = (page: string) => (relay.watched.get(page) ?? []).map((w) => w.publisher);
  for (const member of ['maren', 'ana', 'ben']) {
    await media.watch(room, member, member, { offer: () => {} });
    await media.answer(member, '');
  }
  expect(['maren', 'ana', 'ben'].map(watched)).toEqual([['ana'], ['maren'], ['maren', 'ana']]);
  const go = async (...moves: { member: string; to: string }[]) => {
    await happen({ type: 'wentTo', by: 'maren', moves });
    await settle();
    for (const member of ['maren', 'ana', 'ben']) await media.answer(member, '');
  };
  await go({ member: 'ana', to: 'table-1-1' });
  expect(['maren', 'ana', 'ben'].map(watched)).toEqual([[], [], ['maren']]);
  expect(relay.said.filter((s) => /^(record|stop) ana/.test(s)).at(-1)).toBe('stop ana');
  await go({ member: 'ben', to: 'table-1-1' });
  expect(['maren', 'ana', 'ben'].map(watched)).toEqual([[], [], ['ana']]);
  await go({ member: 'ana', to: 'class' }, { member: 'ben', to: 'class' });
  expect(['maren', 'ana', 'ben'].map(watched)).toEqual([['ana'], ['maren'], ['maren', 'ana']]);
  expect(relay.said.filter((s) => /^(record|stop) ana/.test(s)).at(-1)).toBe('record ana');
});

test('where the part of a table is open who is there is written into it, their voice alone; who is not stays out', async () => {
  const parts = new Map([['table-1-1', 'one']]);
  const { relay, happen, enter, publishAndStand } = setUp('tables', new StandInRelay(), parts);
  const apart = (member: string, place: string) => ({ ...enter(member, 'student'), place }) as RoomEvent;
  await happen(enter('maren', 'teacher'), apart('ana', 'table-1-1'), apart('ben', 'table-1-2'));
  await happen({ type: 'rangIn', by: 'maren' }, { type: 'recordingStarted', by: null });
  for (const member of ['maren', 'ana', 'ben']) await publishAndStand(member);
  expect(relay.said.filter((s) => s.startsWith('record'))).toEqual(['record ana, sound only']);
  await happen({ type: 'wentTo', by: 'maren', moves: [{ member: 'ben', to: 'table-1-1' }] });
  await settle();
  expect(relay.said).toContain('record ben, sound only');
  await happen({ type: 'recordingPaused', by: 'maren' });
  await settle();
  expect(relay.said.filter((s) => s.startsWith('stop')).sort()).toEqual(['stop ana', 'stop ben']);
});

test('of cameras a page receives those that it shows, and others once it shows those', async () => {
  const { relay, media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), enter('ben', 'student'));
  for (const member of ['maren', 'ana']) await publishAndStand(member);
  const cameras = () =>
    (relay.watched.get('page') ?? []).filter((p) => p.kinds.includes('camera')).map((p) => p.publisher);
  await media.watch(room, 'page', 'ben', { offer: () => {}, looks: { cameras: ['maren'], small: [] } });
  await media.answer('page', '');
  expect(cameras()).toEqual(['maren']);
  expect(relay.watched.get('page')!.every((p) => p.kinds.includes('sound'))).toBe(true);
  const look = async (...of: string[]) => {
    await media.look('page', { cameras: of, small: ['ben', 'ana'] });
    await media.answer('page', '');
    return cameras();
  };
  expect(await look('ana')).toEqual(['ana']);
  const small = () => relay.watched.get('page')!.filter((p) => p.small);
  expect(small().map((p) => p.publisher)).toEqual(['ana']);
  expect(await look()).toEqual([]);
  // What is hidden from one is not had by asking for it.
  await happen({ type: 'limitSet', by: 'maren', capability: 'seeCameras', state: 'closed' });
  await media.answer('page', '');
  expect(await look('ana', 'maren')).toEqual(['maren']);
  expect(small()).toEqual([]);
});

test('while an offer is unanswered the next one waits, and then holds everything new', async () => {
  const { media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('teo', 'teacher'), enter('ana', 'student'));
  const offers: string[] = [];
  await media.watch(room, 'page', 'ana', { offer: (offer) => offers.push(offer.sdp) });
  for (const member of ['maren', 'teo']) await publishAndStand(member);
  expect(offers).toEqual(['offer of maren']);
  await media.answer('page', 'answer');
  expect(offers).toEqual(['offer of maren', 'offer of teo']);
});

test('who leaves while publishing is let go', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('ana', 'student'));
  const publishing = media.publish(room, 'ana', OFFER);
  await happen({ type: 'left', member: 'ana' });
  await publishing;
  expect(media.publishersOf('room')).toEqual([]);
  expect(relay.said).toContain('unpublish ana');
});

test('an answer that the relay refuses does not hold up the next offer', async () => {
  const { relay, media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('teo', 'teacher'), enter('ana', 'student'));
  const offers: string[] = [];
  await media.watch(room, 'page', 'ana', { offer: (offer) => offers.push(offer.sdp) });
  for (const member of ['maren', 'teo']) await publishAndStand(member);
  relay.answer = async () => {
    throw new Error('That was no answer.');
  };
  await expect(media.answer('page', 'nonsense')).rejects.toThrow('That was no answer.');
  expect(offers).toEqual(['offer of maren', 'offer of teo']);
});

test('whoever does not agree is not written, and no more once they withdraw; who agrees again is', async () => {
  const { relay, happen, enter, publishAndStand } = setUp('agree', new StandInRelay(), 'part');
  await happen(enter('ana', 'student'), enter('ben', 'student'), {
    type: 'recordingAnswered',
    member: 'ben',
    agrees: false,
  });
  await happen({ type: 'rangIn', by: 'maren' }, { type: 'recordingStarted', by: null });
  await publishAndStand('ana');
  await publishAndStand('ben');
  const said = () => relay.said.filter((s) => /^(record|stop)/.test(s));
  expect(said().at(-1)).toBe('record ana');
  expect(said()).not.toContain('record ben');
  await happen({ type: 'recordingAnswered', member: 'ana', agrees: false });
  await settle();
  expect(said().at(-1)).toBe('stop ana');
  await happen({ type: 'recordingAnswered', member: 'ben', agrees: true });
  await settle();
  expect(said().at(-1)).toBe('record ben');
});

test('who leaves is let go, and nobody is recorded past a lost relay', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('ana', 'student'));
  await media.publish(room, 'ana', OFFER);
  expect(media.publishersOf('room')).toEqual(['ana']);
  await happen({ type: 'left', member: 'ana' });
  expect(relay.said).toContain('unpublish ana');
  expect(media.publishersOf('room')).toEqual([]);
  await happen(enter('ana', 'student'));
  await media.publish(room, 'ana', OFFER);
  relay.lose();
  expect(media.publishersOf('room')).toEqual([]);
  relay.said.length = 0;
  await happen({ type: 'camera', member: 'ana', on: true });
  expect(relay.said).toEqual([]);
});

const inClass = async ({ happen, enter }: ReturnType<typeof setUp>) => {
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), { type: 'rangIn', by: 'maren' });
  await happen({ type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' });
};

test('of six publishings at once by one page the last one stands, and leaving takes it off', async () => {
  const all = setUp();
  const { relay, media, room, happen } = all;
  await inClass(all);
  relay.slowMs = 3;
  await Promise.all(Array.from({ length: 6 }, () => media.publish(room, 'ana', OFFER)));
  await happen({ type: 'microphone', member: 'ana', on: true });
  expect([...relay.open]).toEqual(['ana/sound']);
  expect(relay.publishing('ana')).toBe(1);
  await happen({ type: 'left', member: 'ana' });
  await settle(30);
  expect(relay.publishing('ana')).toBe(0);
  expect([...relay.open]).toEqual([]);
});

test('a publishing that the relay refuses leaves nothing, and the next one works', async () => {
  const all = setUp();
  const { relay, media, room } = all;
  await inClass(all);
  relay.fail('publish', 1);
  await expect(media.publish(room, 'ana', OFFER)).rejects.toThrow();
  expect(media.publishersOf('room')).toEqual([]);
  await media.publish(room, 'ana', OFFER);
  expect(media.publishersOf('room')).toEqual(['ana']);
});

test('closing that fails is asked again until the relay confirms it', async () => {
  const all = setUp();
  const { relay, media, room, happen } = all;
  await inClass(all);
  await media.publish(room, 'ana', OFFER);
  await happen({ type: 'microphone', member: 'ana', on: true });
  relay.fail('moderate', 2);
  await happen({ type: 'hushed', by: 'maren' });
  expect([...relay.open]).toEqual(['ana/sound']);
  await settle(700);
  expect([...relay.open]).toEqual([]);
  expect(media.publishersOf('room')).toEqual(['ana']);
});

test('a microphone that cannot be closed is closed by taking its publisher off', async () => {
  const all = setUp();
  const { relay, media, room, happen } = all;
  await inClass(all);
  await media.publish(room, 'ana', OFFER);
  await happen({ type: 'microphone', member: 'ana', on: true });
  relay.fail('moderate', Infinity);
  await happen({ type: 'hushed', by: 'maren' });
  await settle(2200);
  expect(relay.publishing('ana')).toBe(0);
  expect([...relay.open]).toEqual([]);
  expect(media.publishersOf('room')).toEqual([]);
});

test('taking off is asked until the relay confirms it, too', async () => {
  const all = setUp();
  const { relay, media, room, happen } = all;
  await inClass(all);
  await media.publish(room, 'ana', OFFER);
  relay.fail('unpublish', 2);
  await happen({ type: 'left', member: 'ana' });
  await settle(500);
  expect(relay.publishing('ana')).toBe(0);
});

test('a slow relay in one room holds up no mute in another', async () => {
  const relay = new StandInRelay();
  const one = setUp('one', relay);
  await inClass(one);
  await one.media.publish(one.room, 'ana', OFFER);
  const other = roomOf('other');
  const { media } = one;
  await other.happen(media, entry('maren', 'maren', 'teacher'), entry('ben'), {
    type: 'rangIn',
    by: 'maren',
  });
  await other.happen(media, { type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' });
  await media.publish(other, 'ben', OFFER);
  await other.happen(media, { type: 'microphone', member: 'ben', on: true });
  relay.slowRooms.set('one', 400);
  const slow = one.happen({ type: 'microphone', member: 'ana', on: true });
  const began = performance.now();
  await other.happen(media, { type: 'muted', by: 'maren', member: 'ben' });
  expect(relay.open.has('ben/sound')).toBe(false);
  expect(performance.now() - began).toBeLessThan(200);
  await slow;
});

test('while the class is recorded each publisher is written into the open part, and no longer', async () => {
  const all = setUp('room', new StandInRelay(), 'part');
  const { relay, media, room, happen } = all;
  await inClass(all);
  await media.publish(room, 'ana', OFFER);
  relay.fail('record', 1);
  await happen({ type: 'recordingStarted', by: null });
  await settle(200);
  expect(relay.said.filter((s) => s.startsWith('record'))).toEqual(['record ana']);
  await happen({ type: 'recordingNarrowed', to: 'sound' });
  expect(relay.said.at(-1)).toBe('record ana, sound only');
  await happen({ type: 'recordingNarrowed', to: 'nothing' });
  expect(relay.said.at(-1)).toBe('stop ana');
  await happen({ type: 'recordingNarrowed', to: 'all' });
  expect(relay.said.at(-1)).toBe('record ana');
  await happen({ type: 'recordingPaused', by: 'maren' });
  expect(relay.said.at(-1)).toBe('stop ana');
});

test.each([
  ['no section', 'v=0\n'],
  ['a section too many', `${OFFER}m=video 9 UDP\n`],
  ['a data channel', 'm=audio 9\nm=video 9\nm=application 9\n'],
  ['another order', 'm=video 9\nm=audio 9\nm=video 9\n'],
])('an offer with %s is refused', (_name, sdp) => {
  expect(() => checkOffer(sdp)).toThrow('sound, camera, screen');
});

test('a caller hears those whose sound is open, not themselves and not what is closed; out of the room, nothing', async () => {
  const { relay, media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'), { type: 'rangIn', by: 'maren' });
  await happen({ type: 'calledIn', member: 'ana' }, { type: 'floorGiven', by: 'maren', member: 'ana' });
  await publishAndStand('maren');
  await media.publish(room, 'ana', 'v=0\nm=audio 9 UDP\n', 'telephone');
  relay.stand();
  media.listen(room, 'line', 'ana');
  await settle();
  expect(relay.mixed.get('line')).toEqual([]);
  await happen(
    { type: 'microphone', member: 'maren', on: true },
    { type: 'microphone', member: 'ana', on: true },
  );
  await settle();
  expect(relay.mixed.get('line')).toEqual(['maren']);
  // Sound of somebody who has called in goes by the telephone alone.
  await publishAndStand('ana');
  await settle();
  expect([...relay.open].filter((t) => t.startsWith('ana'))).toEqual(['ana.telephone/sound']);
  media.unlisten(room, 'line');
  await settle();
  expect(relay.mixed.get('line')).toEqual([]);
  await happen({ type: 'muted', by: 'maren', member: null }, { type: 'left', member: 'ana' });
  expect([...relay.open].filter((t) => t.startsWith('ana'))).toEqual([]);
});
