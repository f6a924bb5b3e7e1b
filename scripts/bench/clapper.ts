import { execFile } from 'node:child_process';
import path from 'node:path';
import { promisify } from 'node:util';
import { chromium, type Page } from '@playwright/test';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { positionOf, type Part } from '@nimble-bell/core/recording';
import config from '../../e2e/playwright.config';
import { account, dismiss, makeCourse, ringIn, throughDoor } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL, DATA, pidOf } from '../../e2e/support/product';
import { askStore } from '../../e2e/support/store';
import { percentile, type Figure } from './table';

/** A class of so many minutes, in time as it passes. */
const MINUTES = Number(process.env.CLAPPER_MIN ?? 80);
const CLAP_MS = 10_000;
const SOUNDS_MS = 300;
/** Of a clap that was cut in two, or has no other half, nothing is to be learned. */
const FAR_MS = 4000;
/** A page whose sound is so far behind its clock does not clap as one, ms; nor is its clap looked for so near. */
const BEHIND_MS = 30;
const UNFAIR_MS = 2500;

const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));
const ffmpeg = (...args: string[]) =>
  promisify(execFile)('ffmpeg', ['-hide_banner', '-nostdin', ...args, '-f', 'null', '-'], {
    maxBuffer: 1 << 28,
  });

/** In a page: a camera that flashes, and a microphone that sounds in the same moment. */
function clapping({ every, sounds }: { every: number; sounds: number }) {
  const canvas = Object.assign(document.createElement('canvas'), { width: 320, height: 180 });
  const pen = canvas.getContext('2d')!;
  const cameras: CanvasCaptureMediaStreamTrack[] = [];
  let bright = false;
  const draw = () => {
    pen.fillStyle = bright ? 'white' : 'black';
    pen.fillRect(0, 0, canvas.width, canvas.height);
    for (const camera of cameras) camera.requestFrame();
  };
  setInterval(draw, 66);
  let air: {
    audio: AudioContext;
    loud: GainNode;
    out: MediaStreamAudioDestinationNode;
    /** How much older than its sound the page was, lately. */
    lately: { at: number; older: number }[];
  } | null = null;
  /** How far the page's own sound is behind its clock, ms: where the machine is short of time it makes its claps apart. */
  const behind = () => {
    if (!air) return 0;
    const at = performance.now();
    const older = at - 1000 * air.audio.currentTime;
    // The two clocks drift, and a sound that once began late is late for good: only what has just changed makes claps apart.
    air.lately = [...air.lately.filter((l) => at - l.at < 20_000), { at, older }];
    return older - Math.min(...air.lately.map((l) => l.older));
  };
  setInterval(behind, 500);
  const voice = () => {
    if (!air) {
      const audio = new AudioContext();
      const loud = new GainNode(audio, { gain: 0 });
      const out = audio.createMediaStreamDestination();
      const tone = new OscillatorNode(audio, { frequency: 440 });
      tone.connect(loud).connect(out);
      tone.start();
      air = { audio, loud, out, lately: [] };
    }
    return air.out.stream.getAudioTracks()[0]!.clone();
  };
  const clap = () => {
    bright = true;
    draw();
    (window as unknown as { clapped: (at: number, behind: number) => void }).clapped(Date.now(), behind());
    if (air) {
      const { audio, loud } = air;
      loud.gain.setValueAtTime(0.5, audio.currentTime);
      loud.gain.setValueAtTime(0, audio.currentTime + sounds / 1000);
    }
    setTimeout(() => (bright = false), sounds);
    setTimeout(clap, every - (Date.now() % every) || every);
  };
  setTimeout(clap, every - (Date.now() % every));
  navigator.mediaDevices.getUserMedia = async ({ audio, video }: MediaStreamConstraints = {}) => {
    const tracks: MediaStreamTrack[] = [];
    if (audio) tracks.push(voice());
    if (video) {
      const camera = canvas.captureStream(0).getVideoTracks()[0] as CanvasCaptureMediaStreamTrack;
      cameras.push(camera);
      tracks.push(camera);
    }
    return new MediaStream(tracks);
  };
}

