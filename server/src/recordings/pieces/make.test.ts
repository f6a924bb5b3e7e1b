import { execFile } from 'node:child_process';
import { mkdir, mkdtemp, readFile, rm, symlink, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { ivfFrames, opusFrames, relayFile, type Frame } from '@nimble-bell/core/testing';
import {
  followed,
  joinArguments,
  keptPictures,
  levelArguments,
  measureArguments,
  measuredIn,
  picturesOf,
} from '@nimble-bell/core/recording';
import type { Context } from '../../context';
import type { Db } from '../../db/pool';
import { tracksOf } from '../store';
import { makePieces, soundsOf } from './make';
import { keepPiece, piecesOf, type Piece } from './store';

jest.mock('../store', () => ({ tracksOf: jest.fn() }));
jest.mock('./store', () => ({ piecesOf: jest.fn(), keepPiece: jest.fn() }));

const run = promisify(execFile);
const ffmpeg = (...args: string[]) =>
  run('ffmpeg', ['-y', '-hide_banner', '-nostdin', ...args], { maxBuffer: 1 << 26 });
const BEGAN = Date.UTC(2026, 9, 6, 21, 30);
/** Every so many seconds there is a clap: a white flash, and a tone that begins with it. */
const CLAP_S = 10;
/** `CLAPPER_S=4800 npx jest pieces/make` takes a class of 80 minutes, and most of four minutes for it. */
const LENGTH_S = Number(process.env.CLAPPER_S ?? 130);
const PATIENCE_MS = 120_000 + LENGTH_S * 100;
const RATE = 25;

let data = '';
let claps: { sound: Frame[]; picture: Frame[] };
const ctx = () => ({ config: { dataDir: data, clockOffset: 0 } }) as unknown as Context;
const db = {} as Db;

beforeAll(async () => {
  data = await mkdtemp(path.join(tmpdir(), 'pieces-'));
  const to = (name: string) => path.join(data, name);
  const tone = `aevalsrc='if(lt(mod(t,${CLAP_S}),0.2),0.5*sin(2*PI*1000*t),0)':s=48000`;
  await ffmpeg(
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    tone,
    '-t',
    String(LENGTH_S),
    '-c:a',
    'libopus',
    to('clap.ogg'),
  );
  const flash = `color=black:s=64x36:r=${RATE},drawbox=color=white:t=fill:enable='lt(mod(t,${CLAP_S}),0.2)'`;
  const vp8 = ['-c:v', 'libvpx', '-deadline', 'realtime', '-g', '60', '-b:v', '100k'];
  await ffmpeg('-v', 'error', '-f', 'lavfi', '-i', flash, '-t', String(LENGTH_S), ...vp8, to('clap.ivf'));
  claps = {
    sound: opusFrames(await readFile(to('clap.ogg'))),
    picture: ivfFrames(await readFile(to('clap.ivf')), RATE),
  };
}, PATIENCE_MS);
afterAll(() => rm(data, { recursive: true }));

let kept: Piece[] = [];
beforeEach(async () => {
  kept = [];
  jest.mocked(piecesOf).mockImplementation(async () => structuredClone(kept));
  jest.mocked(keepPiece).mockImplementation(async (_db, _part, piece) => {
    kept = [...kept.filter((p) => p.number !== piece.number), piece].sort((a, b) => a.number - b.number);
    return {} as never;
  });
  for (const folder of ['raw', 'pieces']) {
    await rm(path.join(data, 'recordings', folder), { recursive: true, force: true });
    await mkdir(path.join(data, 'recordings', folder), { recursive: true });
  }
});

const HOUR_MS = 3_600_000;
const rawFile = (name: string) => path.join(data, 'recordings', 'raw', name);
const part = (seconds: number, id = 'p') => ({
  id,
  recording: 'r',
  from: BEGAN,
  until: BEGAN + seconds * 1000,
});
const NOBODY = new Set<string>();
const pieces = (seconds: number, over: boolean, withheld: ReadonlySet<string> = NOBODY) =>
  makePieces(ctx(), db, part(seconds), { over, withheld, plan: null, patient: false });

/** What is heard and seen of the pieces, joined. */
async function joined(made: readonly Piece[]) {
  const folder = path.join(data, 'recordings', 'pieces', 'r');
  const sounds = made.map((p, i) => ({
    file: soundsOf(folder, 'p', p.number).whole,
    length: p.until - (made[i - 1]?.until ?? 0),
  }));
  const list = path.join(folder, 'all.txt');
  await writeFile(list, followed(sounds));
  const measured = measuredIn((await ffmpeg(...measureArguments(list))).stderr, LENGTH_S * 1000);
  const sound = path.join(folder, 'sound.webm');
  await run('ffmpeg', levelArguments(list, measured, sound));
  const pictures = picturesOf(keptPictures(made.flatMap((p) => p.slices)));
  for (const [i, p] of pictures.entries()) {
    await writeFile(`${list}-${i}`, followed(p.files));
    await run('ffmpeg', joinArguments(`${list}-${i}`, path.join(folder, `picture-${i}.webm`)));
  }
  return { sound, measured, pictures, picture: (i: number) => path.join(folder, `picture-${i}.webm`) };
}

/** When tones begin in a file, and when flashes do, ms. */
async function tonesIn(file: string): Promise<number[]> {
  const { stderr } = await ffmpeg('-i', file, '-af', 'silencedetect=noise=-30dB:d=1', '-f', 'null', '-');
  const found = [...stderr.matchAll(/silence_end: ([\d.]+)/g)].map((m) => Number(m[1]) * 1000);
  // Where a file ends its silence does.
  return found.filter((ms) => ms % 10_000 > 10 && ms % 10_000 < 1000);
}
async function flashesIn(file: string): Promise<number[]> {
  const { stderr } = await ffmpeg('-i', file, '-vf', 'blackdetect=d=1:pix_th=0.3', '-f', 'null', '-');
  return [...stderr.matchAll(/black_end:([\d.]+)/g)].map((m) => Number(m[1]) * 1000).slice(0, -1);
}

test(
  'sound and picture are in step from the beginning to the end, however wrong the clocks of senders are',
  async () => {
    jest
      .mocked(tracksOf)
      .mockResolvedValue([{ base: 'p-maren', member: 'maren', role: 'teacher', ahead: null }]);
    // A clock that is wrong by 2 in 1,000 is off by 0.3 s at the end; packets come late by up to 40 ms.
    const late = (sent: number) => (sent * 7919) % 40;
    // And the sender heard nothing for a moment: its sound's clock stood still.
    const stood = (sent: number) => (sent > 45_000 ? 500 : 0);
    await writeFile(
      rawFile('p-maren-0.mjr'),
      relayFile('sound', claps.sound, {
        began: BEGAN + 300,
        late: (sent) => late(sent) + stood(sent),
        fast: 0.002,
      }),
    );
    await writeFile(
      rawFile('p-maren-1.mjr'),
      relayFile(
        'picture',
        claps.picture.map((f) => ({ ...f, sent: f.sent + stood(f.sent) })),
        { began: BEGAN + 300, late },
      ),
    );
    // Prepared while it is on, and killed in the middle of it; then ended, and killed once more.
    const killed = () => jest.mocked(keepPiece).mockRejectedValueOnce(new Error('killed'));
    for (let on = 70; on < LENGTH_S - 15; on += 60) {
      if (on % 180 === 70) {
        killed();
        await expect(pieces(on, false)).rejects.toThrow('killed');
      }
      expect(await pieces(on, false)).toHaveLength(Math.floor(on / 60));
    }
    killed();
    await expect(pieces(LENGTH_S, true)).rejects.toThrow('killed');
    const made = await pieces(LENGTH_S, true);
    const count = Math.ceil(LENGTH_S / 60);
    expect(made.map((p) => [p.until, p.over])).toEqual(
      made.map((_, i) => (i < count - 1 ? [(i + 1) * 60_000, false] : [LENGTH_S * 1000, true])),
    );
    expect(made).toHaveLength(count);
    const { sound, pictures, picture, measured } = await joined(made);
    expect(pictures).toHaveLength(1);
    const found = LENGTH_S / CLAP_S - 1;
    expect(measured.silences.length).toBeGreaterThan(found - 2);
    const tones = await tonesIn(sound);
    const flashes = (await flashesIn(picture(0))).map((ms) => ms + pictures[0]!.at);
    // The first clap is at the very beginning: what is found are the others.
    expect(tones.length).toBeGreaterThanOrEqual(found);
    expect(flashes.length).toBeGreaterThanOrEqual(found);
    for (const [i, tone] of tones.entries()) {
      const clap = (i + 1) * CLAP_S * 1000;
      expect(Math.abs(tone - clap - stood(clap) - 300)).toBeLessThan(80);
      expect(Math.abs(tone - flashes[i]!)).toBeLessThan(80);
    }
  },
  PATIENCE_MS,
);

test('a picture that stood still is another, a short file is read as far as it goes, and who withdraws is not heard', async () => {
  jest.mocked(tracksOf).mockResolvedValue([
    { base: 'p-maren', member: 'maren', role: 'teacher', ahead: null },
    // The machine's clock was put an hour on before she spoke.
    { base: 'p-ana', member: 'ana', role: 'student', ahead: -HOUR_MS },
  ]);
  const shown = claps.picture.filter((f) => f.sent < 8000 || (f.sent >= 40_000 && f.sent < 70_000));
  await writeFile(rawFile('p-maren-2.mjr'), relayFile('picture', shown, { began: BEGAN }));
  await writeFile(rawFile('p-ana-0.mjr'), relayFile('sound', claps.sound, { began: BEGAN + HOUR_MS }));
  // Students' cameras are not kept, whatever the relay wrote.
  await writeFile(rawFile('p-ana-1.mjr'), relayFile('picture', claps.picture.slice(0, 50), { began: BEGAN }));
  await truncate(rawFile('p-ana-0.mjr'), 400_000);
  await writeFile(rawFile('p-maren-0.mjr'), 'MJR00002');
  // So is what was written nowhere, for want of room.
  await symlink('/dev/null', rawFile('p-maren-1.mjr'));
  expect((await pieces(65, false)).map((p) => p.heard)).toEqual([['ana']]);
  const made = await pieces(80, true);
  const { pictures, sound } = await joined(made);
  expect(pictures.map((p) => [p.kind, Math.round(p.at / 1000)])).toEqual([
    ['screen', 0],
    ['screen', 41],
  ]);
  expect((await tonesIn(sound)).length).toBeGreaterThan(3);
  // What somebody withdraws is not seen either, though its piece was made before.
  const gone = await pieces(80, true, new Set(['maren']));
  expect(gone.flatMap((p) => p.slices)).toEqual([]);
  const without = await joined(await pieces(80, true, new Set(['ana'])));
  expect(await tonesIn(without.sound)).toEqual([]);
  expect(without.measured.loudness).toBeNull();
}, 120_000);
