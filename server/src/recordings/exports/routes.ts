import path from 'node:path';
import { Router, type Request } from 'express';
import { ExportInput, type ExportInfo } from '@nimble-bell/core/api';
import { dateIn } from '@nimble-bell/core/calendar';
import { memberIn, principalOf } from '../../accounts/principal';
import { newId, type Context } from '../../context';
import { AppError, parse } from '../../errors';
import { once } from '../../requests/once';
import { exportsDir } from '../files';
import { downloadable, type ByTicket, type Watchable } from '../routes';
import { ticketFor } from '../ticket';
import { goneAt } from './make';
import { askExport, cancelExport, exportById, exportsOf, type ExportRow } from './store';

/** So many may be on their way for one person and recording. */
const MOST = 3;

/** What one takes along: asked for, seen how far it is, taken back, and had for as long as one may. */
export function exportRoutes(ctx: Context, router: Router, watchable: Watchable, byTicket: ByTicket) {
  const mine = async (req: Request) => {
    const principal = await principalOf(ctx, req.headers);
    const { row, who } = await watchable(req.params.id as string, (r) =>
      memberIn(ctx, principal, r.courseId),
    );
    return { row, who };
  };

  router.get('/recordings/:id/exports', async (req, res) => {
    const { row, who } = await mine(req);
    const ticket = ticketFor(ctx, row.id, who);
    const info = ({ id, kind, state, progress, bytes, madeAt }: ExportRow): ExportInfo => ({
      ...{ id, kind, state: state === 'cancelled' ? 'failed' : state, progress, bytes },
      path: state === 'ready' ? `/api/recordings/${row.id}/exports/${id}/file?ticket=${ticket}` : null,
      goneAt: madeAt === null ? null : goneAt(madeAt),
    });
    res.json((await exportsOf(ctx.db, row.id, who.id)).map(info));
  });

  router.post('/recordings/:id/exports', async (req, res) => {
    const { row, who } = await mine(req);
    const { kind } = parse(ExportInput, req.body);
    downloadable(row, who);
    const answer = await once(ctx, req, async (db) => {
      const before = await exportsOf(db, row.id, who.id);
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
    const { row, who } = await mine(req);
    const found = await exportById(ctx.db, req.params.export);
    if (found?.recording !== row.id || found.member !== who.id) throw new AppError('not-found');
    await cancelExport(ctx.db, found.id);
    res.json({});
  });

  router.get('/recordings/:id/exports/:export/file', async (req, res) => {
    const { row, who, zone } = await byTicket(req);
    downloadable(row, who);
    const found = await exportById(ctx.db, req.params.export);
    if (found?.recording !== row.id || found.member !== who.id || found.state !== 'ready' || !found.file)
      throw new AppError('not-found');
    const ending = path.extname(found.file);
    res.download(
      path.join(exportsDir(ctx), found.file),
      `${row.title} ${dateIn(zone, row.startsAt)}${ending}`,
      {
        dotfiles: 'allow',
      },
    );
  });
}
