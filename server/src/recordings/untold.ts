import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from '../context';
import { readyDir } from './files';
import { asRecorded, picturesIn, recordingsWhere } from './store';
import { tablesOf } from './tables/store';

/**
 * The files of a recording that nothing tells of any more are let go: what was ready before it was finished, cuts not in
 * force, who was forgotten, a work that ended in the middle. Only for whoever is alone at work on it.
 */
export async function letUntoldGo(ctx: Context, recording: string): Promise<void> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', recording);
  if (!row) return;
  const whole = await picturesIn(ctx.db, asRecorded(row));
  const tables = await tablesOf(ctx.db, recording);
  const told = [...whole, ...(row.cut?.pictures ?? []), ...tables].map(({ file }) => file);
  const named = new Set([row.whole.file, row.cut && row.file, ...told]);
  const folder = path.join(readyDir(ctx), recording);
  for (const name of await readdir(folder).catch(() => [] as string[]))
    if (name.endsWith('.webm') && !named.has(path.join(recording, name)))
      await rm(path.join(folder, name), { force: true });
}
