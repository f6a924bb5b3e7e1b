import path from 'node:path';
import { Router } from 'express';
import type { FilmAddress } from '@nimble-bell/core/api';
import { CLASS, isHere, placeOf } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { membersWhere, type MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import { AppError } from '../errors';
import { placeOf as fileAt } from '../files/receive';
import { materialById } from '../materials/store';
import { readTicket, ticketFor } from '../recordings/ticket';
import { RoomReader } from '../room/reader';
import { here } from '../sessions/here';
import { isFilm } from './films';

/** What a class watches together, as a file that a media element plays: for whoever is there, while it is shown. */
export function filmRoutes(ctx: Context): Router {
  const router = Router();
  const reader = new RoomReader();

  /** Which file is shown to somebody in a session now; null where none is. */
  const shownTo = async (session: string, me: Pick<MemberRow, 'id' | 'role'>): Promise<string | null> => {
    const room = await reader.room(ctx.db, session);
    const watches = teaches(me.role) || (isHere(room, me.id) && placeOf(room, me.id) === CLASS);
    return (watches && room.film.on?.material) || null;
  };

  /** Where it is had: the address is good for this person alone. */
  router.get('/sessions/:id/film', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const material = await shownTo(session.id, me);
    if (!material) throw new AppError('not-found', 'No film is shown.');
    const ticket = ticketFor(ctx, `${session.id}-${material}`, me);
    res.json({
      path: `/api/sessions/${session.id}/film/${material}?ticket=${ticket}`,
    } satisfies FilmAddress);
  });

  /** By ticket: a media element sends no headers of ours. Whether its holder may is asked anew with each piece. */
  router.get('/sessions/:id/film/:material', async (req, res) => {
    const { id, material } = req.params;
    const ticket = readTicket(ctx, String(req.query.ticket ?? ''), `${id}-${material}`);
    const holder = ticket ? (await membersWhere(ctx.db, 'm.id = ?', [ticket.member]))[0] : null;
    if (!holder || !ticket!.isOf(holder)) throw new AppError('not-signed-in');
    const [session, row] = await Promise.all([sessionById(ctx.db, id), materialById(ctx.db, material)]);
    const its = session && row?.courseId === session.courseId && holder.courseId === session.courseId;
    if (!its || !row.hash || !isFilm(row.type) || (await shownTo(id, holder)) !== material)
      throw new AppError('forbidden', 'This film is not shown.');
    res.set('X-Content-Type-Options', 'nosniff');
    res.sendFile(fileAt(path.join(ctx.config.dataDir, 'materials'), row.hash), {
      dotfiles: 'allow',
      headers: { 'Content-Type': row.type!, 'Cache-Control': 'private, no-cache' },
    });
  });
  return router;
}