/** Camera and microphone are on, whatever has happened. */
async function onAgain(page: Page) {
  for (const what of ['Camera', 'Microphone']) {
    const on = page.getByRole('button', { name: `${what}: on` });
    for (let tries = 0; tries < 30 && !(await on.isVisible()); tries++) {
      await page
        .getByRole('button', { name: `${what}: off` })
        .click({ timeout: 2000 })
        .catch(() => {});
      await pause(1500);
    }
  }
}

/** What happens to the class, by the share of it that is over. */
const HAPPENS: [number, string, (page: Page) => Promise<unknown>][] = [
  [
    0.15,
    'the page is opened again',
    async (page) => {
      await page.reload();
      await throughDoor(page);
    },
  ],
  [0.3, 'the app is killed', async () => process.kill(pidOf('app'), 'SIGKILL')],
  [0.45, 'the relay is killed', async () => process.kill(pidOf('relay'), 'SIGKILL')],
  [
    0.6,
    'the recording is paused for twenty seconds',
    async (page) => {
      await page.getByRole('button', { name: 'Pause the recording' }).click();
      await pause(20_000);
      await page.getByRole('button', { name: 'Go on recording' }).click();
    },
  ],
  [0.7, 'the database is killed', async () => process.kill(pidOf('database'), 'SIGKILL')],
  [
    0.85,
    'the relay and the app are killed',
    async () => {
      process.kill(pidOf('relay'), 'SIGKILL');
      process.kill(pidOf('app'), 'SIGKILL');
    },
  ],
];

/** When a sound begins after silence, ms of a file; and when a picture brightens. */
async function tonesIn(file: string): Promise<number[]> {
  const { stderr } = await ffmpeg('-i', file, '-af', 'silencedetect=noise=-30dB:d=1');
  return [...stderr.matchAll(/silence_end: ([\d.]+)/g)].map((m) => Number(m[1]) * 1000);
}
async function flashesIn(file: string): Promise<number[]> {
  const { stderr } = await ffmpeg('-i', file, '-vf', 'blackdetect=d=1:pix_th=0.3');
  return [...stderr.matchAll(/black_end:([\d.]+)/g)].map((m) => Number(m[1]) * 1000);
}

/** Where in a recording are the claps that the page itself made apart, ms. */
async function madeApart(recording: string, moments: readonly number[]): Promise<number[]> {
  const parts = await askStore<Part>(
    'SELECT started_at AS `from`, ended_at AS until FROM recording_parts WHERE recording_id = ? ORDER BY started_at',
    [recording],
  );
  const spans = parts.map(({ from, until }) => ({ from: Number(from), until: Number(until) }));
  // The product's time is another than the machine's here.
  const { now } = await (await (await account(MAREN)).get('/api/health')).json();
  const ahead = now - Date.now();
  return moments.map((at) => positionOf(spans, at + ahead));
}

/** Of each flash of a recording when it is, and how far from its sound, ms; but of those that were made apart. */
async function clapsOf(
  recording: string,
  detail: RecordingDetail,
  unfair: readonly number[],
): Promise<{ at: number; apart: number }[]> {
  const ready = (file: string) => path.join(DATA, 'recordings', 'ready', file);
  const [sound] = await askStore<{ file: string }>('SELECT file FROM recordings WHERE id = ?', [recording]);
  const tones = await tonesIn(ready(sound!.file));
  const claps: { at: number; apart: number }[] = [];
  const pictures = await askStore<{ file: string; at: number; length: number }>(
    'SELECT file, at_ms AS `at`, length_ms AS length FROM recording_pictures WHERE recording_id = ?',
    [recording],
  );
  for (const { file, at, length } of pictures)
    for (const flash of await flashesIn(ready(file))) {
      // Where a picture ends its darkness does.
      if (flash > Number(length) - 100) continue;
      const moment = Number(at) + flash;
      if (unfair.some((at) => Math.abs(at - moment) < UNFAIR_MS)) continue;
      const apart = Math.min(...tones.map((t) => Math.abs(t - moment)));
      if (apart >= FAR_MS) continue;
      if (apart > 80)
        process.stdout.write(`  at ${(moment / 1000).toFixed(1)} s: ${apart.toFixed(0)} ms apart\n`);
      claps.push({ at: moment / detail.lengthMs, apart });
    }
  return claps;
}

