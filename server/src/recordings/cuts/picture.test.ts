import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { cutSoundArguments, type Mark } from '@nimble-bell/core/recording';
import { cutPicture } from './picture';

const run = promisify(execFile);
let folder = '';
const at = (name: string) => path.join(folder, name);
const SECONDS = 20;

/** A picture that is as light as it is late, with a key frame every six seconds; and a beep at each whole second. */
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'cuts-'));
  const made = (source: string, ...args: string[]) =>
    run('ffmpeg', ['-y', '-v', 'error', '-f', 'lavfi', '-i', source, '-t', String(SECONDS), ...args]);
  const light = `color=black:s=64x36:r=10,format=yuv420p,geq=lum='20+10*floor(T)':cb=128:cr=128`;
  await made(light, '-c:v', 'libvpx', '-g', '60', '-keyint_min', '60', '-b:v', '400k', at('light.webm'));
  const beeps = `aevalsrc='if(lt(mod(t,1),0.1),0.5*sin(2*PI*1000*t),0)':s=48000`;
  await made(beeps, '-c:a', 'libopus', '-b:a', '48k', at('beeps.webm'));
}, 60_000);
afterAll(() => rm(folder, { recursive: true }));

/** Which second of what was recorded each frame is of; and when it is shown, s. */
async function secondsIn(file: string): Promise<{ at: number; of: number }[]> {
  const { stdout } = await run('ffprobe', [
    ...['-v', 'error', '-f', 'lavfi', '-i', `movie=${file},signalstats`],
    ...['-show_entries', 'frame=pts_time:frame_tags=lavfi.signalstats.YAVG', '-of', 'csv=p=0'],
  ]);
  return stdout
    .trim()
    .split('\n')
    .map((line) => {
      const [shown, light] = line.split(',');
      return { at: Number(shown), of: Math.round((Number(light) - 20) / 10) };
    });
}

test.each([
  ['from the beginning', 0, 4000],
  ['over key frames', 4500, 14_200],
  ['at a key frame', 6000, 9000],
  ['between two key frames', 7300, 9100],
])(
  'a stretch %s holds what is told, in its time, and nothing before it',
  async (_name, from, until) => {
    await cutPicture(at('light.webm'), { from, until }, at('cut.webm'));
    const frames = await secondsIn(at('cut.webm'));
    expect(frames.length).toBeGreaterThan(((until - from) / 1000) * 10 - 3);
    for (const frame of frames) {
      const wanted = from / 1000 + frame.at;
      expect(frame.of).toBeGreaterThanOrEqual(Math.floor(from / 1000));
      expect(frame.of).toBeLessThanOrEqual(Math.floor(until / 1000));
      // At the turn of a second a frame may be of either.
      expect([Math.floor(wanted - 0.12), Math.floor(wanted + 0.12)]).toContain(frame.of);
    }
    expect(frames.at(-1)!.at).toBeCloseTo((until - from) / 1000 - 0.1, 0);
  },
  60_000,
);

test('sound is cut to the millisecond, over many cuts; what is silent lasts and is silent', async () => {
  // Of each of the first ten seconds the last quarter is told; from 12 to 15 nothing is heard.
  const marks = Array.from({ length: 10 }, (_, i): Mark[] => [
    { from: i * 1000, fate: 'out' },
    { from: i * 1000 + 750, fate: 'kept' },
  ]).flat();
  const all: Mark[] = [...marks, { from: 12_000, fate: 'silent' }, { from: 15_000, fate: 'kept' }];
  await run('ffmpeg', cutSoundArguments(at('beeps.webm'), all, SECONDS * 1000, at('cut-sound.webm')));
  const { stderr } = await run('ffmpeg', [
    ...['-hide_banner', '-nostats', '-i', at('cut-sound.webm')],
    ...['-af', 'silencedetect=noise=-30dB:d=0.05', '-f', 'null', '-'],
  ]);
  const begins = [...stderr.matchAll(/silence_end: ([\d.]+)/g)].map((m) => Number(m[1]));
  // Those of 10, 11, and 15 to 19 are left.
  const wanted = [10, 11, 15, 16, 17, 18, 19].map((s) => s - 10 + 2.5);
  const heard = begins.filter((s) => s < 12.4);
  expect(heard.length).toBe(wanted.length);
  heard.forEach((s, i) => expect(Math.abs(s - wanted[i]!)).toBeLessThan(0.02));
}, 60_000);
