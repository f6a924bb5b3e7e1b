import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { filmArguments, FILMS, type FilmKind } from '@nimble-bell/core/recording';

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

/** The colour of the picture at a second, and at a place of its 1280 by 720, as red, green, blue. */
async function colourAt(film: string, second: number, x: number, y: number): Promise<number[]> {
  const args = [
    '-v',
    'error',
    '-ss',
    String(second),
    '-i',
    film,
    '-frames:v',
    '1',
    '-vf',
    `crop=8:8:${x}:${y},scale=1:1`,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb24',
    '-',
  ];
  const { stdout } = await run('ffmpeg', args, { encoding: 'buffer' });
  return [...stdout];
}

test.each(Object.keys(FILMS) as FilmKind[])(
  'a film as %s: the screen large while it is shown, and the camera in its corner',
  async (kind) => {
    const red = await made('red.webm', 'color=c=red:s=320x180:r=10', 4);
    const lime = await made('lime.webm', 'color=c=lime:s=640x360:r=10', 2);
    const sound = await made('tone.opus', 'sine=frequency=440', 5);
    const pictures = [
      { kind: 'screen' as const, at: 2000, length: 1500, file: lime },
      { kind: 'camera' as const, at: 500, length: 4000, file: red },
    ];
    const film = file(`film.${kind}`);
    await run('ffmpeg', filmArguments({ sound, length: 5000, pictures }, kind, film));
    expect(await secondsOf(film)).toBeCloseTo(5, 0);
    const corner = async (second: number) => colourAt(film, second, 1200, 650);
    const middle = async (second: number) => colourAt(film, second, 640, 300);
    const is = ([r, g]: number[]) => (r! > 180 && g! < 90 ? 'red' : g! > 180 && r! < 90 ? 'lime' : 'neither');
    expect([await middle(0.2), await middle(1.2), await middle(2.8), await middle(4.1)].map(is)).toEqual([
      'neither',
      'red',
      'lime',
      'red',
    ]);
    expect([await corner(1.2), await corner(2.8)].map(is)).toEqual(['red', 'red']);
  },
  60_000,
);

test('a film in which nothing was shown has the sound, and a plain picture', async () => {
  const sound = await made('alone.opus', 'sine=frequency=440', 2);
  await run('ffmpeg', filmArguments({ sound, length: 2000, pictures: [] }, 'mp4', file('alone.mp4')));
  expect(await secondsOf(file('alone.mp4'))).toBeCloseTo(2, 0);
}, 60_000);
