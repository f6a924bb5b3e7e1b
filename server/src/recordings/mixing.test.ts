import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { copiedPicture, mixArguments, type MixTrack } from '@nimble-bell/core/recording';

const run = promisify(execFile);
let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'mixing-'));
});
afterAll(() => rm(folder, { recursive: true }));

/** A track as the relay would have written it: a tone, or a picture of one colour. */
async function track(
  name: string,
  kind: MixTrack['kind'],
  offset: number,
  length: number,
  look = 'red',
): Promise<MixTrack> {
  const file = path.join(folder, `${name}.${kind === 'sound' ? 'opus' : 'webm'}`);
  const source = kind === 'sound' ? 'sine=frequency=440' : `color=c=${look}:s=320x240:r=10`;
  const codec = kind === 'sound' ? ['-c:a', 'libopus'] : ['-c:v', 'libvpx', '-b:v', '100k'];
  await run('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    source,
    '-t',
    String(length / 1000),
    ...codec,
    file,
  ]);
  return { file, kind, offset };
}

const secondsOf = async (file: string) =>
  Number(
    (await run('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', file]))
      .stdout,
  );

/** The colour in the middle of the picture at a second, as red, green, blue. */
async function colourAt(file: string, second: number): Promise<number[]> {
  const args = [
    '-v',
    'error',
    '-ss',
    String(second),
    '-i',
    file,
    '-frames:v',
    '1',
    '-vf',
    'scale=1:1',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb24',
    '-',
  ];
  const { stdout } = await run('ffmpeg', args, { encoding: 'buffer' });
  return [...stdout];
}

/** How loud a stretch is, mean volume in dB. */
async function loudness(file: string, from: number, length: number): Promise<number> {
  const args = [
    '-v',
    'info',
    '-ss',
    String(from),
    '-t',
    String(length),
    '-i',
    file,
    '-af',
    'volumedetect',
    '-vn',
    '-f',
    'null',
    '-',
  ];
  const { stderr } = await run('ffmpeg', args);
  return Number(/mean_volume: (-?[\d.]+|-inf) dB/.exec(stderr)?.[1]?.replace('-inf', '-99'));
}

test('two voices and two cameras become one film: each at its time, the pictures copied', async () => {
  const tracks = [
    await track('early', 'sound', 0, 1500),
    await track('late', 'sound', 3000, 1000),
    await track('red', 'camera', 0, 3000, 'red'),
    await track('blue', 'camera', 2000, 3000, 'blue'),
  ];
  const part = { length: 4500, tracks };
  const copied = copiedPicture(part)!;
  const listFile = path.join(folder, 'list.txt');
  await writeFile(listFile, copied.list);
  const output = path.join(folder, 'copied.webm');
  await run('ffmpeg', mixArguments(part, { how: 'copy', listFile, offset: copied.offset }, output));
  expect(await secondsOf(output)).toBeCloseTo(4.5, 0);
  const [red, blue] = [await colourAt(output, 1), await colourAt(output, 3)];
  expect(red[0]! > 180 && red[2]! < 80).toBe(true);
  expect(blue[2]! > 180 && blue[0]! < 80).toBe(true);
  expect(await loudness(output, 0.3, 1)).toBeGreaterThan(-40);
  expect(await loudness(output, 1.8, 0.9)).toBeLessThan(-60);
  expect(await loudness(output, 3.2, 0.6)).toBeGreaterThan(-40);
}, 60_000);

test('a presented screen covers the camera while it lasts', async () => {
  const tracks = [
    await track('behind', 'camera', 0, 3000, 'red'),
    await track('front', 'screen', 1000, 1000, 'lime'),
  ];
  const output = path.join(folder, 'drawn.webm');
  await run('ffmpeg', mixArguments({ length: 3000, tracks }, { how: 'draw' }, output));
  const colours = [await colourAt(output, 0.5), await colourAt(output, 1.5), await colourAt(output, 2.5)];
  const isRed = (c: number[]) => c[0]! > c[1]!;
  expect(colours.map(isRed)).toEqual([true, false, true]);
}, 60_000);

test('a part in which nobody sent anything is silence of its length', async () => {
  const output = path.join(folder, 'silent.webm');
  await run('ffmpeg', mixArguments({ length: 1200, tracks: [] }, { how: 'none' }, output));
  expect(await secondsOf(output)).toBeCloseTo(1.2, 0);
});
