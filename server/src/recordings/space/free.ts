import { statfs } from 'node:fs/promises';
import type { Context } from '../../context';

/** Bytes of the disk that recordings may take yet. */
export async function freeFor({ config }: Pick<Context, 'config'>): Promise<number> {
  const { bavail, bsize } = await statfs(config.dataDir);
  return Math.max(0, bavail * bsize - config.keepFree);
}
