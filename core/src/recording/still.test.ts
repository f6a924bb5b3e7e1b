import { stillOf } from './index';

test('the moment that was chosen stands for a recording where something is seen then, else its first screen or camera', () => {
  const camera = { kind: 'camera' as const, at: 0, length: 60_000 };
  const screen = { kind: 'screen' as const, at: 20_000, length: 4000 };
  expect(stillOf([], 5)).toBeNull();
  expect(stillOf([camera], null)).toEqual({ picture: camera, into: 10_000 });
  expect(stillOf([camera, screen], null)).toEqual({ picture: screen, into: 2000 });
  expect(stillOf([camera, screen], 30_000)).toEqual({ picture: camera, into: 30_000 });
  expect(stillOf([camera, screen], 21_000)).toEqual({ picture: screen, into: 1000 });
  // Cut away since: what stands for it is of what is left.
  expect(stillOf([screen], 30_000)).toEqual({ picture: screen, into: 2000 });
});
