import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { isExpired, planOf } from '@nimble-bell/core/recording';
import type { Context } from '../context';
import { json, rows, run } from '../db/pool';
import type { Term } from '@nimble-bell/core/api';
import { readSettings } from '../sessions/store';
import { rawDir, readyDir } from './prepare';
import { partsOf } from './store';

const HOUR_MS = 3_600_000;

/** Takes away what is past its keep-until date, files first; the row stays and says so. Gives how many. */
export async function expireRecordings(ctx: Context): Promise<number> {
  const kept = await rows<{ id: string; file: string | null; plan: unknown; term: unknown }>(
    ctx.db,
    `SELECT r.id, r.file, c.settings AS plan, t.body AS term
       FROM recordings r JOIN sessions s ON s.id = r.session_id JOIN courses c ON c.id = s.course_id
       JOIN terms t ON t.id = c.term_id WHERE r.state IN ('ready', 'failed')`,
  );
  const due = kept.filter((r) =>
    isExpired(
      planOf([{ name: 'course', settings: readSettings(r.plan) }]),
      json<Term>(r.term).zone,
      ctx.now(),
    ),
  );
  for (const { id, file } of due) {
    if (file) await rm(path.join(readyDir(ctx), file), { force: true });
    for (const part of await partsOf(ctx.db, id))
      for (const name of await readdir(rawDir(ctx)))
        if (name.startsWith(`${part.id}-`)) await rm(path.join(rawDir(ctx), name), { force: true });
    await run(ctx.db, "UPDATE recordings SET state = 'expired', file = NULL, bytes = 0 WHERE id = ?", [id]);
  }
  return due.length;
}

/** Looks now and every hour. */
export function keepExpiring(ctx: Context): NodeJS.Timeout {
  const look = () =>
    void expireRecordings(ctx).catch((error: unknown) => ctx.log.error(error, 'expiring recordings'));
  look();
  return setInterval(look, HOUR_MS);
}
