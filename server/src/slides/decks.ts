import { execFile, spawn } from 'node:child_process';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import type { Deck } from '@nimble-bell/core/room';
import { newId, type Context } from '../context';
import { AppError } from '../errors';
import { placeOf } from '../files/receive';

/** A deck has so many pages at most. */
export const MOST_PAGES = 1000;
/** A file of pages is taken apart within this time, ms. */
const LONGEST_MS = 180_000;
/** Of a page's text so much is kept, characters. */
const MOST_WORDS = 20_000;

/** A file of the class that can be shown page by page. */
export interface DeckFile {
  hash: string;
  name: string;
  type: string;
}

const PICTURES = new Set(['image/png', 'image/jpeg', 'image/webp', 'image/gif']);
export const isDeck = (type: string | null): type is string =>
  type === 'application/pdf' || (type !== null && PICTURES.has(type));

const rootOf = (ctx: Context) => path.join(ctx.config.dataDir, 'decks');
const folderOf = (ctx: Context, id: string) => placeOf(rootOf(ctx), id);
const fileName = (page: number) => `${page}.pdf`;

/** How far a file is taken apart: so many pages of so many; or why it cannot be. */
export type Preparing = { done: number; of: number } | { why: string };

const execute = promisify(execFile);
const run = async (program: string, args: string[]): Promise<string> =>
  (await execute('nice', ['-n', '5', program, ...args], { timeout: LONGEST_MS, maxBuffer: 1 << 28 })).stdout;

/** Files are known by what is in them: what was taken apart once is so for every course, and for good. */
export async function readDeck(ctx: Context, id: string): Promise<Pick<Deck, 'kind' | 'pages'> | null> {
  const file = path.join(folderOf(ctx, id), 'deck.json');
  const said = await readFile(file, 'utf8').catch(() => null);
  return said === null ? null : (JSON.parse(said) as Pick<Deck, 'kind' | 'pages'>);
}

/** What is read on its pages, a text each; none where it is a picture. */
export async function wordsOn(ctx: Context, id: string): Promise<string[]> {
  const said = await readFile(path.join(folderOf(ctx, id), 'words.json'), 'utf8').catch(() => '[]');
  return JSON.parse(said) as string[];
}

/** A page of a deck: a document of that one page, or the picture itself, and where it stands. */
export async function pageFile(
  ctx: Context,
  id: string,
  page: number,
): Promise<{ kind: Deck['kind']; file: string }> {
  const deck = await readDeck(ctx, id);
  if (!deck || page < 1 || page > deck.pages) throw new AppError('not-found', 'There is no such page.');
  const { kind } = deck;
  const file =
    kind === 'picture'
      ? placeOf(path.join(ctx.config.dataDir, 'materials'), id)
      : path.join(folderOf(ctx, id), fileName(page));
  return { kind, file };
}

/** Why a document cannot be shown, in words. */
function whyNot(error: unknown): string {
  const said = String((error as { stderr?: string }).stderr ?? error);
  if (/password/i.test(said)) return 'This PDF asks for a password. Save it without one, then send it again.';
  return 'This PDF cannot be read. Save it again from the program that made it.';
}

async function pagesIn(file: string): Promise<number> {
  const pages = Number((await run('qpdf', ['--show-npages', file])).trim());
  if (!(pages >= 1)) throw new Error('no pages');
  return pages;
}

/** Takes a document apart, each page one of its own. Warnings of what is mended on the way are no failure (3). */
async function takeApart(file: string, folder: string): Promise<void> {
  const args = ['--decrypt', '--split-pages', '--remove-unreferenced-resources=yes'];
  const child = spawn('nice', ['-n', '5', 'qpdf', ...args, file, path.join(folder, 'page-%d.pdf')], {
    stdio: ['ignore', 'ignore', 'pipe'],
    timeout: LONGEST_MS,
  });
  let stderr = '';
  child.stderr.on('data', (said: Buffer) => (stderr = `${stderr}${said}`.slice(-2000)));
  const code = await new Promise<number | null>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', resolve);
  });
  if (code !== 0 && code !== 3) throw Object.assign(new Error('not taken apart'), { stderr });
}

