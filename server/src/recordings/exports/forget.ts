import type { Context } from '../../context';
import { exportsDir, removeBeginning } from '../files';
import { goneAt } from './make';
import { exportsBefore, forgetExport } from './store';

/** What was taken along, or was not wanted any more, is not kept longer than a day. */
export async function forgetExports(ctx: Context): Promise<void> {
  const day = goneAt(0);
  for (const { id } of await exportsBefore(ctx.db, ctx.now() - day)) {
    // What it was to be as well, where its making was ended in the middle.
    await removeBeginning(exportsDir(ctx), id);
    await forgetExport(ctx.db, id);
  }
}
