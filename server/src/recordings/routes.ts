import path from 'node:path';
import { Router, type Request } from 'express';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import { chaptersOf, gapsOf, isExpired, mayWatch } from '@nimble-bell/core/recording';
import { dateIn } from '@nimble-bell/core/calendar';
import { memberIn, principalOf } from '../accounts/principal';
import type { Context } from '../context';
import { courseById } from '../courses/store';
import { AppError } from '../errors';
import { recordedEvents } from './events';
import { captionLanguages, captionsFile } from './captions';
import { EXPORTS, sendExport } from './export';
import { readyDir } from './prepare';
import { infoOf, partsOf, recordingsWhere, type RecordingRow } from './store';
import { readTicket, ticketFor } from './ticket';
import { watchedOf } from '../watching/store';
import { membersWhere, type MemberRow } from '../accounts/store';
type Viewer = Pick<MemberRow, 'id' | 'link' | 'role' | 'zone' | 'group' | 'scope'>;

export function recordingRoutes(ctx: Context): Router {
  const router = Router();

  /** The recording, if this member may watch it today. */
  const watchable = async (id: string, member: (row: RecordingRow) => Promise<Viewer>) => {
    const row = (await recordingsWhere(ctx.db, 'r.id', id))[0];
    if (!row) throw new AppError('not-found');
    const who = await member(row);
    if (!mayWatch(row, who)) throw new AppError('forbidden');
    const { term } = (await courseById(ctx.db, row.courseId))!;
    if (row.state === 'expired' || isExpired(row.plan, term.zone, ctx.now())) throw new AppError('expired');
    return { row, who, zone: teaches(who.role) ? term.zone : who.zone };
  };
  const byTicket = (req: Request) =>
    watchable(req.params.id as string, async (row) => {
      const ticket = readTicket(ctx, String(req.query.ticket ?? ''), row.id);
      const member =
        ticket &&
        (await membersWhere(ctx.db, 'm.id = ? AND m.course_id = ?', [ticket.member, row.courseId]))[0];
      if (!ticket || !member || !ticket.isOf(member)) throw new AppError('not-signed-in');
      return member;
    });

  router.get('/recordings/:id', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    const { row, who, zone } = await watchable(req.params.id, (r) => memberIn(ctx, principal, r.courseId));
    const [events, parts] = await Promise.all([
      recordedEvents(ctx.db, row.sessionId, { member: who.id, role: who.role }),
      partsOf(ctx.db, row.id),
    ]);
    const ticket = ticketFor(ctx, row.id, who);
    const languages = row.file ? await captionLanguages(readyDir(ctx), row.file) : [];
    const detail: RecordingDetail = {
      ...infoOf(row, teaches(who.role)),
      parts,
      chapters: chaptersOf(parts, events),
      gaps: gapsOf(parts, events),
      events,
      hasPicture: Boolean(row.hasPicture),
      teaching: teaches(who.role),
      caring: who.role === 'teacher' && who.scope === null,
      resume: Number((await watchedOf(ctx.db, row.id, who.id))?.position ?? 0),
      zone,
      mediaPath: `/api/recordings/${row.id}/media?ticket=${ticket}`,
      captions: languages.map((language) => ({
        language,
        path: `/api/recordings/${row.id}/captions/${language}?ticket=${ticket}`,
      })),
    };
    res.json(detail);
  });

  fileRoutes(ctx, router, byTicket);
  return router;
}

type ByTicket = (req: Request) => Promise<{ row: RecordingRow; who: Viewer; zone: string }>;

/** The files themselves, by ticket. */
function fileRoutes(ctx: Context, router: Router, byTicket: ByTicket) {
  const send = async (req: Request, download: boolean) => {
    const { row, who, zone } = await byTicket(req);
    if (download && !infoOf(row, teaches(who.role)).mayDownload) throw new AppError('download-off');
    if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
    return {
      row,
      zone,
      watcher: { member: who.id, role: who.role },
      file: path.join(readyDir(ctx), row.file),
    };
  };

  router.get('/recordings/:id/media', async (req, res) => {
    const { file } = await send(req, false);
    res.sendFile(file, { dotfiles: 'allow', headers: { 'Content-Type': 'video/webm' } });
  });

  router.get('/recordings/:id/captions/:language', async (req, res) => {
    const { row, file } = await send(req, false);
    const { language } = req.params;
    if (!(await captionLanguages(readyDir(ctx), row.file!)).includes(language))
      throw new AppError('not-found');
    res.sendFile(captionsFile(file, language), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'text/vtt; charset=utf-8' },
    });
  });

  router.get('/recordings/:id/export/:kind', async (req, res) => {
    const kind = EXPORTS.find((k) => k === req.params.kind);
    if (!kind) throw new AppError('not-found');
    const { row, file, zone, watcher } = await send(req, true);
    await sendExport(
      ctx,
      kind,
      { row, file, zone, watcher, name: `${row.title} ${dateIn(zone, row.startsAt)}` },
      res,
    );
  });

  router.get('/recordings/:id/download', async (req, res) => {
    const { row, file, zone } = await send(req, true);
    const name = `${row.title} ${dateIn(zone, row.startsAt)}.webm`;
    res.download(file, name, { dotfiles: 'allow' });
  });
}