async function recorded(page: Page): Promise<{ recording: string; detail: RecordingDetail }> {
  const course = await makeCourse({ students: 2, record: true });
  await ringIn(page, course, ['Microphone', 'Camera']);
  const began = Date.now();
  for (const [share, what, happen] of HAPPENS) {
    await pause(began + share * MINUTES * 60_000 - Date.now());
    process.stdout.write(`  ${((Date.now() - began) / 60_000).toFixed(1)} min: ${what}\n`);
    await happen(page);
    await pause(3000);
    await onAgain(page);
  }
  await pause(began + MINUTES * 60_000 - Date.now());
  await dismiss(page);
  const api = await account(MAREN);
  for (;;) {
    const [row] = await askStore<{ id: string; finished: number | null }>(
      'SELECT id, finished_at AS finished FROM recordings WHERE session_id = ?',
      [course.session],
    );
    if (row?.finished) {
      const detail = await (await api.get(`/api/recordings/${row.id}`)).json();
      return { recording: row.id, detail };
    }
    await pause(1000);
  }
}

/**
 * A class as long as a class is, through the real relay, with a page that is opened again, kills and a pause: how far its
 * sound is from its picture at any of its claps.
 */
export async function clapper(): Promise<Figure[]> {
  const browser = await chromium.launch(config.use!.launchOptions!);
  try {
    const context = await browser.newContext({ baseURL: BASE_URL, locale: 'en-GB' });
    await context.addInitScript(clapping, { every: CLAP_MS, sounds: SOUNDS_MS });
    const apartAt: number[] = [];
    const page = await context.newPage();
    await page.exposeFunction('clapped', (at: number, behind: number) => {
      if (behind > BEHIND_MS) apartAt.push(at);
    });
    const { recording, detail } = await recorded(page);
    const claps = await clapsOf(recording, detail, await madeApart(recording, apartAt));
    const there = Math.floor(detail.lengthMs / CLAP_MS) - apartAt.length;
    process.stdout.write(`  made apart by the page itself, and left out: ${apartAt.length}\n`);
    const figure = (what: string, apart: number[]): Figure => ({
      what: `sound from picture ${what}, worst of ${apart.length} claps (median ${(percentile(apart, 0.5) ?? NaN).toFixed(0)} ms)`,
      ours: `${Math.max(...apart).toFixed(0)} ms`,
      peer: 'wanted',
      theirs: '80 ms',
      ratio: `${(Math.max(...apart) / 80).toFixed(2)} to 1`,
      wanted: 'at most 1 to 1',
    });
    const within = (from: number, until: number) =>
      claps.filter((c) => c.at >= from && c.at < until).map((c) => c.apart);
    return [
      {
        what: `a class of ${MINUTES} minutes, ${HAPPENS.length} times disturbed: recorded`,
        ours: `${(detail.lengthMs / 60_000).toFixed(1)} min`,
        peer: 'held',
        theirs: `${MINUTES} min`,
        ratio: (detail.lengthMs / 60_000 / MINUTES).toFixed(3),
        wanted: 'about 1',
      },
      {
        what: 'its claps that are both heard and seen',
        ours: String(claps.length),
        peer: 'in its length',
        theirs: String(there),
        ratio: (claps.length / there).toFixed(3),
        wanted: 'about 1',
      },
      figure('at its beginning', within(0, 0.15)),
      figure('in its middle', within(0.15, 0.85)),
      figure('at its end', within(0.85, 2)),
    ];
  } finally {
    await browser.close();
  }
}
