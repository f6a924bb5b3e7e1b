import { createReadStream, createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { finished } from 'node:stream/promises';
import { once } from 'node:events';
import { Zip, ZipPassThrough } from 'fflate';
import { archivePage, chaptersOf, writtenLines, writtenText } from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { captionsFile, shownLanguages } from '../captions';
import { recordedEvents } from '../events';
import { readyDir } from '../files';
import { partsOf, picturesIn } from '../store';
import type { Making } from './make';

/**
 * Everything of a recording in one archive that opens by itself: a page, the sound and the pictures beside it, captions
 * and writing. What is large is taken in as it is, read as it is written.
 */
export async function writeArchive(ctx: Context, { row, zone, watcher, work, far, signal }: Making) {
  const [events, parts, pictures] = await Promise.all([
    recordedEvents(ctx.db, row, watcher),
    partsOf(ctx.db, row.id),
    picturesIn(ctx.db, row.id),
  ]);
  const ready = readyDir(ctx);
  const captions = await Promise.all(
    (await shownLanguages(ready, row)).map(async (language) => ({
      language,
      text: await readFile(captionsFile(ready, row.id, language), 'utf8'),
    })),
  );
  const lines = writtenLines(parts, events);
  const page = archivePage({
    title: row.title,
    lengthMs: Number(row.lengthMs),
    sound: 'sound.webm',
    pictures: pictures.map(({ kind, at, length }, i) => ({ kind, at, length, file: `picture-${i}.webm` })),
    chapters: chaptersOf(parts, events),
    captions,
    lines,
  });
  const small: [string, string][] = [
    ['index.html', page],
    ['writing.txt', writtenText(lines, zone)],
    ...captions.map(({ language, text }): [string, string] => [`captions.${language}.vtt`, text]),
  ];
  const large: [string, string][] = [
    ['sound.webm', path.join(ready, row.file!)],
    ...pictures.map((p, i): [string, string] => [`picture-${i}.webm`, path.join(ready, p.file)]),
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
    far((Number(row.lengthMs) * (i + 1)) / large.length);
  }
  zip.end();
  await finished(out);
}
