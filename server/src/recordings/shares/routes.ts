import { Router, type Request } from 'express';
import { ShareInput, type ShareInfo } from '@nimble-bell/core/api';
import { principalOf, requireRight } from '../../accounts/principal';
import { newId, newLinkCode, type Context } from '../../context';
import { AppError, parse } from '../../errors';
import { once } from '../../requests/once';
import { holdWriter } from '../../writing/store';
import { detailOf, sendCaptions, sendMedia, sendShownPage } from '../detail';
import { recordingsWhere } from '../store';
import { toldTo } from '../told';
import { isReady, keptIn } from '../watchable';
import { endShare, insertShare, noteOpened, shareBy, sharesOf, type ShareRow } from './store';

/** So many links may a recording have at once. */
const MOST = 20;

/** Links by which anybody may watch a recording: made and taken back by its teacher, good for as long as they say. */
export function shareRoutes(ctx: Context): Router {
  const router = Router();
  const cared = async (req: Request) => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
    if (!row) throw new AppError('not-found');
    const me = await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'plan');
    return { row, me };
  };

  router.get('/recordings/:id/shares', async (req, res) => {
    const { row } = await cared(req);
    const info = ({ id, code, until, opened }: ShareRow): ShareInfo => ({
      ...{ id, until, opened, ended: until <= ctx.now() },
      path: `/shared/${code}`,
    });
    res.json((await sharesOf(ctx.db, row.id)).map(info));
  });

  router.post('/recordings/:id/shares', async (req, res) => {
    const { row, me } = await cared(req);
    const { until } = parse(ShareInput, req.body);
    if (until <= ctx.now()) throw new AppError('invalid', 'It would end before it begins.');
    const answer = await once(ctx, req, async (db) => {
      // Of several at once each counts the ones before.
      await holdWriter(db, me.id);
      if ((await sharesOf(db, row.id)).length >= MOST)
        throw new AppError('busy', `At most ${MOST} links a recording. Take one back first.`);
      const share = { id: newId(), recording: row.id, code: newLinkCode(), madeAt: ctx.now(), until };
      await insertShare(db, { ...share, by: me.id });
      return { id: share.id, path: `/shared/${share.code}` };
    });
    res.status(201).json(answer);
  });

  router.delete('/recordings/:id/shares/:share', async (req, res) => {
    const { row } = await cared(req);
    if (!(await endShare(ctx.db, row.id, req.params.share as string))) throw new AppError('not-found');
    res.json({});
  });

  publicRoutes(ctx, router);
  return router;
}

/** What whoever has such a link gets: asked anew each time whether it is good, and the recording there. */
function publicRoutes(ctx: Context, router: Router) {
  const opened = async (req: Request) => {
    const share = await shareBy(ctx.db, String(req.params.code));
    const [row] =
      share && share.until > ctx.now() ? await recordingsWhere(ctx.db, 'r.id', share.recording) : [];
    if (!share || !row || row.takenAt) throw new AppError('not-found', 'This link is not good any more.');
    const zone = await keptIn(ctx, row);
    isReady(row);
    return { row, share, zone };
  };

  router.get('/shared/:code', async (req, res) => {
    const { row, share, zone } = await opened(req);
    const told = await toldTo(ctx.db, row, 'anybody');
    await noteOpened(ctx.db, share.id);
    const address = { path: `/api/shared/${share.code}`, query: '' };
    const nobody = { zone, resume: 0, teaching: false, caring: false, tables: [] };
    const detail = await detailOf(ctx, row, { ...nobody, told, listener: 'anybody', address });
    res.json({ ...detail, mayDownload: false, shared: true });
  });

  router.get('/shared/:code/media/:file', async (req, res) => {
    const { row } = await opened(req);
    await sendMedia(ctx, { row, listener: 'anybody' }, req.params.file, res);
  });

  router.get('/shared/:code/slides/:deck/:page', async (req, res) => {
    const { row } = await opened(req);
    await sendShownPage(ctx, { row, listener: 'anybody' }, req.params, res);
  });

  router.get('/shared/:code/captions/:language', async (req, res) => {
    await sendCaptions(ctx, (await opened(req)).row, req.params.language, res);
  });
}
