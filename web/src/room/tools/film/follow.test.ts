import { addressOf } from '../../../ui/address';
import { bring, type Playing } from './follow';

const element = (currentTime: number, more: Partial<Playing> = {}) => {
  const one: Playing = {
    ...{ paused: true, currentTime, duration: 100, playbackRate: 1, seeking: false },
    play: async () => void (one.paused = false),
    pause: () => void (one.paused = true),
    ...more,
  };
  return one;
};

test('a film is put where the class is when that is far, and runs there when it is near', () => {
  const late = element(0);
  bring(late, 30, true, { jumped: true });
  expect(late).toMatchObject({ currentTime: 30, paused: false });
  const behind = element(29.7, { paused: false });
  bring(behind, 30, true, { jumped: false });
  expect(behind).toMatchObject({ currentTime: 29.7, playbackRate: 1.1 });
  const before = element(30.3, { paused: false });
  bring(before, 30, true, { jumped: false });
  expect(before.playbackRate).toBe(0.9);
  const together = element(30.02, { paused: false, playbackRate: 1.1 });
  bring(together, 30, true, { jumped: false });
  expect(together).toMatchObject({ currentTime: 30.02, playbackRate: 1 });
  const far = element(12, { paused: false, seeking: true });
  bring(far, 30, true, { jumped: false });
  expect(far.currentTime).toBe(12);
});

test('held it stands where all stand, and at its end it stops', () => {
  const held = element(10.5, { paused: false });
  bring(held, 10, false, { jumped: false });
  expect(held).toMatchObject({ currentTime: 10, paused: true });
  const over = element(99.9, { paused: false });
  bring(over, 140, true, { jumped: false });
  expect(over.paused).toBe(true);
});

test('a browser that lets nothing play says so', async () => {
  const refused = jest.fn();
  const play = () => Promise.reject(Object.assign(new Error(), { name: 'NotAllowedError' }));
  bring(element(0, { play }), 1, true, { jumped: false, refused });
  await Promise.resolve();
  await Promise.resolve();
  expect(refused).toHaveBeenCalledTimes(1);
});

test('an address is whole, of the web, and nothing else', () => {
  expect(addressOf('tides.example/today')).toBe('https://tides.example/today');
  expect(addressOf(' http://tides.example ')).toBe('http://tides.example/');
  for (const none of [
    '',
    'tides',
    'javascript:alert(1)',
    'file:///etc',
    'two words.example',
    'data:text/html,x',
  ])
    expect(addressOf(none)).toBeNull();
});
