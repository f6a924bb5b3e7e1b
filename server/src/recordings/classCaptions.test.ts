import { mkdir, mkdtemp, readdir, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { lecture, maren } from '@nimble-bell/core/testing';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Context } from '../context';
import { keepClassCaptions } from './classCaptions';

let events: StoredEvent[] = [];
jest.mock('../room/store', () => ({ eventsOf: async () => events }));

const RECORDING = { id: 'rec', sessionId: 's', plan: null };

async function setUp() {
  const dataDir = await mkdtemp(path.join(tmpdir(), 'nb-captions-'));
  const ready = path.join(dataDir, 'recordings', 'ready');
  await mkdir(ready, { recursive: true });
  const ctx = { db: {}, config: { dataDir } } as unknown as Context;
  const room = lecture();
  room.do(maren, { type: 'setCaptioner', member: 'maren', on: true });
  return { ctx, ready, room };
}

test('what was written in class is the recording’s captions, once, and takes the place of none', async () => {
  const { ctx, ready, room } = await setUp();
  events = room.events;
  const whole = [{ from: 0, until: 3_600_000 }];
  await keepClassCaptions(ctx, RECORDING, whole);
  expect(await readdir(ready)).toEqual([]);
  room.later = 60_000;
  room.do(maren, { type: 'caption', text: 'The tide turns at six.' });
  await keepClassCaptions(ctx, RECORDING, whole);
  expect(await readdir(ready)).toEqual(['rec.en.vtt']);
  const written = await readFile(path.join(ready, 'rec.en.vtt'), 'utf8');
  expect(written).toMatch(/^WEBVTT\n[\s\S]*The tide turns at six\./);
  // What was mended since by those who care for the recording stays when it is prepared again.
  await writeFile(path.join(ready, 'rec.en.vtt'), 'WEBVTT\n');
  await keepClassCaptions(ctx, RECORDING, whole);
  expect(await readFile(path.join(ready, 'rec.en.vtt'), 'utf8')).toBe('WEBVTT\n');
});
