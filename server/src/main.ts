import { EventEmitter } from 'node:events';
import { mkdir } from 'node:fs/promises';
import { createServer } from 'node:http';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { createApp } from './app';
import { readConfig } from './config';
import type { Context } from './context';
import { migrate } from './db/migrate';
import { openPool } from './db/pool';
import { layDemo } from './demo/lay';
import { Worker } from './jobs/worker';
import { keepReading } from './mail/inbox';
import { composingLane, sendingLane } from './mail/send';
import { keepTime } from './mail/timed';
import { JanusRelay } from './media/janus';
import { noRelay } from './media/relay';
import { RoomMedia } from './media/roomMedia';
import { keepExpiring } from './recordings/expire';
import { prepareRecording, rawDir } from './recordings/prepare';
import { Recorder } from './recordings/recorder';
import { Rooms } from './room/rooms';
import { RoomSocket } from './room/socket';

const config = readConfig(process.env);
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });
await migrate(config.databaseUrl, path.join(path.dirname(fileURLToPath(import.meta.url)), 'migrations'));
const ctx: Context = {
  config,
  log,
  db: openPool(config.databaseUrl),
  now: () => Date.now() + config.clockOffset,
  signals: new EventEmitter(),
};

await mkdir(rawDir(ctx), { recursive: true });
if (config.demo) await layDemo(ctx);

const relay = config.relayUrl ? new JanusRelay(config.relayUrl, rawDir(ctx), log) : noRelay;
const rooms = new Rooms(ctx);
const media = new RoomMedia(ctx, relay);
const recorder = new Recorder(ctx, relay, media);
const http = createServer(createApp(ctx, relay));
const socket = new RoomSocket(ctx, http, rooms, media, relay);
const fault = (error: unknown) => log.error(error);
// Everyone hears first; then the relay and the recorder follow.
rooms.listen((room, events) => socket.tell(room, events));
rooms.listen((room, events) => void media.heed(room, events).catch(fault));
rooms.listen((room, events) => void recorder.heed(room, events).catch(fault));
await rooms.start();

const worker = new Worker(ctx, [
  composingLane(ctx),
  sendingLane(ctx),
  {
    name: 'prepare',
    where: "kind = 'prepare'",
    batch: 1,
    width: 1,
    work: async (jobs) => {
      await prepareRecording(ctx, String(jobs[0]!.payload.recording));
      return jobs;
    },
  },
]);
worker.start();
const expiring = keepExpiring(ctx);
const timekeeper = keepTime(ctx);
const reading = config.inboxUrl ? keepReading(ctx) : null;
ctx.signals.on('gone', (members) => void socket.putOut(members).catch(fault));

http.listen(config.port, '127.0.0.1', () => log.info(`listening on ${config.origin}`));
http.on('error', (error) => {
  log.fatal(error);
  process.exit(1);
});

let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  rooms.stop();
  clearInterval(expiring);
  clearInterval(timekeeper);
  await Promise.all([worker.stop(), reading?.stop(), socket.io.close(), relay.stop()]);
  await ctx.db.end();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
