import type { Config } from '../../config';
import { freeFor } from './free';

const free = (keepFree: number, courseSpace: number | null, taken?: number) =>
  freeFor({ config: { dataDir: '/', keepFree, courseSpace } as Config }, taken);

test('what is left to others is not free, and a course takes no more than is its own', async () => {
  const all = await free(0, null);
  expect(all).toBeGreaterThan(0);
  expect(await free(1e15, null)).toBe(0);
  expect(Math.abs((await free(1e6, null)) - (all - 1e6))).toBeLessThan(1e9);
  expect(await free(0, 5000, 2000)).toBe(3000);
  expect(await free(0, 5000, 9000)).toBe(0);
  expect(await free(0, 1e15, 0)).toBeLessThan(1e15);
});
