import path from 'node:path';
import { lengthOf } from '@nimble-bell/core/recording';
import { CLASS } from '@nimble-bell/core/room';
import type { Context } from '../../context';
import { levelSound } from '../level';
import { piecesFor } from '../prepare';
import { allPartsOf, type RecordingRow } from '../store';
import type { TableRow } from './store';

/**
 * What was said at each table of a class becomes something to hear: the voices of who sat there, mixed and levelled as
 * the class's are. A table at which nobody spoke has nothing.
 */
export async function makeTables(ctx: Context, row: RecordingRow): Promise<TableRow[]> {
  const all = (await allPartsOf(ctx.db, row.id)).filter((p) => p.place !== CLASS && p.until > p.from);
  const tables: TableRow[] = [];
  for (const place of new Set(all.map((p) => p.place))) {
    const parts = all.filter((p) => p.place === place);
    const made = await piecesFor(ctx, row, parts, { over: true, patient: true });
    if (![...made.values()].flat().some((piece) => piece.heard.length)) continue;
    const file = path.join(row.id, `${place}.webm`);
    await levelSound(ctx, { recording: row.id, parts, made, file });
    tables.push({ place, lengthMs: lengthOf(parts), file });
  }
  return tables;
}
