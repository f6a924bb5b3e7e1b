import { Voices } from './voices';

test('a breath ends no speaking, and a new microphone begins anew', () => {
  const voices = new Voices();
  expect(voices.heed('s', 'ana', true, 1000)).toBe(1000);
  expect(voices.heed('s', 'ben', true, 2000)).toBe(2000);
  expect(voices.in('s')).toEqual([
    ['ana', 1000],
    ['ben', 2000],
  ]);
  expect(voices.heed('s', 'ana', false, 3000)).toBeNull();
  expect(voices.in('s')).toEqual([['ben', 2000]]);
  expect(voices.heed('s', 'ana', true, 7000)).toBe(1000);
  voices.heed('s', 'ana', false, 8000);
  expect(voices.heed('s', 'ana', true, 13_001)).toBe(13_001);
  expect(voices.anew('s', 'ana')).toBe(true);
  expect(voices.anew('s', 'ana')).toBe(false);
  expect(voices.in('s')).toEqual([['ben', 2000]]);
  expect(voices.heed('s', 'ana', true, 14_000)).toBe(14_000);
  expect(voices.in('other')).toEqual([]);
  // Whoever was not heard stops nothing.
  expect(voices.heed('other', 'ana', false, 1)).toBeNull();
  expect(voices.in('other')).toEqual([]);
});
