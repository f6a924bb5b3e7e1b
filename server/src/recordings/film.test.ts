import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { filmArguments, type Arrangement, type FilmKind } from '@nimble-bell/core/recording';
import type { StoredEvent } from '@nimble-bell/core/room';
import { colourAt } from '../testing/filmed';
import { drawBoard } from './exports/board';

const run = promisify(execFile);
let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'mixing-'));
});
afterAll(() => rm(folder, { recursive: true }));

const file = (name: string) => path.join(folder, name);

/** A picture of one colour, or a tone, of so many seconds. */
async function made(name: string, source: string, seconds: number): Promise<string> {
  const codec = name.endsWith('.webm') ? ['-c:v', 'libvpx', '-b:v', '100k'] : ['-c:a', 'libopus'];
  await run('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    source,
    '-t',
    String(seconds),
    ...codec,
    file(name),
  ]);
  return file(name);
}

/** Its length; what Debian's own program would warn of fails. */
async function secondsOf(film: string): Promise<number> {
  const args = ['-v', 'warning', '-show_entries', 'format=duration', '-of', 'csv=p=0', film];
  const { stdout, stderr } = await run('ffprobe', args);
  expect(stderr).toBe('');
  return Number(stdout);
}

test.each<[FilmKind, Arrangement, string[]]>([
  ['webm', 'corner', ['red', 'lime']],
  ['mp4', 'corner', ['red', 'lime']],
  ['mp4', 'beside', ['neither', 'red']],
])(
  'a film as %s, %s: the screen large while it is shown, and the camera where it covers the less',
  async (kind, arrangement, [inCorner, beside]) => {
    const red = await made('red.webm', 'color=c=red:s=320x180:r=10', 4);
    const lime = await made('lime.webm', 'color=c=lime:s=640x360:r=10', 2);
    const sound = await made('tone.opus', 'sine=frequency=440', 5);
    const pictures = [
      { kind: 'screen' as const, at: 2000, length: 1500, file: lime },
      { kind: 'camera' as const, at: 500, length: 4000, file: red },
    ];
    const film = file(`film.${kind}`);
    await run(
      'ffmpeg',
      filmArguments({ sound, length: 5000, pictures, board: null, slides: null, arrangement }, kind, film),
    );
    expect(await secondsOf(film)).toBeCloseTo(5, 0);
    const at = (x: number, y: number) => async (second: number) => is(await colourAt(film, second, x, y));
    const [corner, side] = [at(1200, 650), at(1100, 180)];
    const middle = async (second: number) => colourAt(film, second, 640, 300);
    const is = ([r, g]: number[]) => (r! > 180 && g! < 90 ? 'red' : g! > 180 && r! < 90 ? 'lime' : 'neither');
    expect([await middle(0.2), await middle(1.2), await middle(2.8), await middle(4.1)].map(is)).toEqual([
      'neither',
      'red',
      'lime',
      'red',
    ]);
    expect([await corner(1.2), await corner(2.8), await side(2.8)]).toEqual(['red', inCorner, beside]);
  },
  60_000,
);

test('two screens that were presented at once are side by side while they were, and one alone is large', async () => {
  const [red, lime] = [
    await made('two-red.webm', 'color=c=red:s=640x360:r=10', 4),
    await made('two-lime.webm', 'color=c=lime:s=640x360:r=10', 3),
  ];
  const sound = await made('two.opus', 'sine=frequency=440', 5);
  const pictures = [
    { kind: 'screen' as const, at: 0, length: 4000, file: red },
    { kind: 'screen' as const, at: 1500, length: 3000, file: lime },
  ];
  const film = file('two.mp4');
  const layout = { sound, length: 5000, board: null, slides: null, arrangement: 'corner' as const };
  await run('ffmpeg', filmArguments({ ...layout, pictures }, 'mp4', film));
  const seen = async (second: number) =>
    Promise.all(
      [320, 960].map(async (x) => {
        const [r, g] = await colourAt(film, second, x, 360);
        return r! > 180 ? 'red' : g! > 180 ? 'lime' : 'neither';
      }),
    );
  expect(await seen(0.8)).toEqual(['red', 'red']);
  expect(await seen(2.5)).toEqual(['red', 'lime']);
  expect(await seen(4.2)).toEqual(['lime', 'lime']);
}, 60_000);

