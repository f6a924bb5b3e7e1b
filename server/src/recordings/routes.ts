import path from 'node:path';
import { Router } from 'express';
import { dateIn } from '@nimble-bell/core/calendar';
import { shownAt } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import type { Context } from '../context';
import { AppError } from '../errors';
import { watchedOf } from '../watching/store';
import { detailOf, sendCaptions, sendMedia, sendShownPage, sendWatchedFilm } from './detail';
import { sendWriting, WRITINGS } from './exports/writing';
import { readyDir } from './files';
import { tablesTo } from './tables/told';
import { ticketFor } from './ticket';
import { toldTo } from './told';
import { byTicket, downloadable, isReady, watchedBy, type Seen } from './watchable';

/** A recording, as whoever may watch it has it; and its files, by ticket. */
export function recordingRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/recordings/:id', async (req, res) => {
    const { row, who, zone } = await watchedBy(ctx, req);
    const listener = listenerOf({ who });
    const [told, watched, tables] = await Promise.all([
      toldTo(ctx.db, row, listener),
      watchedOf(ctx.db, row.id, who.id),
      tablesTo(ctx.db, row, listener),
    ]);
    const address = { path: `/api/recordings/${row.id}`, query: `?ticket=${ticketFor(ctx, row.id, who)}` };
    const own = {
      tables:
        tables &&
        tables.map(({ file: _stays, ...t }) => ({
          ...t,
          path: `${address.path}/tables/${t.place}${address.query}`,
        })),
      teaching: teaches(who.role),
      caring: who.role === 'teacher' && who.scope === null,
      resume: shownAt(row.told, Number(watched?.position ?? 0)),
    };
    res.json(await detailOf(ctx, row, { ...own, told, listener, zone, address }));
  });
  filesOf(ctx, router);
  return router;
}

const listenerOf = ({ who }: Pick<Seen, 'who'>) => ({ member: who.id, role: who.role });

/** Its files: its sound and pictures, tables, pages, films, captions and writing. */
function filesOf(ctx: Context, router: Router): void {
  router.get('/recordings/:id/media/:file', async (req, res) => {
    const seen = await byTicket(ctx, req);
    await sendMedia(ctx, { row: seen.row, listener: listenerOf(seen) }, req.params.file, res);
  });

  router.get('/recordings/:id/tables/:place', async (req, res) => {
    const { row, who } = await byTicket(ctx, req);
    isReady(row);
    const tables = await tablesTo(ctx.db, row, listenerOf({ who }));
    const table = tables?.find((t) => t.place === req.params.place);
    if (!table) throw new AppError('not-found');
    res.sendFile(path.join(readyDir(ctx), table.file), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'audio/webm' },
    });
  });

  router.get('/recordings/:id/slides/:deck/:page', async (req, res) => {
    const seen = await byTicket(ctx, req);
    await sendShownPage(ctx, { row: seen.row, listener: listenerOf(seen) }, req.params, res);
  });

  router.get('/recordings/:id/films/:material', async (req, res) => {
    const seen = await byTicket(ctx, req);
    await sendWatchedFilm(ctx, { row: seen.row, listener: listenerOf(seen) }, req.params.material, res);
  });

  router.get('/recordings/:id/captions/:language', async (req, res) => {
    const { row } = await byTicket(ctx, req);
    await sendCaptions(ctx, row, req.params.language, res);
  });

  router.get('/recordings/:id/export/:kind', async (req, res) => {
    const kind = WRITINGS.find((k) => k === req.params.kind);
    if (!kind) throw new AppError('not-found');
    const seen = await byTicket(ctx, req);
    downloadable(seen);
    const { row, who, zone } = seen;
    const name = `${row.title} ${dateIn(zone, row.startsAt)}`;
    await sendWriting(ctx, kind, { row, zone, watcher: listenerOf({ who }), name }, res);
  });
}