/** Its text, a page each; a document whose text cannot be had is shown all the same. */
async function textOf(file: string, pages: number): Promise<string[]> {
  const said = await run('pdftotext', ['-q', '-layout', '-enc', 'UTF-8', file, '-']).catch(() => '');
  const read = said.split('\f');
  return Array.from({ length: pages }, (_, i) => (read[i] ?? '').trim().slice(0, MOST_WORDS));
}

/** Makes decks of files, each once; what is under way is told. */
export class Decks {
  readonly #under = new Map<string, { told: Preparing; made: Promise<void> }>();

  constructor(readonly ctx: Context) {
    void this.#tidy().catch((error: unknown) =>
      ctx.log.warn({ why: String(error) }, 'decks were not tidied'),
    );
  }

  /** What a server left half-made when it died. What another makes at this moment is younger. */
  async #tidy() {
    const root = rootOf(this.ctx);
    for (const name of await readdir(root).catch(() => [])) {
      if (!name.startsWith('.')) continue;
      const folder = path.join(root, name);
      const { mtimeMs } = await stat(folder);
      if (Date.now() - mtimeMs > 2 * LONGEST_MS) await rm(folder, { recursive: true, force: true });
    }
  }

  /** What is under way, or why it came to nothing. */
  preparing(id: string): Preparing | null {
    return this.#under.get(id)?.told ?? null;
  }

  /** Begins, where it is not done and not under way; resolves when it is done, also where it came to nothing. */
  async prepare({ hash, type }: DeckFile): Promise<void> {
    const known = this.#under.get(hash);
    if (known && !('why' in known.told)) return known.made;
    if (await readDeck(this.ctx, hash)) return;
    const under = { told: { done: 0, of: 0 } as Preparing, made: Promise.resolve() };
    this.#under.set(hash, under);
    under.made = this.#make(hash, type, (told) => (under.told = told)).then(
      () => void this.#under.delete(hash),
      (error: unknown) => {
        under.told = { why: error instanceof AppError ? error.message : whyNot(error) };
        this.ctx.log.warn({ why: String(error), deck: hash }, 'a deck was not made');
      },
    );
    return under.made;
  }

  /** In a folder beside, which gets its name when all of it is there. */
  async #make(hash: string, type: string, tell: (told: Preparing) => void): Promise<void> {
    const place = folderOf(this.ctx, hash);
    const beside = path.join(rootOf(this.ctx), `.${newId()}`);
    await mkdir(beside, { recursive: true });
    try {
      const deck = PICTURES.has(type)
        ? { kind: 'picture', pages: 1 }
        : { kind: 'pdf', pages: await this.#pages(hash, beside, tell) };
      await writeFile(path.join(beside, 'deck.json'), JSON.stringify(deck));
      await mkdir(path.dirname(place), { recursive: true });
      await rename(beside, place).catch(async (error: unknown) => {
        // Another server was there first: what it made is the same.
        if (!(await readDeck(this.ctx, hash))) throw error;
      });
    } finally {
      await rm(beside, { recursive: true, force: true });
    }
  }

  async #pages(hash: string, beside: string, tell: (told: Preparing) => void): Promise<number> {
    const file = placeOf(path.join(this.ctx.config.dataDir, 'materials'), hash);
    const pages = await pagesIn(file);
    if (pages > MOST_PAGES) throw new AppError('invalid', `At most ${MOST_PAGES} pages are shown of a file.`);
    const made = async () => (await readdir(beside)).filter((f) => f.startsWith('page-')).sort();
    const look = setInterval(
      () =>
        void made().then(
          (all) => tell({ done: Math.min(all.length, pages), of: pages }),
          () => {},
        ),
      250,
    );
    try {
      await takeApart(file, beside);
    } finally {
      clearInterval(look);
    }
    // Their numbers have as many digits as the last one.
    for (const [i, name] of (await made()).entries())
      await rename(path.join(beside, name), path.join(beside, fileName(i + 1)));
    await writeFile(path.join(beside, 'words.json'), JSON.stringify(await textOf(file, pages)));
    return pages;
  }
}
