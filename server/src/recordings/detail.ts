import path from 'node:path';
import type { Response } from 'express';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { chaptersOf, gapsOf } from '@nimble-bell/core/recording';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { AppError } from '../errors';
import { captionsFile, shownLanguages } from './captions';
import { readyDir } from './files';
import { infoOf, partsOf, picturesIn, type RecordingRow } from './store';
import { isReady } from './watchable';

/** Where the files of a recording are had by somebody: under an address, with what is asked for behind each. */
export interface Address {
  path: string;
  query: string;
}

/** What a recording is to somebody who hears these events of it. */
export async function detailOf(
  ctx: Context,
  row: RecordingRow,
  told: { events: StoredEvent[]; address: Address } & Pick<
    RecordingDetail,
    'zone' | 'resume' | 'teaching' | 'caring'
  >,
): Promise<RecordingDetail> {
  const { address, events, ...own } = told;
  const [parts, pictures, languages] = await Promise.all([
    partsOf(ctx.db, row.id),
    picturesIn(ctx.db, row.id),
    row.file ? shownLanguages(readyDir(ctx), row) : [],
  ]);
  const at = (what: string) => `${address.path}/${what}${address.query}`;
  const media = (file: string) => at(`media/${path.basename(file)}`);
  return {
    ...infoOf(row, own.teaching),
    ...own,
    ...{ parts, events },
    chapters: chaptersOf(parts, events),
    gaps: gapsOf(parts, events),
    mediaPath: media(row.file ?? 'none'),
    pictures: pictures.map(({ kind, at: from, length, file }) => ({
      kind,
      at: from,
      length,
      path: media(file),
    })),
    silences: row.silences,
    leavesOut: row.plan?.leavesOut ?? [],
    captions: languages.map((language) => ({ language, path: at(`captions/${language}`) })),
  };
}

/** One of its files: its sound, or a picture. */
export async function sendMedia(ctx: Context, row: RecordingRow, name: string, res: Response): Promise<void> {
  isReady(row);
  const all = [row.file, ...(await picturesIn(ctx.db, row.id)).map((p) => p.file)];
  const file = all.find((f) => path.basename(f) === name);
  if (!file) throw new AppError('not-found');
  res.sendFile(path.join(readyDir(ctx), file), {
    dotfiles: 'allow',
    headers: { 'Content-Type': 'video/webm' },
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
  res.sendFile(captionsFile(readyDir(ctx), row.id, language), {
    dotfiles: 'allow',
    headers: { 'Content-Type': 'text/vtt; charset=utf-8' },
  });
}
