import type { StoredEvent } from '@nimble-bell/core/room';
import type { Room } from '../room';
import { Doorkeeper } from './doorkeeper';
import type { Device } from './visits';

const room = {} as Room;
const event = (body: object) => ({ seq: 1, at: 0, ...body }) as StoredEvent;

/** Ana on two pages, Ben on one, all at one door; and what each page was told. */
function door() {
  const keeper = new Doorkeeper();
  const told: string[] = [];
  for (const [id, member] of [
    ['a1', 'ana'],
    ['a2', 'ana'],
    ['b', 'ben'],
  ] as const) {
    const hears =
      (name: string) =>
      (...words: string[]) =>
        told.push([id, name, ...words].join(' '));
    const device = {
      id,
      ...{ door: hears('door'), word: hears('word'), putOut: hears('put-out'), moved: hears('moved') },
    } as unknown as Device;
    keeper.wait({ device, room, member });
  }
  const tell = (body: object) => {
    told.length = 0;
    keeper.tell(room, [event(body)]);
    return told;
  };
  return { keeper, tell, told };
}

test('who is let in hears it on every page, the others nothing; a word and other rules reach all', () => {
  const { tell } = door();
  expect(tell({ type: 'admitted', by: 'maren', members: ['ana'] })).toEqual(['a1 door', 'a2 door']);
  expect(tell({ type: 'porchTold', by: 'maren', text: 'Soon.' })).toHaveLength(3);
  for (const type of ['settingsChanged', 'unlocked', 'rangIn', 'replanned'])
    expect(tell({ type })).toEqual(['a1 door', 'a2 door', 'b door']);
  for (const type of ['said', 'knocked', 'locked', 'entered', 'handRaised'])
    expect(tell({ type })).toEqual([]);
});

test('who is turned away is told why and waits no more; dismissal ends it for all', () => {
  const { keeper, tell } = door();
  expect(tell({ type: 'turnedAway', by: 'maren', members: ['ana'], word: 'On Thursday.' })).toEqual([
    'a1 put-out On Thursday.',
    'a2 put-out On Thursday.',
  ]);
  expect([keeper.waits(room, 'ana'), keeper.waits(room, 'ben')]).toEqual([false, true]);
  expect(tell({ type: 'dismissed', by: null })).toContain('b put-out The class is over.');
  expect(tell({ type: 'unlocked' })).toEqual([]);
});

test('a page that goes is one less; when another server has the room all go there', () => {
  const { keeper, told } = door();
  expect(keeper.goes('a1')).toMatchObject({ member: 'ana' });
  expect(keeper.waits(room, 'ana')).toBe(true);
  expect(keeper.goes('a1')).toBeNull();
  keeper.moved({} as Room);
  expect(told).toEqual([]);
  keeper.moved(room);
  expect(told).toEqual(['a2 moved', 'b moved']);
});
