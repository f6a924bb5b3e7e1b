import { createReadStream, createWriteStream } from 'node:fs';
import path from 'node:path';
import { finished } from 'node:stream/promises';
import { once } from 'node:events';
import { Zip, ZipPassThrough } from 'fflate';
import { clockWords } from '@nimble-bell/core/calendar';
import { writeVtt } from '@nimble-bell/core/captions';
import { archivePage, writtenLines, writtenText } from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { captionsTold, shownLanguages } from '../captions';
import { readyDir } from '../files';
import { tablesTo } from '../tables/told';
import { picturesTo, toldTo } from '../told';
import type { Making } from './make';

/**
 * Everything of a recording in one archive that opens by itself: a page, the sound and the pictures beside it, captions
 * and writing. What is large is taken in as it is, read as it is written.
 */
export async function writeArchive(ctx: Context, { row, zone, watcher, work, far, signal }: Making) {
  const [{ events, parts, chapters }, pictures, tables] = await Promise.all([
    toldTo(ctx.db, row, watcher),
    picturesTo(ctx.db, row, watcher),
    tablesIn(ctx, row, watcher, zone),
  ]);
  const ready = readyDir(ctx);
  const captions = await Promise.all(
    (await shownLanguages(ready, row)).map(async (language) => ({
      language,
      text: writeVtt(await captionsTold(ready, row, language)),
    })),
  );
  const lines = writtenLines(parts, events);
  const page = archivePage({
    title: row.title,
    lengthMs: row.lengthMs,
    sound: 'sound.webm',
    pictures: pictures.map(({ kind, at, length }, i) => ({ kind, at, length, file: `picture-${i}.webm` })),
    chapters,
    captions,
    lines,
    tables: tables.map(({ title, name }) => ({ title, file: name })),
  });
  const small: [string, string][] = [
    ['index.html', page],
    ['writing.txt', writtenText(lines, zone)],
    ...captions.map(({ language, text }): [string, string] => [`captions.${language}.vtt`, text]),
  ];
  const large: [string, string][] = [
    ['sound.webm', path.join(ready, row.file!)],
    ...pictures.map((p, i): [string, string] => [`picture-${i}.webm`, path.join(ready, p.file)]),
    ...tables.map(({ name, file }): [string, string] => [name, path.join(ready, file)]),
  ];
  const out = createWriteStream(work);
  const zip = new Zip((error, data, final) => {
    if (error) return out.destroy(error);
    out.write(data);
    if (final) out.end();
  });
  for (const [name, text] of small) {
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    entry.push(new TextEncoder().encode(text), true);
  }
  for (const [i, [name, file]] of large.entries()) {
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    for await (const chunk of createReadStream(file, { highWaterMark: 1 << 20, signal })) {
      entry.push(chunk as Buffer);
      if (out.writableNeedDrain) await once(out, 'drain');
    }
    entry.push(new Uint8Array(0), true);
    far((row.lengthMs * (i + 1)) / large.length);
  }
  zip.end();
  await finished(out);
}

/** What was said at the tables that are theirs, as it is called in the archive; nothing while it is made. */
const tablesIn = async (ctx: Context, row: Making['row'], watcher: Making['watcher'], zone: string) =>
  ((await tablesTo(ctx.db, row, watcher)) ?? []).map(({ name, at, file }) => ({
    title: `${name}, ${clockWords(at, zone)}`,
    name: path.basename(file),
    file,
  }));
