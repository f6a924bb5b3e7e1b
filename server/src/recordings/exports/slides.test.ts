import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { filmArguments } from '@nimble-bell/core/recording';
import { WHOLE_PAGE, type StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../../context';
import { plainPdf } from '../../demo/plainPdf';
import { placeOf } from '../../files/receive';
import { Decks } from '../../slides/decks';
import { colourAt, columnAt } from '../../testing/filmed';
import { drawSlides } from './slides';

const run = promisify(execFile);
let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'slides-film-'));
});
afterAll(() => rm(folder, { recursive: true }));

const file = (name: string) => path.join(folder, name);
const ctx = () => ({ config: { dataDir: folder }, log: { warn: () => {} } }) as unknown as Context;

async function deckOf(content: Buffer, name: string, type: string, kind: 'pdf' | 'picture', pages: number) {
  const id = createHash('sha256').update(content).digest('hex');
  const place = placeOf(file('materials'), id);
  await mkdir(path.dirname(place), { recursive: true });
  await writeFile(place, content);
  await new Decks(ctx()).prepare({ hash: id, name, type });
  return { id, name, kind, pages };
}

const is = ([r, g, b]: number[]) =>
  r! > 220 && g! > 220 && b! > 220
    ? 'page'
    : g! > 180 && r! < 90
      ? 'camera'
      : r! - g! > 30
        ? 'pen'
        : 'ground';

test('the pages that a class looked at are drawn into its film, with what was marked, while they were before it', async () => {
  const event = (at: number, body: object) =>
    ({ seq: at, at, by: 'maren', place: 'class', ...body }) as unknown as StoredEvent;
  const deck = await deckOf(
    plainPdf([{ title: 'Tides' }, { title: 'Streams' }]),
    'Tides.pdf',
    'application/pdf',
    'pdf',
    2,
  );
  const points = Array.from({ length: 100 }, (_, i) => [0.3 + i / 250, 0.5]).flat();
  const events = [
    event(1000, { type: 'slidesShown', deck, page: 1 }),
    event(2000, { type: 'slideTurned', page: 2 }),
    event(2100, { type: 'slideMarked', deck: deck.id, page: 2, stroke: { points, colour: 'clay' } }),
    event(3000, { type: 'frontSet', tool: 'picture' }),
    event(4000, { type: 'frontSet', tool: 'slides' }),
    event(4500, { type: 'slideFramed', frame: { ...WHOLE_PAGE, zoom: 4 } }),
    event(5000, { type: 'slidesPutAway' }),
  ];
  const told = { events, parts: [{ from: 0, until: 6000 }] };
  const { signal } = new AbortController();
  const slides = await drawSlides(ctx(), told, { length: 6000, folder: file('drawn'), signal });
  expect(slides).toMatchObject({
    at: 1000,
    shown: [
      { from: 1000, until: 3000 },
      { from: 4000, until: 5000 },
    ],
  });
  const lime = file('lime.webm');
  const tone = file('tone.opus');
  const lavfi = ['-y', '-v', 'error', '-f', 'lavfi', '-i'];
  await run('ffmpeg', [...lavfi, 'color=c=lime:s=320x180:r=10', '-t', '6', '-c:v', 'libvpx', lime]);
  await run('ffmpeg', [...lavfi, 'sine=frequency=440', '-t', '6', '-c:a', 'libopus', tone]);
  const pictures = [{ kind: 'camera' as const, at: 0, length: 6000, file: lime }];
  const film = file('film.mp4');
  await run(
    'ffmpeg',
    filmArguments(
      { sound: tone, length: 6000, pictures, board: null, slides, arrangement: 'corner' },
      'mp4',
      film,
    ),
  );
  const middle = async (second: number) => is(await colourAt(film, second, 640, 360, 2));
  expect([await middle(0.5), await middle(1.6), await middle(2.8)]).toEqual(['camera', 'page', 'pen']);
  expect([await middle(3.5), await middle(4.3), await middle(5.6)]).toEqual(['camera', 'pen', 'camera']);
  // The camera stands in its corner meanwhile; around a page that does not fill it is the ground.
  expect(is(await colourAt(film, 1.6, 1200, 650))).toBe('camera');
  // Enlarged the mark is as much larger.
  const thick = async (second: number) =>
    (await columnAt(film, second, 640, [330, 390])).filter((colour) => is(colour) === 'pen').length;
  expect(await thick(4.8)).toBeGreaterThan(2 * (await thick(2.8)));
}, 90_000);

test('a picture is a page too; a recording without any has none, and leaves nothing', async () => {
  const png = file('chart.png');
  await run('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'color=c=white:s=400x300',
    '-frames:v',
    '1',
    png,
  ]);
  const deck = await deckOf(await readFile(png), 'Chart.png', 'image/png', 'picture', 1);
  const events = [
    { seq: 1, at: 500, type: 'slidesShown', by: 'maren', place: 'class', deck, page: 1 },
  ] as unknown as StoredEvent[];
  const parts = [{ from: 0, until: 2000 }];
  const { signal } = new AbortController();
  const drawn = await drawSlides(ctx(), { events, parts }, { length: 2000, folder: file('one'), signal });
  expect(drawn).toMatchObject({ at: 500, shown: [{ from: 500, until: 2000 }] });
  expect(is(await colourAt(path.join(file('one'), '0.png'), 0, 640, 360))).toBe('page');
  expect(is(await colourAt(path.join(file('one'), '0.png'), 0, 20, 360))).toBe('ground');
  expect(
    await drawSlides(ctx(), { events: [], parts }, { length: 2000, folder: file('no'), signal }),
  ).toBeNull();
  expect((await readdir(folder)).includes('no')).toBe(false);
}, 60_000);
