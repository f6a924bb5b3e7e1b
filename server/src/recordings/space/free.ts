import { statfs } from 'node:fs/promises';
import type { Context } from '../../context';

/** Bytes of the disk that recordings may take yet; of a course that has taken some, of its own space too. */
export async function freeFor({ config }: Pick<Context, 'config'>, taken = 0): Promise<number> {
  const { bavail, bsize } = await statfs(config.dataDir);
  const own = config.courseSpace === null ? Infinity : config.courseSpace - taken;
  return Math.max(0, Math.min(bavail * bsize - config.keepFree, own));
}
