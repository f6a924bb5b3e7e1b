import path from 'node:path';
import type { Response } from 'express';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { writeVtt } from '@nimble-bell/core/captions';
import { CLASS, evolve, newRoom } from '@nimble-bell/core/room';
import { filmsIn, stripOf } from '@nimble-bell/core/watching';
import type { Context } from '../context';
import { AppError, parse } from '../errors';
import { isFilm } from '../film/films';
import { placeOf as fileAt } from '../files/receive';
import { materialById } from '../materials/store';
import { PageOf, readIn, sendPage } from '../slides/page';
import { captionsTold, shownLanguages } from './captions';
import { readyDir } from './files';
import { infoOf, ofStill, type RecordingRow } from './store';
import { picturesTo, toldTo, type Listener, type Told } from './told';
import type { Watcher } from '@nimble-bell/core/recording';
import { isReady } from './watchable';

/** Where the files of a recording are had by somebody: under an address, with what is asked for behind each. */
export interface Address {
  path: string;
  query: string;
}

/** What a recording is to somebody who is told this of it. */
export async function detailOf(
  ctx: Context,
  row: RecordingRow,
  given: { told: Told; listener: Listener; address: Address } & Pick<
    RecordingDetail,
    'tables' | 'zone' | 'resume' | 'teaching' | 'caring'
  >,
): Promise<RecordingDetail> {
  const { address, told, listener, ...own } = given;
  const [pictures, languages, read] = await Promise.all([
    picturesTo(ctx.db, row, listener),
    row.file ? shownLanguages(readyDir(ctx), row) : [],
    readIn(ctx, told),
  ]);
  const at = (what: string) => `${address.path}/${what}${address.query}`;
  const media = (file: string) => at(`media/${path.basename(file)}`);
  return {
    ...infoOf(row, own.teaching),
    still: own.caring && row.pictured ? `${at('still')}&${ofStill(row)}` : null,
    ...own,
    ...told,
    chaptersWritten: row.chapters !== null,
    mediaPath: media(row.file ?? 'none'),
    read,
    pages: { path: `${address.path}/slides`, query: address.query },
    // A file of the class is not anybody's who has a link.
    films:
      listener === 'anybody' || leavesScreens(row)
        ? null
        : { path: `${address.path}/films`, query: address.query },
    pictures: pictures.map(({ kind, at: from, length, file, member }) => ({
      ...{ kind, at: from, length, path: media(file) },
      ...(member ? { member } : {}),
    })),
    strip: stripOf(told.parts, told.events),
    silences: row.silences,
    plan: own.caring ? row.plan : null,
    leavesOut: row.plan?.leavesOut ?? [],
    captions: languages.map((language) => ({ language, path: at(`captions/${language}`) })),
  };
}

/** One of its files as somebody may have it: its sound, or a picture. */
export async function sendMedia(
  ctx: Context,
  { row, listener }: { row: RecordingRow; listener: Listener },
  name: string,
  res: Response,
): Promise<void> {
  isReady(row);
  const all = [row.file, ...(await picturesTo(ctx.db, row, listener)).map((p) => p.file)];
  const file = all.find((f) => path.basename(f) === name);
  if (!file) throw new AppError('not-found');
  res.sendFile(path.join(readyDir(ctx), file), {
    dotfiles: 'allow',
    headers: { 'Content-Type': 'video/webm' },
  });
}

/** A page of what was shown, where this person is told of it. */
export async function sendShownPage(
  ctx: Context,
  { row, listener }: { row: RecordingRow; listener: Listener },
  params: unknown,
  res: Response,
): Promise<void> {
  isReady(row);
  const { deck, page } = parse(PageOf, params);
  const { events } = await toldTo(ctx.db, row, listener);
  const { seen } = events.reduce(evolve, newRoom()).slides;
  if (!seen[CLASS]?.[deck]?.includes(page)) throw new AppError('not-found');
  await sendPage(ctx, deck, page, res);
}

const leavesScreens = ({ plan }: RecordingRow): boolean => plan?.leavesOut?.includes('screens') ?? false;

/** A film that the class watched, where this person is told of it and it is still among the files of the course. */
export async function sendWatchedFilm(
  ctx: Context,
  { row, listener }: { row: RecordingRow; listener: Watcher },
  material: string,
  res: Response,
): Promise<void> {
  isReady(row);
  const { parts, events } = await toldTo(ctx.db, row, listener);
  const watched = !leavesScreens(row) && filmsIn(parts, events).has(material);
  const file = watched ? await materialById(ctx.db, material) : null;
  if (!file?.hash || file.courseId !== row.courseId || !isFilm(file.type)) throw new AppError('not-found');
  res.sendFile(fileAt(path.join(ctx.config.dataDir, 'materials'), file.hash), {
    dotfiles: 'allow',
    headers: { 'Content-Type': file.type!, 'X-Content-Type-Options': 'nosniff' },
  });
}

export async function sendCaptions(
  ctx: Context,
  row: RecordingRow,
  language: string,
  res: Response,
): Promise<void> {
  isReady(row);
  if (!(await shownLanguages(readyDir(ctx), row)).includes(language)) throw new AppError('not-found');
  res.type('text/vtt; charset=utf-8').send(writeVtt(await captionsTold(readyDir(ctx), row, language)));
}
