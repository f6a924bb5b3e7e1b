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
import { captionsFile, shownLanguages } from './captions';
import { exportRoutes } from './exports/routes';
import { sendWriting, WRITINGS } from './exports/writing';
import { readyDir } from './files';
import { infoOf, partsOf, picturesIn, recordingsWhere, type RecordingRow } from './store';
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
    const [events, parts, pictures] = await Promise.all([
      recordedEvents(ctx.db, row, { member: who.id, role: who.role }),
      partsOf(ctx.db, row.id),
      picturesIn(ctx.db, row.id),
    ]);
    const ticket = ticketFor(ctx, row.id, who);
    const languages = row.file ? await shownLanguages(readyDir(ctx), row) : [];
    const media = (file: string) => `/api/recordings/${row.id}/media/${path.basename(file)}?ticket=${ticket}`;
    const detail: RecordingDetail = {
      ...infoOf(row, teaches(who.role)),
      parts,
      chapters: chaptersOf(parts, events),
      gaps: gapsOf(parts, events),
      events,
      teaching: teaches(who.role),
      caring: who.role === 'teacher' && who.scope === null,
      resume: Number((await watchedOf(ctx.db, row.id, who.id))?.position ?? 0),
      zone,
      mediaPath: media(row.file ?? 'none'),
      pictures: pictures.map(({ kind, at, length, file }) => ({ kind, at, length, path: media(file) })),
      silences: row.silences,
      leavesOut: row.plan?.leavesOut ?? [],
      captions: languages.map((language) => ({
        language,
        path: `/api/recordings/${row.id}/captions/${language}?ticket=${ticket}`,
      })),
    };
    res.json(detail);
  });

  fileRoutes(ctx, router, byTicket);
  exportRoutes(ctx, router, watchable, byTicket);
  return router;
}

type Seen = { row: RecordingRow; who: Viewer; zone: string };
export type Watchable = (id: string, member: (row: RecordingRow) => Promise<Viewer>) => Promise<Seen>;
export type ByTicket = (req: Request) => Promise<Seen>;

/** It is ready, and this member may take it along now. */
export function downloadable(row: RecordingRow, who: Viewer) {
  if (!infoOf(row, teaches(who.role)).mayDownload) throw new AppError('download-off');
  if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
}

/** The files themselves, by ticket. */
function fileRoutes(ctx: Context, router: Router, byTicket: ByTicket) {
  const send = async (req: Request) => {
    const { row } = await byTicket(req);
    if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
    return row;
  };

  router.get('/recordings/:id/media/:file', async (req, res) => {
    const row = await send(req);
    const all = [row.file!, ...(await picturesIn(ctx.db, row.id)).map((p) => p.file)];
    const file = all.find((f) => path.basename(f) === req.params.file);
    if (!file) throw new AppError('not-found');
    const type = file === row.file && file.includes('/') ? 'audio/webm' : 'video/webm';
    res.sendFile(path.join(readyDir(ctx), file), { dotfiles: 'allow', headers: { 'Content-Type': type } });
  });

  router.get('/recordings/:id/captions/:language', async (req, res) => {
    const row = await send(req);
    const { language } = req.params;
    if (!(await shownLanguages(readyDir(ctx), row)).includes(language)) throw new AppError('not-found');
    res.sendFile(captionsFile(readyDir(ctx), row.id, language), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'text/vtt; charset=utf-8' },
    });
  });

  router.get('/recordings/:id/export/:kind', async (req, res) => {
    const kind = WRITINGS.find((k) => k === req.params.kind);
    if (!kind) throw new AppError('not-found');
    const { row, who, zone } = await byTicket(req);
    downloadable(row, who);
    const name = `${row.title} ${dateIn(zone, row.startsAt)}`;
    await sendWriting(ctx, kind, { row, zone, watcher: { member: who.id, role: who.role }, name }, res);
  });
}
