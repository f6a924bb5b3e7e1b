import { execFile } from 'node:child_process';
import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { framed, slideSvg, type SheetPage } from '@nimble-bell/core/board';
import { slidesFilm, standing, type FilmBoard, type PageLooked } from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import { pageFile } from '../../slides/decks';
import { folderOf, runFar } from '../files';
import type { Told } from '../told';

/** So large a film is, pixels; a page that is enlarged is drawn so wide at most. */
const SIZE = { width: 1280, height: 720 };
const WIDEST = 3840;
/** A page is drawn within this, ms. */
const LONGEST_MS = 60_000;
const execute = promisify(execFile);

/** Draws the pages that a class looked at as pictures in a folder of their own, for a film; null where there are none. */
export async function drawSlides(
  ctx: Context,
  { events, parts }: Pick<Told, 'events' | 'parts'>,
  { length, folder, signal }: { length: number; folder: string; signal: AbortSignal },
): Promise<FilmBoard | null> {
  const { frames, shown } = slidesFilm(events, parts, length);
  if (!shown.length) return null;
  const into = await folderOf(folder, '.');
  const pages = new Pages(ctx, into);
  for (const [i, { on }] of frames.entries()) {
    signal.throwIfAborted();
    const page = await pages.drawn(on, signal).catch((error: unknown) => {
      signal.throwIfAborted();
      // One page that cannot be drawn keeps nobody from the film.
      ctx.log.warn({ why: String(error), deck: on.deck, page: on.page }, 'a page was not drawn');
      return null;
    });
    await writeFile(path.join(into, `${i}.svg`), slideSvg(page, on, SIZE.width));
  }
  const all = (ending: string) => path.join(into, `%d.${ending}`);
  await runFar(
    [
      ...['-y', '-v', 'error', '-nostdin', '-start_number', '0', '-i', all('svg')],
      ...['-frames:v', String(frames.length), '-start_number', '0', all('png')],
    ],
    { far: () => {}, signal },
  );
  const list = path.join(into, 'frames.txt');
  const files = frames.map(({ at }, i) => ({ at, file: path.join(into, `${i}.png`) }));
  await writeFile(list, standing(files, length));
  return { list, at: frames[0]!.at, shown };
}

/** Pages as pictures, each as sharp as it is looked at. */
class Pages {
  readonly #drawn = new Map<string, SheetPage>();
  #number = 0;

  constructor(
    readonly ctx: Context,
    readonly into: string,
  ) {}

  async drawn({ deck, page, frame }: PageLooked, signal: AbortSignal): Promise<SheetPage> {
    // Pages are seldom taller than wide: how wide it is looked at is known well enough before its shape is.
    const wide = Math.min(WIDEST, Math.ceil(framed(9 / 16, frame, SIZE).width));
    const key = `${deck} ${page} ${wide}`;
    const known = this.#drawn.get(key);
    if (known) return known;
    const file = path.join(this.into, `page-${++this.#number}`);
    await this.#draw(deck, page, wide, file, signal);
    const png = await readFile(`${file}.png`);
    // A PNG says its width and height in its first chunk.
    const ratio = png.readUInt32BE(20) / png.readUInt32BE(16);
    const drawn = { png: png.toString('base64'), ratio };
    this.#drawn.set(key, drawn);
    return drawn;
  }

  async #draw(deck: string, page: number, wide: number, to: string, signal: AbortSignal) {
    const { kind, file } = await pageFile(this.ctx, deck, page);
    const size = ['-scale-to-x', String(wide), '-scale-to-y', '-1'];
    const program =
      kind === 'pdf'
        ? ['pdftoppm', '-png', '-singlefile', ...size, file, to]
        : [
            ...['ffmpeg', '-y', '-v', 'error', '-nostdin', '-i', file],
            ...['-frames:v', '1', '-vf', `scale=${wide}:-1`, `${to}.png`],
          ];
    await execute('nice', ['-n', '10', ...program], { signal, timeout: LONGEST_MS });
  }
}
