import path from 'node:path';
import { Router, type Request } from 'express';
import { MaterialLink } from '@nimble-bell/core/api';
import { line } from '@nimble-bell/core/text';
import { z } from 'zod';
import { asked, principalOf, requireRight } from '../accounts/principal';
import { newId, type Context } from '../context';
import { sessionById } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError, parse } from '../errors';
import { placeOf, receive, typeOf } from '../files/receive';
import { once } from '../requests/once';
import { readTicket } from '../recordings/ticket';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import {
  infoOf,
  insertMaterial,
  isOpen,
  keepForTeachers,
  materialById,
  materialsFor,
  removeMaterial,
  type MaterialRow,
} from './store';
import { membersWhere, type MemberRow } from '../accounts/store';
const LARGEST = 200_000_000;
const UploadQuery = z.object({
  name: line('The file has no name.', 160),
  session: z.string().max(20).optional(),
  /** Who has it: those who teach alone, or the class too. */
  for: z.enum(['teachers', 'class']).default('class'),
});
const Given = z.object({ forTeachers: z.boolean() });

const ownSession = async (ctx: Context, courseId: string, id: string | null | undefined) => {
  if (!id) return null;
  const session = await sessionById(ctx.db, id);
  if (session?.courseId !== courseId)
    throw new AppError('not-found', 'There is no such session in this course.');
  return id;
};

const keep = async (
  ctx: Context,
  db: Db,
  member: MemberRow,
  m: Omit<MaterialRow, 'id' | 'courseId' | 'by' | 'at'>,
) => {
  const row: MaterialRow = { ...m, id: newId(), courseId: member.courseId, by: member.name, at: ctx.now() };
  await insertMaterial(db, row);
  return infoOf(ctx, row, member);
};

const byId = async (ctx: Context, id: string) => {
  const row = await materialById(ctx.db, id);
  if (!row) throw new AppError('not-found');
  return row;
};

/** Files and links of a course: kept by what is in them, and given to those on its list alone. */
export function materialRoutes(ctx: Context): Router {
  const router = Router();
  const folder = path.join(ctx.config.dataDir, 'materials');

  router.get('/courses/:course/materials', async (req, res) => {
    res.json(await materialsFor(ctx, ctx.db, await asked(ctx, req, 'member')));
  });

  router.post('/courses/:course/materials/links', async (req, res) => {
    const member = await asked(ctx, req, 'teach');
    const { sessionId, ...link } = parse(MaterialLink, req.body);
    const session = await ownSession(ctx, member.courseId, sessionId);
    const plain = { ...link, sessionId: session, hash: null, type: null, bytes: 0, forTeachers: false };
    res.status(201).json(await once(ctx, req, (db) => keep(ctx, db, member, plain)));
  });

  /** The file is the request's body. It gets its place, named by its hash, only when all of it is there. */
  router.post('/courses/:course/materials', async (req, res) => {
    const member = await asked(ctx, req, 'teach');
    const { name, session, for: whom } = parse(UploadQuery, req.query);
    const type = typeOf(name);
    const sessionId = await ownSession(ctx, member.courseId, session);
    const of = { name, sessionId, url: null, type, forTeachers: whom === 'teachers' };
    const file = await receive(folder, req, { largest: LARGEST, name });
    res.status(201).json(await keep(ctx, ctx.db, member, { ...of, ...file }));
  });

  /** One of a course that whoever asks teaches. */
  const taught = async (req: Request) => {
    const principal = await principalOf(ctx, req.headers);
    const row = await materialById(ctx.db, req.params.material as string);
    if (!row) throw new AppError(principal.kind === 'account' ? 'not-found' : 'forbidden');
    await requireRight(ctx, principal, row.courseId, 'teach');
    return row;
  };

  router.put('/materials/:material', async (req, res) => {
    const { id } = await taught(req);
    await keepForTeachers(ctx.db, id, parse(Given, req.body).forTeachers);
    res.json({});
  });

  router.delete('/materials/:material', async (req, res) => {
    await removeMaterial(ctx.db, ctx.now(), (await taught(req)).id);
    res.json({});
  });

  /** By ticket: an address in a page sends no headers of ours. Whether its holder may is asked anew each time. */
  router.get('/materials/:material/file', async (req, res) => {
    const ticket = readTicket(ctx, String(req.query.ticket ?? ''), req.params.material);
    const holder = ticket ? (await membersWhere(ctx.db, 'm.id = ?', [ticket.member]))[0] : null;
    const member = holder && ticket?.isOf(holder) ? holder : null;
    if (!member) throw new AppError('not-signed-in');
    const row = await byId(ctx, req.params.material);
    const session = row.sessionId ? await sessionById(ctx.db, row.sessionId) : null;
    const may =
      row.courseId === member.courseId &&
      isOpen(row, member) &&
      (session ? isFor(targetOf(session), member) : !member.scope);
    if (!may || !row.hash) throw new AppError('forbidden');
    res.set('X-Content-Type-Options', 'nosniff');
    res.download(placeOf(folder, row.hash), row.name, {
      dotfiles: 'allow',
      headers: { 'Content-Type': row.type! },
    });
  });
  return router;
}