test('a film of pictures that came and went a hundred times is asked for in as few words as a program takes', () => {
  const pictures = Array.from({ length: 200 }, (_, i) => ({
    ...{ kind: i % 2 ? ('screen' as const) : ('camera' as const), file: `${i}.webm` },
    ...{ at: i * 20_000, length: 25_000 },
  }));
  const shown = Array.from({ length: 60 }, (_, i) => ({ from: i * 66_000, until: i * 66_000 + 50_000 }));
  const board = { list: 'list', at: 0, shown };
  const asked = filmArguments(
    { sound: 's', length: 4_800_000, pictures, board, slides: null, arrangement: 'beside' },
    'mp4',
    'o',
  );
  // What one argument may have on Linux.
  for (const argument of asked) expect(argument.length).toBeLessThan(131_072);
});

test('a film in which nothing was shown has the sound, and a plain picture', async () => {
  const sound = await made('alone.opus', 'sine=frequency=440', 2);
  await run(
    'ffmpeg',
    filmArguments(
      { sound, length: 2000, pictures: [], board: null, slides: null, arrangement: 'corner' },
      'mp4',
      file('alone.mp4'),
    ),
  );
  expect(await secondsOf(file('alone.mp4'))).toBeCloseTo(2, 0);
}, 60_000);

/** What may be written, and what XML would stumble over. */
const ODD = 'Ebb & <1> ]]> \u0000\u001b \ud800 👩‍🚀 \u202e שלום &bad;';

test('a board is drawn into a film while it is drawn on, the camera in its corner; then the camera is large again', async () => {
  const event = (at: number, body: object) => ({ seq: at, at, ...body }) as unknown as StoredEvent;
  // A stroke so thick and flat as a pen makes it, over the middle of the board; words; and both wiped.
  const points = Array.from({ length: 200 }, (_, i) => [i / 200, 0.5]).flat();
  const on = { by: 'ana', place: 'class', side: 1 };
  const events = [
    event(1000, { type: 'drawn', ...on, stroke: { points, colour: 'clay' } }),
    event(1100, { type: 'textPut', ...on, text: { text: ODD, at: [0.1, 0.2], colour: 'ink' } }),
    event(3000, { type: 'boardCleared', ...on }),
  ];
  const { signal } = new AbortController();
  const told = { events, parts: [{ from: 0, until: 5000 }] };
  const board = await drawBoard(told, { length: 5000, folder: file('board'), signal });
  expect(board).toMatchObject({ at: 1000, shown: [{ from: 1000, until: 3000 }] });
  const sound = await made('drawn.opus', 'sine=frequency=440', 5);
  const camera = await made('lime-long.webm', 'color=c=lime:s=320x180:r=10', 5);
  const pictures = [{ kind: 'camera' as const, at: 0, length: 5000, file: camera }];
  const film = file('drawn.mp4');
  await run(
    'ffmpeg',
    filmArguments({ sound, length: 5000, pictures, board, slides: null, arrangement: 'corner' }, 'mp4', film),
  );
  expect(await secondsOf(film)).toBeCloseTo(5, 0);
  const is = ([r, g, b]: number[]) =>
    r! > 220 && g! > 220 && b! > 220
      ? 'paper'
      : g! > 180 && r! < 90
        ? 'camera'
        : r! - g! > 30
          ? 'pen'
          : 'other';
  const seen = async (second: number, ...at: [number, number][]) =>
    Promise.all(at.map(async ([x, y]) => is(await colourAt(film, second, x, y))));
  const places: [number, number][] = [
    [640, 100],
    [640, 356],
    [1200, 650],
  ];
  expect(await seen(0.5, ...places)).toEqual(['camera', 'camera', 'camera']);
  expect(await seen(2, ...places)).toEqual(['paper', 'pen', 'camera']);
  expect(await seen(4, ...places)).toEqual(['camera', 'camera', 'camera']);
  // While a screen is shown too, all three are beside one another.
  const screen = await made('blue.webm', 'color=c=blue:s=640x360:r=10', 1);
  const three = [...pictures, { kind: 'screen' as const, at: 1500, length: 1000, file: screen }];
  await run(
    'ffmpeg',
    filmArguments(
      { sound, length: 5000, pictures: three, board, slides: null, arrangement: 'beside' },
      'mp4',
      film,
    ),
  );
  const beside: [number, number][] = [
    [480, 360],
    [1100, 180],
    [1100, 280],
  ];
  expect(await seen(2, ...beside)).toEqual(['other', 'camera', 'paper']);
  expect(await seen(2.8, [480, 150], [480, 357], [1100, 180])).toEqual(['paper', 'pen', 'camera']);
  expect(
    await drawBoard({ events: [], parts: told.parts }, { length: 5000, folder: file('none'), signal }),
  ).toBeNull();
}, 60_000);
