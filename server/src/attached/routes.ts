import path from 'node:path';
import { Router } from 'express';
import { z } from 'zod';
import type { AttachedInfo } from '@nimble-bell/core/api';
import { heardBy, maskedFor, withheldIn } from '@nimble-bell/core/recording';
import { evolve, isHere, may, newRoom, refusalWords } from '@nimble-bell/core/room';
import { isFor, targetOf, teaches } from '@nimble-bell/core/roster';
import { line } from '@nimble-bell/core/text';
import { membersWhere, type MemberRow } from '../accounts/store';
import { newId, type Context } from '../context';
import { sessionById, type SessionRow } from '../courses/store';
import { transaction, type Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { placeOf, receive, typeOf } from '../files/receive';
import { readTicket, ticketFor } from '../recordings/ticket';
import { eventsOf } from '../room/store';
import { here } from '../sessions/here';
import { holdWriter } from '../writing/store';
import { attachedBy, attachedById, attachedIn, insertAttached } from './store';

const LARGEST = 25_000_000;
/** A picture up to this is shown with its message, bytes: no more than a page is read for. */
const SHOWN = 2_000_000;
/** So many may somebody send up in one session. */
const MOST = 20;

/** One of them alone. */
const OfQuery = z.object({ of: z.string().max(20).optional() });
const NameQuery = z.object({ name: line('The file has no name.', 160) });

/**
 * The files that go with messages which somebody may read. In class that is whoever heard of it; once it is over, of those
 * who are in no recording nobody but themselves and those who teach.
 */
async function readable(
  ctx: Context,
  session: SessionRow,
  { id: member, role }: MemberRow,
): Promise<string[]> {
  const events = await eventsOf(ctx.db, session.id);
  const known =
    teaches(role) || session.state === 'live'
      ? events
      : maskedFor(events, new Set([...withheldIn(events)].filter((m) => m !== member)));
  return heardBy(known, { member, role }).flatMap((e) => (e.type === 'said' && e.file ? [e.file] : []));
}

async function refuseMore(db: Db, session: SessionRow, { id }: MemberRow) {
  if ((await attachedBy(db, session.id, id)) >= MOST)
    throw new AppError('busy', `At most ${MOST} files a person and class.`);
}

/** What goes with messages: sent up by whoever may attach, and had by whoever may read the message it goes with. */
export function attachedRoutes(ctx: Context): Router {
  const router = Router();
  const folder = path.join(ctx.config.dataDir, 'attached');

  router.get('/sessions/:id/attached', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const { of } = parse(OfQuery, req.query);
    const ids = (await readable(ctx, session, me)).filter((id) => !of || id === of);
    const files = await attachedIn(ctx.db, session.id, ids);
    const infos: AttachedInfo[] = files.map(({ id, name, bytes, type }) => ({
      ...{ id, name, bytes: Number(bytes) },
      shown: type.startsWith('image/') && Number(bytes) <= SHOWN,
      path: `/api/attached/${id}/file?ticket=${ticketFor(ctx, id, me)}`,
    }));
    res.json(infos);
  });

  /** The file is the request's body. It goes nowhere before a message says it. */
  router.post('/sessions/:id/attached', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const { name } = parse(NameQuery, req.query);
    const type = typeOf(name);
    const room = (await eventsOf(ctx.db, session.id)).reduce(evolve, newRoom());
    const actor = { member: me.id, role: me.role };
    if (!isHere(room, me.id)) throw new AppError('forbidden', 'Files are attached in the room.');
    if (!may(room, actor, 'attachFiles').allowed)
      throw new AppError('forbidden', refusalWords(room, actor, 'attachFiles'));
    await refuseMore(ctx.db, session, me);
    const { hash, bytes } = await receive(folder, req, { largest: LARGEST, name });
    const id = newId();
    await transaction(ctx.db, async (db) => {
      // Of several at once each counts the ones before.
      await holdWriter(db, me.id);
      await refuseMore(db, session, me);
      const of = { session: session.id, member: me.id };
      await insertAttached(db, { id, ...of, name, hash, type, bytes, at: ctx.now() });
    });
    res.status(201).json({ id });
  });

  /** By ticket, as every file; whether its holder may is asked anew. */
  router.get('/attached/:id/file', async (req, res) => {
    const ticket = readTicket(ctx, String(req.query.ticket ?? ''), req.params.id);
    const holder = ticket ? (await membersWhere(ctx.db, 'm.id = ?', [ticket.member]))[0] : null;
    if (!holder || !ticket?.isOf(holder)) throw new AppError('not-signed-in');
    const file = await attachedById(ctx.db, req.params.id);
    const session = file && (await sessionById(ctx.db, file.session));
    if (!file || session?.courseId !== holder.courseId || !isFor(targetOf(session), holder))
      throw new AppError('forbidden');
    if (!(await readable(ctx, session, holder)).includes(file.id)) throw new AppError('forbidden');
    res.set('X-Content-Type-Options', 'nosniff');
    res.download(placeOf(folder, file.hash), file.name, {
      dotfiles: 'allow',
      headers: { 'Content-Type': file.type },
    });
  });
  return router;
}
