import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Context } from '../context';
import { plainPdf } from '../demo/plainPdf';
import { placeOf } from '../files/receive';
import { Decks, pageFile, readDeck, wordsOn } from './decks';

let dataDir = '';
beforeEach(async () => {
  dataDir = await mkdtemp(path.join(tmpdir(), 'decks-'));
});
afterEach(() => rm(dataDir, { recursive: true }));

const context = () => ({ config: { dataDir }, log: { warn: () => {} } }) as unknown as Context;

async function laid(content: Buffer, type = 'application/pdf') {
  const hash = createHash('sha256').update(content).digest('hex');
  const place = placeOf(path.join(dataDir, 'materials'), hash);
  await mkdir(path.dirname(place), { recursive: true });
  await writeFile(place, content);
  return { hash, name: 'Tides.pdf', type };
}

test('a document is taken apart into pages, each of which is one of its own, with what is read on it', async () => {
  const ctx = context();
  const titles = Array.from({ length: 12 }, (_, i) => `Tide number ${i + 1}`);
  const file = await laid(plainPdf(titles.map((title) => ({ title, lines: ['(Ebb) \\ flood'] }))));
  const decks = new Decks(ctx);
  // Asked for twice at once it is made once.
  await Promise.all([decks.prepare(file), decks.prepare(file)]);
  expect(decks.preparing(file.hash)).toBeNull();
  expect(await readDeck(ctx, file.hash)).toEqual({ kind: 'pdf', pages: 12 });
  const words = await wordsOn(ctx, file.hash);
  expect(words.map((w) => w.split('\n')[0])).toEqual(titles);
  expect(words[0]).toContain('(Ebb) \\ flood');
  const tenth = await readFile((await pageFile(ctx, file.hash, 10)).file, 'latin1');
  expect(tenth.startsWith('%PDF')).toBe(true);
  await expect(pageFile(ctx, file.hash, 13)).rejects.toThrow('There is no such page.');
  // Nothing half-made is left beside it.
  expect((await readdir(path.join(dataDir, 'decks'))).filter((f) => f.startsWith('.'))).toEqual([]);
});

test('what cannot be read is said in words, leaves nothing, and can be tried again', async () => {
  const ctx = context();
  const decks = new Decks(ctx);
  const broken = await laid(Buffer.from('%PDF-1.4\nno pages at all'));
  await decks.prepare(broken);
  expect(decks.preparing(broken.hash)).toEqual({ why: expect.stringContaining('cannot be read') });
  expect(await readDeck(ctx, broken.hash)).toBeNull();
  await decks.prepare(broken);
  expect(decks.preparing(broken.hash)).toHaveProperty('why');
  expect(await readdir(path.join(dataDir, 'decks'))).toEqual([]);
});

test('what was left half-made long ago is taken away; what is being made is not', async () => {
  const root = path.join(dataDir, 'decks');
  const [old, young] = [path.join(root, '.old'), path.join(root, '.young')];
  for (const folder of [old, young]) await mkdir(folder, { recursive: true });
  await utimes(old, 1, 1);
  new Decks(context());
  for (let tries = 0; tries < 100 && (await readdir(root)).length > 1; tries++)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(await readdir(root)).toEqual(['.young']);
});

test('a picture is a deck of one page, which is the file itself', async () => {
  const ctx = context();
  const picture = await laid(Buffer.from('\x89PNG\r\n', 'latin1'), 'image/png');
  await new Decks(ctx).prepare(picture);
  expect(await readDeck(ctx, picture.hash)).toEqual({ kind: 'picture', pages: 1 });
  expect(await wordsOn(ctx, picture.hash)).toEqual([]);
  expect((await pageFile(ctx, picture.hash, 1)).file).toContain('materials');
});
