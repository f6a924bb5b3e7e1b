import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request } from 'express';
import { newId } from '../context';
import { AppError } from '../errors';
import { HEAD, isWhatItSays } from './kinds';

/** What people bring to a class. Programs are not among it. */
const TYPES: Record<string, string> = {
  pdf: 'application/pdf',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  txt: 'text/plain; charset=utf-8',
  md: 'text/plain; charset=utf-8',
  csv: 'text/csv; charset=utf-8',
  doc: 'application/msword',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xls: 'application/vnd.ms-excel',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ppt: 'application/vnd.ms-powerpoint',
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  odt: 'application/vnd.oasis.opendocument.text',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
  odp: 'application/vnd.oasis.opendocument.presentation',
  zip: 'application/zip',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  mp4: 'video/mp4',
  webm: 'video/webm',
  epub: 'application/epub+zip',
  ics: 'text/calendar; charset=utf-8',
};

const endingOf = (name: string) => path.extname(name).slice(1).toLowerCase();

/** The media type of a file by its ending, where such files are taken. */
export function typeOf(name: string): string {
  const type = TYPES[endingOf(name)];
  if (!type)
    throw new AppError(
      'wrong-type',
      `A file of this kind is not taken. Taken are: ${Object.keys(TYPES).join(', ')}.`,
    );
  return type;
}

/** Where a file stands, by what is in it. */
export const placeOf = (folder: string, hash: string) => path.join(folder, hash.slice(0, 2), hash);

/** Takes in a request's body as a file. It gets its place, named by its hash, only when all of it is there. */
export async function receive(
  folder: string,
  req: Request,
  { largest, name }: { largest: number; name: string },
): Promise<{ hash: string; bytes: number }> {
  if (Number(req.headers['content-length'] ?? 0) > largest) throw new AppError('too-large');
  await mkdir(folder, { recursive: true });
  const partial = path.join(folder, `.${newId()}`);
  const digest = createHash('sha256');
  let bytes = 0;
  let head = Buffer.alloc(0);
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      digest.update(chunk);
      if (head.length < HEAD) head = Buffer.concat([head, chunk.subarray(0, HEAD - head.length)]);
      done(bytes > largest ? new AppError('too-large') : null, chunk);
    },
  });
  try {
    await pipeline(req, measure, createWriteStream(partial));
    if (!bytes) throw new AppError('invalid', 'The file is empty.');
    if (!isWhatItSays(name, head))
      throw new AppError('wrong-type', `What is in “${name}” is not what its name says.`);
    const hash = digest.digest('hex');
    const place = placeOf(folder, hash);
    await mkdir(path.dirname(place), { recursive: true });
    if (await stat(place).catch(() => null)) await rm(partial);
    else await rename(partial, place);
    return { hash, bytes };
  } catch (error) {
    await rm(partial, { force: true });
    throw error;
  }
}
