import { act, render } from '@testing-library/react';
import { Follower } from './Follower';
import { pictureAt, seenAt, type SeenPicture } from './seen';
import type { Film } from './useMedia';

const picture = (kind: SeenPicture['kind'], at: number, length: number): SeenPicture => ({
  ...{ kind, at, length, path: `/${kind}${at}` },
});

test('of several pictures at once the one that began last is seen; what comes in a moment is there already', () => {
  const all = [
    picture('camera', 0, 60_000),
    picture('camera', 20_000, 5000),
    picture('screen', 30_000, 9000),
  ];
  expect(pictureAt(all, 'camera', 10_000)?.at).toBe(0);
  expect(pictureAt(all, 'camera', 22_000)?.at).toBe(20_000);
  expect(pictureAt(all, 'camera', 26_000)?.at).toBe(0);
  expect(pictureAt(all, 'screen', 29_500)?.at).toBe(30_000);
  expect(pictureAt(all, 'screen', 39_001)).toBeNull();
});

test('the screen, the camera, or the screen alone is large; one that is alone always is', () => {
  const all = [picture('camera', 0, 60_000), picture('screen', 30_000, 9000)];
  const kinds = (view: Parameters<typeof seenAt>[1], at: number) => {
    const { large, beside } = seenAt(all, view, at);
    return [large.map((p) => p.kind).join() || null, beside?.kind ?? null];
  };
  expect(kinds('screen', 35_000)).toEqual(['screen', 'camera']);
  expect(kinds('camera', 35_000)).toEqual(['camera', 'screen']);
  expect(kinds('alone', 35_000)).toEqual(['screen', null]);
  for (const view of ['screen', 'camera', 'alone'] as const)
    expect(kinds(view, 10_000)).toEqual(['camera', null]);
  expect(kinds('screen', 70_000)).toEqual([null, null]);
  // Two who presented side by side are seen so; one who took over is seen alone.
  all.push(picture('screen', 33_000, 9000), picture('screen', 41_500, 5000));
  expect(kinds('screen', 32_500)).toEqual(['screen', 'camera']);
  expect(kinds('screen', 35_000)).toEqual(['screen,screen', 'camera']);
  expect(kinds('alone', 35_000)).toEqual(['screen,screen', null]);
  expect(kinds('camera', 35_000)).toEqual(['camera', 'screen']);
  expect(kinds('screen', 41_700)).toEqual(['screen', 'camera']);
});

/** A picture that began at 10 s beside a sound at `now`; gives its element after it has followed once. */
function followed(
  now: number,
  { at, paused = false, pace = 1 }: { at: number; paused?: boolean; pace?: number },
) {
  jest.useFakeTimers();
  const film = { now: () => now, paused: () => paused, pace: () => pace } as unknown as Film;
  const { container, unmount } = render(
    <Follower picture={picture('screen', 10_000, 60_000)} film={film} failed={() => {}} label="Screen" />,
  );
  const video = container.querySelector('video')!;
  let playing = false;
  for (const [name, value] of Object.entries({ readyState: 4, seeking: false }))
    Object.defineProperty(video, name, { configurable: true, value });
  Object.defineProperty(video, 'paused', { configurable: true, get: () => !playing });
  Object.assign(video, {
    currentTime: at,
    play: async () => void (playing = true),
    pause: () => void (playing = false),
  });
  act(() => void jest.advanceTimersByTime(250));
  const seen = { at: video.currentTime, rate: video.playbackRate, playing };
  unmount();
  jest.useRealTimers();
  return seen;
}

test('a picture follows the sound: by its pace where it is a little beside, by going there where it is more', () => {
  expect(followed(30_000, { at: 20 })).toEqual({ at: 20, rate: 1, playing: true });
  const behind = followed(30_000, { at: 19.8 });
  expect([behind.at, behind.rate]).toEqual([19.8, expect.closeTo(1.2)]);
  expect(followed(30_000, { at: 20.1 }).rate).toBeCloseTo(0.9);
  expect(followed(30_000, { at: 3 }).at).toBe(20);
  expect(followed(30_000, { at: 20, pace: 2 }).rate).toBe(2);
});

test('while the sound stands its pictures stand at the very moment', () => {
  expect(followed(30_000, { at: 20.2, paused: true })).toMatchObject({ at: 20, playing: false });
  // Before it began it stands at its beginning.
  expect(followed(9500, { at: 4, paused: true }).at).toBe(0);
});
