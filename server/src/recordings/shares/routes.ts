import path from 'node:path';
import { Router, type Request } from 'express';
import { ShareInput, type RecordingDetail, type ShareInfo } from '@nimble-bell/core/api';
import { chaptersOf, forAnybody, keptOf, gapsOf, isExpired } from '@nimble-bell/core/recording';
import { principalOf, requireRight } from '../../accounts/principal';
import { newId, newLinkCode, type Context } from '../../context';
import { courseById } from '../../courses/store';
import { AppError, parse } from '../../errors';
import { once } from '../../requests/once';
import { eventsOf } from '../../room/store';
import { captionsFile, shownLanguages } from '../captions';
import { readyDir } from '../files';
import { infoOf, partsOf, picturesIn, recordingsWhere, type RecordingRow } from '../store';
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
  const opened = async (req: Request): Promise<{ row: RecordingRow; share: ShareRow; zone: string }> => {
    const share = await shareBy(ctx.db, String(req.params.code));
    const [row] =
      share && share.until > ctx.now() ? await recordingsWhere(ctx.db, 'r.id', share.recording) : [];
    if (!share || !row || row.takenAt) throw new AppError('not-found', 'This link is not good any more.');
    const { term } = (await courseById(ctx.db, row.courseId))!;
    if (row.state === 'expired' || isExpired(row.plan, term.zone, ctx.now())) throw new AppError('expired');
    if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
    return { row, share, zone: term.zone };
  };

  router.get('/shared/:code', async (req, res) => {
    const { row, share, zone } = await opened(req);
    const [stored, parts, pictures, languages] = await Promise.all([
      eventsOf(ctx.db, row.sessionId),
      partsOf(ctx.db, row.id),
      picturesIn(ctx.db, row.id),
      shownLanguages(readyDir(ctx), row),
    ]);
    const events = forAnybody(keptOf(stored, row.plan?.leavesOut ?? []));
    const media = (file: string) => `/api/shared/${share.code}/media/${path.basename(file)}`;
    await noteOpened(ctx.db, share.id);
    const detail: RecordingDetail = {
      ...{ ...infoOf(row, false), mayDownload: false },
      ...{ parts, events, zone, resume: 0, teaching: false, caring: false, shared: true },
      chapters: chaptersOf(parts, events),
      gaps: gapsOf(parts, stored),
      mediaPath: media(row.file!),
      pictures: pictures.map(({ kind, at, length, file }) => ({ kind, at, length, path: media(file) })),
      silences: row.silences,
      leavesOut: row.plan?.leavesOut ?? [],
      captions: languages.map((language) => ({
        language,
        path: `/api/shared/${share.code}/captions/${language}`,
      })),
    };
    res.json(detail);
  });

  router.get('/shared/:code/media/:file', async (req, res) => {
    const { row } = await opened(req);
    const all = [row.file!, ...(await picturesIn(ctx.db, row.id)).map((p) => p.file)];
    const file = all.find((f) => path.basename(f) === req.params.file);
    if (!file) throw new AppError('not-found');
    res.sendFile(path.join(readyDir(ctx), file), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'video/webm' },
    });
  });

  router.get('/shared/:code/captions/:language', async (req, res) => {
    const { row } = await opened(req);
    const { language } = req.params;
    if (!(await shownLanguages(readyDir(ctx), row)).includes(language)) throw new AppError('not-found');
    res.sendFile(captionsFile(readyDir(ctx), row.id, language), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'text/vtt; charset=utf-8' },
    });
  });
}
