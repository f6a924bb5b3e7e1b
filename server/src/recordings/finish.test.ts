import { mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { finishRecording } from './finish';
import { letUntoldGo } from './untold';

/** What the database holds of the one recording there is. */
const BEFORE = {
  file: 'r/quick.webm',
  finishedAt: null as number | null,
  pictures: ['r/picture-0.webm', 'r/last-0.webm'],
  tables: null as { place: string; file: string; lengthMs: number }[] | null,
  cut: null as { pictures: { file: string }[] } | null,
};
let held: typeof BEFORE;
/** What was done, in its order; and at which of it the server is killed. */
let done: string[];
let killed: string | null;
let data: string;

const step = async (what: string) => {
  if (killed === what) {
    killed = null;
    throw new Error(`killed at ${what}`);
  }
  done.push(what);
};
const made = async (file: string) => writeFile(path.join(data, 'recordings/ready', file), 'film');

jest.mock('../db/pool', () => ({
  ...jest.requireActual<object>('../db/pool'),
  transaction: async (_db: unknown, work: (tx: object) => Promise<void>) => {
    const before = structuredClone(held);
    try {
      await work({});
    } catch (error) {
      held = before;
      throw error;
    }
  },
}));
jest.mock('../room/store', () => ({ eventsOf: async () => [] }));
jest.mock('./level', () => ({
  levelSound: async (_ctx: unknown, { file }: { file: string }) => {
    await step(`level ${file}`);
    await made(file);
    return { silences: [], loudness: null };
  },
}));
jest.mock('./pieces/cameras', () => ({ cutCameras: async () => [] }));
jest.mock('./pieces/join', () => ({
  joinPictures: async () => {
    await step('join');
    await made('r/whole-0.webm');
    return [{ kind: 'camera', at: 0, length: 9, file: 'r/whole-0.webm', member: null }];
  },
}));
jest.mock('./pieces/store', () => ({
  alone: (_db: unknown, _recording: string, work: () => Promise<void>) => work(),
  forgetPieces: async () => {},
}));
jest.mock('./prepare', () => ({
  bytesOf: async () => 1,
  piecesFor: async (_ctx: unknown, _row: unknown, parts: { id: string }[]) =>
    new Map(parts.map(({ id }) => [id, [{ heard: id === 'silent' ? [] : ['ana'] }]])),
}));
const PARTS = ['class', 'table-1', 'table-2', 'silent'].map((id, i) => ({
  ...{ id, place: id === 'class' ? 'class' : id, from: i, until: i + 9 },
}));
jest.mock('./store', () => ({
  ...jest.requireActual<object>('./store'),
  recordingsWhere: async () => [
    {
      ...{
        id: 'r',
        sessionId: 's',
        plan: null,
        finishedAt: held.finishedAt,
        cut: held.cut,
        file: 'r/cut-1.webm',
      },
      whole: { state: 'ready', file: held.file },
    },
  ],
  partsOf: async () => PARTS.slice(0, 1),
  allPartsOf: async () => PARTS,
  picturesIn: async () => held.pictures.map((file) => ({ file })),
  noteFinished: async (_tx: unknown, { file, pictures }: { file: string; pictures: { file: string }[] }) => {
    held = { ...held, file, pictures: pictures.map((p) => p.file), finishedAt: 1 };
    await step('class told');
  },
}));
jest.mock('./tables/store', () => ({
  tablesMadeAt: async () => (held.tables ? 1 : null),
  tablesOf: async () => held.tables ?? [],
  layTables: async (_tx: unknown, _id: string, { tables }: { tables: (typeof BEFORE)['tables'] }) => {
    held = { ...held, tables };
    await step('tables told');
  },
}));

const ctx = () => ({ db: {}, now: () => 1, config: { dataDir: data } }) as unknown as Context;
const finish = () => finishRecording(ctx(), {} as PoolConnection, 'r');
const within = (folder: string) => readdir(path.join(data, 'recordings', folder)).then((all) => all.sort());
const FINISHED = ['sound.webm', 'table-1.webm', 'table-2.webm', 'whole-0.webm'];

beforeEach(async () => {
  held = structuredClone(BEFORE);
  done = [];
  killed = null;
  data = await mkdtemp(path.join(tmpdir(), 'finish-'));
  for (const folder of ['raw', 'pieces/r', 'ready/r'])
    await mkdir(path.join(data, 'recordings', folder), { recursive: true });
  for (const file of [held.file, ...held.pictures]) await made(file);
  for (const { id } of PARTS) await writeFile(path.join(data, 'recordings/raw', `${id}-ana-0.mjr`), 'raw');
});
afterEach(() => rm(data, { recursive: true }));

test('the class first, then each table at which somebody spoke; then what the relay wrote is let go', async () => {
  await finish();
  expect(done).toEqual([
    ...['level r/sound.webm', 'join', 'class told'],
    ...['level r/table-1.webm', 'level r/table-2.webm', 'tables told'],
  ]);
  expect(held.tables!.map((t) => t.place)).toEqual(['table-1', 'table-2']);
  expect(await within('ready/r')).toEqual(FINISHED);
  expect(await within('raw')).toEqual([]);
});

test.each([
  'level r/sound.webm',
  'join',
  'class told',
  'level r/table-1.webm',
  'level r/table-2.webm',
  'tables told',
])(
  'killed at “%s”, it is finished at the next try: nothing is lost, told twice or left behind',
  async (at) => {
    killed = at;
    await expect(finish()).rejects.toThrow(`killed at ${at}`);
    // Until all of it is told, there is what it can be made of; and what is told is there.
    expect(await within('raw')).toHaveLength(PARTS.length);
    expect(await within('ready/r')).toEqual(
      expect.arrayContaining([held.file, ...held.pictures].map((file) => path.basename(file))),
    );
    await finish();
    expect(done.filter((what) => what.endsWith('told'))).toEqual(['class told', 'tables told']);
    expect(await within('ready/r')).toEqual(FINISHED);
    expect(await within('raw')).toEqual([]);
    // Once more is nothing more.
    const before = done.length;
    await finish();
    expect(done).toHaveLength(before);
  },
);

test('killed once the class is told and before what it was made of has gone, that goes at the next try', async () => {
  await finish();
  // As it was at that moment: the old files still there, the tables not told.
  for (const file of BEFORE.pictures) await made(file);
  held.tables = null;
  await finish();
  expect(await within('ready/r')).toEqual(FINISHED);
});

test('what was said at tables stays while a part is cut out, and after: it is told of by nothing but itself', async () => {
  await finish();
  held.cut = { pictures: [{ file: 'r/cut-1-picture-0.webm' }] };
  for (const file of ['r/cut-1.webm', 'r/cut-1-picture-0.webm', 'r/cut-0.webm']) await made(file);
  await letUntoldGo(ctx(), 'r');
  expect(await within('ready/r')).toEqual(['cut-1-picture-0.webm', 'cut-1.webm', ...FINISHED]);
  held.cut = null;
  await letUntoldGo(ctx(), 'r');
  expect(await within('ready/r')).toEqual(FINISHED);
});
