import type { RoomEvent, StoredEvent } from '@nimble-bell/core/api';
import { evolve, newRoom, type RoomState } from '@nimble-bell/core/room';
import type { Context } from '../context';
import type { Room } from '../room/room';
import { StandInRelay } from '../testing/standInRelay';
import { checkOffer, RoomMedia } from './roomMedia';
import type { ViewerOffer } from './relay';

const OFFER = 'v=0\nm=audio 9 UDP\nm=video 9 UDP\nm=video 9 UDP\n';
const ctx = { log: { warn: () => {}, error: () => {} }, now: () => 0 } as unknown as Context;
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

/** A room that only has a state, and media that heed it as the server lets them. */
function setUp() {
  const relay = new StandInRelay();
  const media = new RoomMedia(ctx, relay);
  const room = {
    session: 'room',
    state: newRoom([{ name: 'course', values: { speak: 'closed', camera: 'open' } }]),
  } as {
    session: string;
    state: RoomState;
  } as Room;
  const happen = async (...events: RoomEvent[]) => {
    const stored = events.map((e, i) => ({ ...e, seq: room.state.seq + 1 + i, at: 0 }) as StoredEvent);
    for (const event of stored) room.state = evolve(room.state, event);
    await media.heed(room, stored);
  };
  const enter = (member: string, role: 'teacher' | 'student'): RoomEvent => ({
    type: 'entered',
    member,
    name: member,
    role,
  });
  const publishAndStand = async (member: string) => {
    await media.publish(room, member, OFFER);
    relay.stand();
    await settle();
  };
  return { relay, media, room, happen, enter, publishAndStand };
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

test('a publisher is watched once its connection stands, by everyone else, and again when it publishes anew', async () => {
  const { relay, media, room, happen, enter } = setUp();
  await happen(enter('maren', 'teacher'), enter('ana', 'student'));
  const offers: ViewerOffer[] = [];
  await media.watch(room, 'page of ana', 'ana', (offer) => offers.push(offer));
  await media.watch(room, 'page of maren', 'maren', (offer) => offers.push(offer));
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

test('while an offer is unanswered the next one waits, and then holds everything new', async () => {
  const { media, room, happen, enter, publishAndStand } = setUp();
  await happen(enter('maren', 'teacher'), enter('teo', 'teacher'), enter('ana', 'student'));
  const offers: string[] = [];
  await media.watch(room, 'page', 'ana', (offer) => offers.push(offer.sdp));
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
  await media.watch(room, 'page', 'ana', (offer) => offers.push(offer.sdp));
  for (const member of ['maren', 'teo']) await publishAndStand(member);
  relay.answer = async () => {
    throw new Error('That was no answer.');
  };
  await expect(media.answer('page', 'nonsense')).rejects.toThrow('That was no answer.');
  expect(offers).toEqual(['offer of maren', 'offer of teo']);
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

test.each([
  ['no section', 'v=0\n'],
  ['a section too many', `${OFFER}m=video 9 UDP\n`],
  ['a data channel', 'm=audio 9\nm=video 9\nm=application 9\n'],
  ['another order', 'm=video 9\nm=audio 9\nm=video 9\n'],
])('an offer with %s is refused', (_name, sdp) => {
  expect(() => checkOffer(sdp)).toThrow('sound, a camera and a screen');
});
