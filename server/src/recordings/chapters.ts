import { Router } from 'express';
import { ChaptersInput } from '@nimble-bell/core/api';
import { isTold, mayWatch, sourceAt, type Chapter } from '@nimble-bell/core/recording';
import { principalOf, requireRight } from '../accounts/principal';
import type { Context } from '../context';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { indexWords } from '../watching/words';
import { keepChapters, recordingsWhere, type RecordingRow } from './store';

/** Chapters as those who teach write them, in place of what came by itself. */
export function chapterRoutes(ctx: Context): Router {
  const router = Router();

  router.put('/recordings/:id/chapters', async (req, res) => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
    if (!row) throw new AppError('not-found');
    const me = await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'teach');
    if (!mayWatch(row, me, ctx.now())) throw new AppError('forbidden');
    const { chapters } = parse(ChaptersInput, req.body);
    if (row.whole.state !== 'ready') throw new AppError('not-ready');
    await transaction(ctx.db, (db) => keepChapters(db, row.id, chapters && inAll(row, chapters)));
    await indexWords(ctx, row.id);
    res.json({});
  });
  return router;
}

/** Kept by what was recorded; those of what is left out now stay for when it is told again. */
function inAll(row: RecordingRow, chapters: readonly Chapter[]): Chapter[] {
  const written = chapters.map(({ title, position }) => ({
    title,
    position: Math.round(sourceAt(row.told, Math.min(position, row.lengthMs))),
  }));
  const unseen = row.cut ? (row.chapters ?? []).filter((c) => !isTold(row.told, c.position)) : [];
  return [...written, ...unseen].sort((a, b) => a.position - b.position);
}
