import path from 'node:path';
import { Router } from 'express';
import { ExportInput, type ExportInfo } from '@nimble-bell/core/api';
import { dateIn } from '@nimble-bell/core/calendar';
import { newId, type Context } from '../../context';
import type { Db } from '../../db/pool';
import { AppError, parse } from '../../errors';
import { once } from '../../requests/once';
import { holdWriter } from '../../writing/store';
import { exportsDir } from '../files';
import type { RecordingRow } from '../store';
import { ticketFor } from '../ticket';
import { byTicket, downloadable, watchedBy } from '../watchable';
import { goneAt } from './make';
import { askExport, cancelExport, exportById, exportsOf, withoutOf, type ExportRow } from './store';

/** So many may be on their way for one person and recording. */
const MOST = 3;

/** What somebody takes along of a recording as it is now; what was made of it when less was left out stands no more. */
const standing = async (db: Db, row: RecordingRow, member: string): Promise<ExportRow[]> =>
  (await exportsOf(db, row.id, member)).filter((e) => e.without === null || e.without === withoutOf(row));

/** What one takes along: asked for, seen how far it is, taken back, and had for as long as one may. */
export function exportRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/recordings/:id/exports', async (req, res) => {
    const { row, who } = await watchedBy(ctx, req);
    const ticket = ticketFor(ctx, row.id, who);
    const info = ({ id, kind, state, progress, bytes, madeAt, sha256 }: ExportRow): ExportInfo => ({
      ...{ id, kind, state: state === 'cancelled' ? 'failed' : state, progress, bytes, sha256 },
      path: state === 'ready' ? `/api/recordings/${row.id}/exports/${id}/file?ticket=${ticket}` : null,
      goneAt: madeAt === null ? null : goneAt(madeAt),
    });
    res.json((await standing(ctx.db, row, who.id)).map(info));
  });

  router.post('/recordings/:id/exports', async (req, res) => {
    const { row, who } = await watchedBy(ctx, req);
    const { kind } = parse(ExportInput, req.body);
    downloadable({ row, who });
    const answer = await once(ctx, req, async (db) => {
      // Of several at once each counts the ones before.
      await holdWriter(db, who.id);
      const before = await standing(db, row, who.id);
      const same = before.find((e) => e.kind === kind && e.state !== 'failed');
      if (same) return { id: same.id };
      if (before.filter((e) => e.state === 'waiting' || e.state === 'making').length >= MOST)
        throw new AppError('busy', `At most ${MOST} are made for you at once.`);
      const id = newId();
      await askExport(db, { id, recording: row.id, member: who.id, kind }, ctx.now());
      return { id };
    });
    res.status(201).json(answer);
  });

  router.delete('/recordings/:id/exports/:export', async (req, res) => {
    const { row, who } = await watchedBy(ctx, req);
    const found = await exportById(ctx.db, req.params.export);
    if (found?.recording !== row.id || found.member !== who.id) throw new AppError('not-found');
    await cancelExport(ctx.db, found.id);
    res.json({});
  });

  router.get('/recordings/:id/exports/:export/file', async (req, res) => {
    const { row, who, zone } = await byTicket(ctx, req);
    downloadable({ row, who });
    const found = await exportById(ctx.db, req.params.export);
    if (found?.recording !== row.id || found.member !== who.id || found.state !== 'ready' || !found.file)
      throw new AppError('not-found');
    // Made of a recording that was more than it is now: it is made anew.
    if (found.without !== withoutOf(row)) throw new AppError('not-found');
    const ending = path.extname(found.file);
    res.download(
      path.join(exportsDir(ctx), found.file),
      `${row.title} ${dateIn(zone, row.startsAt)}${ending}`,
      {
        dotfiles: 'allow',
      },
    );
  });
  return router;
}
