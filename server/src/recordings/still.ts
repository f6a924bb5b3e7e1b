import { createHash } from 'node:crypto';
import { access, rename } from 'node:fs/promises';
import path from 'node:path';
import { Router } from 'express';
import { StillInput } from '@nimble-bell/core/api';
import { shownAt, sourceAt, stillArguments, stillOf } from '@nimble-bell/core/recording';
import { principalOf, requireRight } from '../accounts/principal';
import { newId, type Context } from '../context';
import { AppError, parse } from '../errors';
import { folderOf, readyDir, runProgram } from './files';
import { chooseStill, picturesIn, recordingsWhere, type RecordingRow } from './store';
import { byTicket, isReady } from './watchable';

/**
 * The picture that stands for a recording: chosen by its moment, made of what is told of it once somebody looks. Whether
 * they may is asked each time: a browser keeps it only to hear that it is still the same.
 */
export function stillRoutes(ctx: Context): Router {
  const router = Router();

  router.put('/recordings/:id/still', async (req, res) => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id);
    if (!row) throw new AppError('not-found');
    await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'plan');
    const { position } = parse(StillInput, req.body);
    if (position !== null && position >= row.lengthMs)
      throw new AppError('invalid', 'The recording is over by then.');
    await chooseStill(ctx.db, row.id, position === null ? null : Math.round(sourceAt(row.told, position)));
    res.json({});
  });

  router.get('/recordings/:id/still', async (req, res) => {
    const { row } = await byTicket(ctx, req);
    res.sendFile(await stillFile(ctx, row), {
      dotfiles: 'allow',
      headers: { 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, no-cache' },
    });
  });
  return router;
}

/** Its file, made where it is not there: named by what it is of, so that another moment or another cut is another. */
async function stillFile(ctx: Context, row: RecordingRow): Promise<string> {
  isReady(row);
  const chosen = row.stillMs === null ? null : Math.min(shownAt(row.told, row.stillMs), row.lengthMs - 1);
  const still = stillOf(
    (await picturesIn(ctx.db, row)).filter((p) => p.member === null),
    chosen,
  );
  if (!still) throw new AppError('not-found', 'Nothing is seen in this recording.');
  const { picture, into } = still;
  const name = createHash('sha256').update(`${picture.file} ${into}`).digest('hex').slice(0, 16);
  const file = path.join(await folderOf(readyDir(ctx), row.id), `still-${name}.jpg`);
  const there = await access(file).then(
    () => true,
    () => false,
  );
  if (there) return file;
  const work = `${file}.${newId()}.jpg`;
  await runProgram('ffmpeg', stillArguments(path.join(readyDir(ctx), picture.file), into, work));
  await rename(work, file);
  return file;
}
