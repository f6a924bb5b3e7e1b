import { AWAY_MS, isExpired } from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { json } from '../../db/pool';
import type { Term } from '@nimble-bell/core/api';
import { readyDir, removeBeginning } from '../files';
import { letGo } from '../finish';
import { planSaid } from '../store';
import { expirable, noteExpired } from './store';

/** Deletes what is past its keep-until date, and what was taken away long enough ago, files first; the row stays and says so. Gives how many. */
export async function expireRecordings(ctx: Context): Promise<number> {
  const kept = await expirable(ctx.db);
  const away = ({ takenAt }: { takenAt: number | null }) =>
    takenAt !== null && Number(takenAt) + AWAY_MS <= ctx.now();
  const due = kept.filter((r) => away(r) || isExpired(planSaid(r), json<Term>(r.term).zone, ctx.now()));
  for (const { id } of due) {
    // Its file or its folder, and its captions beside it; and what it was made of.
    await removeBeginning(readyDir(ctx), id);
    await letGo(ctx, id);
    await noteExpired(ctx.db, id);
  }
  return due.length;
}
