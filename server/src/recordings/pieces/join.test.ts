import { execFile } from 'node:child_process';
import { copyFile, mkdir, mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import type { Context } from '../../context';
import { folderOf, piecesDir, readyDir } from '../files';
import { cutCameras } from './cameras';
import { joinAhead, joinPictures } from './join';
import type { Piece } from './store';

const run = promisify(execFile);
let data = '';
const ctx = () => ({ config: { dataDir: data } }) as unknown as Context;
const part = { id: 'p', from: 0, until: 13_000 };

/** Pieces of a second each, with a camera that goes on through all of them. */
async function pieces(count: number, { member = 'maren', role = 'teacher' } = {}): Promise<Piece[]> {
  const folder = await folderOf(piecesDir(ctx()), 'r');
  return Promise.all(
    Array.from({ length: count }, async (_, number) => {
      const file = path.join(folder, `p-${number}-picture-0.webm`);
      await copyFile(path.join(data, 'second.webm'), file);
      const slice = { kind: 'camera' as const, role, member, track: `${member}-1`, file };
      const at = number * 1000;
      return {
        ...{ number, until: at + 1000, over: false, reached: {}, heard: [] },
        slices: [{ ...slice, at, length: 1000, goesOn: number > 0 }],
      };
    }),
  );
}

const lengthOf = async (file: string): Promise<number> => {
  const args = ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0'];
  return Number((await run('ffprobe', [...args, path.join(readyDir(ctx()), file)])).stdout);
};
const joinedNow = async () =>
  (await readdir(path.join(piecesDir(ctx()), 'r'))).filter((n) => n.startsWith('joined-') && n.endsWith('m'));

beforeAll(async () => {
  data = await mkdtemp(path.join(tmpdir(), 'join-'));
  const source = ['-f', 'lavfi', '-i', 'testsrc=s=64x36:r=25', '-t', '1', '-c:v', 'libvpx'];
  await run('ffmpeg', ['-v', 'error', ...source, path.join(data, 'second.webm')]);
  await mkdir(path.join(readyDir(ctx()), 'r'), { recursive: true });
});
afterAll(() => rm(data, { recursive: true }));

test('what is whole is joined while class is on, and what is left at its end; later all of it is one', async () => {
  const made = await pieces(9);
  await joinAhead(ctx(), 'r', part, made);
  // Whether it goes on is not known yet.
  expect(await joinedNow()).toEqual([]);
  made.push(...(await pieces(13)).slice(9));
  await joinAhead(ctx(), 'r', part, made);
  const ahead = await joinedNow();
  expect(ahead).toHaveLength(1);
  const all = new Map([['p', made]]);
  const quick = await joinPictures(ctx(), 'r', [part], all, { named: 'picture', inOne: false });
  expect(await joinedNow()).toEqual(ahead);
  expect(quick.map(({ at, length }) => [at, length])).toEqual([
    [0, 10_000],
    [10_000, 3000],
  ]);
  for (const { file, length } of quick)
    expect(Math.abs((await lengthOf(file)) * 1000 - length)).toBeLessThan(100);
  const [one, ...more] = await joinPictures(ctx(), 'r', [part], all, { named: 'whole', inOne: true });
  expect(more).toEqual([]);
  expect(Math.abs((await lengthOf(one!.file)) - 13)).toBeLessThan(0.1);
  // A piece that was made anew is not what was joined.
  const anew = await pieces(13);
  await joinAhead(ctx(), 'r', part, anew);
  expect(await joinedNow()).toHaveLength(2);
});

test('of a student’s camera only what is given for it is in a file, and of others nothing', async () => {
  const made = new Map([['p', await pieces(9, { member: 'ana', role: 'student' })]]);
  const kept = new Map([
    [
      'ana',
      [
        { from: 1500, until: 3200 },
        { from: 7000, until: 20_000 },
      ],
    ],
    ['maren', [{ from: 0, until: 9000 }]],
  ]);
  const cut = await cutCameras(ctx(), 'r', [part], made, kept);
  expect(cut.map(({ kind, at, length, member }) => [kind, at, length, member])).toEqual([
    ['camera', 1500, 1700, 'ana'],
    ['camera', 7000, 2000, 'ana'],
  ]);
  for (const { file, length } of cut)
    expect(Math.abs((await lengthOf(file)) * 1000 - length)).toBeLessThan(100);
  expect(await readdir(path.join(readyDir(ctx()), 'r'))).not.toContain('camera-work.webm');
  expect(await cutCameras(ctx(), 'r', [part], made, new Map())).toEqual([]);
  expect(await cutCameras(ctx(), 'r', [part], new Map([['p', await pieces(9)]]), kept)).toEqual([]);
});
