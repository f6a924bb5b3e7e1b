import { Voices } from './after/voices';
import { EventEmitter } from 'node:events';
import { mkdir } from 'node:fs/promises';
import { createServer } from 'node:http';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { createApp } from './app';
import { captionerFor } from './captioner/captioners';
import { followCaptions } from './captioner/follow';
import { readConfig } from './config';
import { SteadyClock } from './clock';
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
import { keepHouse } from './jobs/hourly';
import { rawDir } from './recordings/files';
import { watchSpace } from './recordings/space/watch';
import { recordingLanes } from './recordings/lanes';
import { Rehearsals } from './rehearsal/keeper';
import { Rooms } from './room/rooms';
import { Media } from './room/effects/media';
import { Leases } from './room/lease';
import { lastInClass } from './room/store';
import { forwardToHolders } from './room/live/forward';
import { tellCaptioning } from './room/live/broadcast';
import { RoomSocket } from './room/live/socket';
import { standInTelephone } from './standins/telephone';
import { takeCalls } from './telephone/calls';
import { writeMissingRolls } from './sessions/roll';

const config = readConfig(process.env);
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });
await migrate(config.databaseUrl, path.join(path.dirname(fileURLToPath(import.meta.url)), 'migrations'));
const clock = new SteadyClock();
const ctx: Context = {
  config,
  log,
  db: openPool(config.databaseUrl),
  now: () => clock.now() + config.clockOffset,
  signals: new EventEmitter(),
};

clock.startAt((await lastInClass(ctx.db)) - config.clockOffset);
await mkdir(rawDir(ctx), { recursive: true });
if (config.demo) await layDemo(ctx);

// A timer, or a promise that nobody waited for, ends no process that holds rooms: it is said, and the work goes on.
process.on('unhandledRejection', (error) => log.error(error, 'an unexpected rejection'));

const relay = config.relayUrl ? new JanusRelay(config.relayUrl, rawDir(ctx), log) : noRelay;
const leases = new Leases(ctx, config.address);
const rooms = new Rooms(ctx, leases);
const media = new Media(ctx, relay);
const voices = new Voices(ctx, relay);
const captioner = captionerFor(config.captioner, relay, log);
const rehearsing = new Rehearsals(ctx, rooms, `http://127.0.0.1:${config.port}`);
const http = createServer(createApp(ctx, relay, rehearsing));
// Longer than proxies and pages keep a line: who speaks just as it is closed would have no answer.
http.keepAliveTimeout = 75_000;
http.headersTimeout = 80_000;
// The address is taken before any room is: whoever had both before is not there any more.
await new Promise<void>((resolve, reject) => {
  http.once('error', reject);
  http.listen(config.port, '127.0.0.1', resolve);
}).catch((error: unknown) => {
  log.fatal(error);
  process.exit(1);
});
// Everyone hears first; then the relay follows.
const socket = new RoomSocket(ctx, http, rooms, media, relay, captioner?.about ?? null);
rooms.listen({
  told: (room, events) => void media.heed(room, events).catch((error: unknown) => log.error(error)),
});
if (captioner)
  followCaptions(captioner, { rooms, relay, log, told: (...of) => tellCaptioning(socket.io, ...of) });
if (config.standinTelephone)
  takeCalls(standInTelephone(socket.io), rooms, { ctx, attendance: socket.attendance, media, relay });
forwardToHolders(http, leases, log);
socket.attendance.begin();
await leases.start();
await writeMissingRolls(ctx.db);
await rooms.start();
rehearsing.start();
log.info(`listening on ${config.origin}`);

const worker = new Worker(ctx, [composingLane(ctx), sendingLane(ctx), ...recordingLanes(ctx, relay)]);
worker.start();
const house = keepHouse(ctx);
const space = watchSpace(ctx, rooms);
const timekeeper = keepTime(ctx);
const following = setInterval(() => void rooms.anyLive().then((held) => clock.follow(held)), 5000);
const reading = config.inboxUrl ? keepReading(ctx) : null;
let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  rehearsing.stop();
  rooms.stop();
  await leases.stop();
  clearInterval(house);
  clearInterval(space);
  clearInterval(timekeeper);
  clearInterval(following);
  await voices.stop();
  await Promise.all([worker.stop(), reading?.stop(), socket.close(), relay.stop()]);
  await ctx.db.end();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
