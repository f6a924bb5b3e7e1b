import { rm } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from '../../context';
import { exportsDir } from '../files';
import { goneAt } from './make';
import { exportsBefore, forgetExport } from './store';

/** What was taken along, or was not wanted any more, is not kept longer than a day. */
export async function forgetExports(ctx: Context): Promise<void> {
  const day = goneAt(0);
  for (const { id, file } of await exportsBefore(ctx.db, ctx.now() - day)) {
    if (file) await rm(path.join(exportsDir(ctx), file), { force: true });
    await forgetExport(ctx.db, id);
  }
}
