import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { AWAY_MS, isExpired } from '@nimble-bell/core/recording';
import type { Context } from '../context';
import { json } from '../db/pool';
import type { Term } from '@nimble-bell/core/api';
import { captionLanguages, captionsFile } from './captions';
import { rawDir, readyDir } from './prepare';
import { expirable, noteExpired, partsOf, planSaid } from './store';

/** Deletes what is past its keep-until date, and what was taken away long enough ago, files first; the row stays and says so. Gives how many. */
export async function expireRecordings(ctx: Context): Promise<number> {
  const kept = await expirable(ctx.db);
  const away = ({ takenAt }: { takenAt: number | null }) =>
    takenAt !== null && Number(takenAt) + AWAY_MS <= ctx.now();
  const due = kept.filter((r) => away(r) || isExpired(planSaid(r), json<Term>(r.term).zone, ctx.now()));
  for (const { id, file } of due) {
    if (file) {
      for (const language of await captionLanguages(readyDir(ctx), file))
        await rm(path.join(readyDir(ctx), captionsFile(file, language)), { force: true });
      await rm(path.join(readyDir(ctx), file), { force: true });
    }
    for (const part of await partsOf(ctx.db, id))
      for (const name of await readdir(rawDir(ctx)))
        if (name.startsWith(`${part.id}-`)) await rm(path.join(rawDir(ctx), name), { force: true });
    await noteExpired(ctx.db, id);
  }
  return due.length;
}
