import { execFile } from 'node:child_process';
import { appendFile, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { chromium, type Page } from '@playwright/test';
import { ivfFrames, opusFrames, relayHead, relayPackets, type Frame } from '@nimble-bell/core/testing';
import { account, makeCourse } from '../../e2e/support/course';
import config from '../../e2e/playwright.config';
import { MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL, DATA } from '../../e2e/support/product';
import { askStore } from '../../e2e/support/store';
import { ms, percentile, type Figure } from './table';

const MINUTES = 80;
const MINUTE = 60_000;
const SEEKS = 40;
const RATE = 15;

const run = promisify(execFile);
const ffmpeg = (...args: string[]) => run('ffmpeg', ['-y', '-v', 'error', '-nostdin', ...args]);
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));

interface Track {
  name: string;
  sort: 'sound' | 'picture';
  frames: Frame[];
  /** In which minutes it was sent. */
  minutes: [number, number];
}

/** A minute of two voices, a camera and a screen: what a class of any length is made of. */
async function aMinute(): Promise<{ voices: Frame[][]; camera: Frame[]; screen: Frame[] }> {
  const folder = await mkdtemp(path.join(tmpdir(), 'bench-'));
  const to = (name: string) => path.join(folder, name);
  const sound = async (name: string, tone: string) => {
    await ffmpeg('-f', 'lavfi', '-i', tone, '-t', '60', '-c:a', 'libopus', '-b:a', '32k', to(name));
    return opusFrames(await readFile(to(name)));
  };
  const picture = async (name: string, source: string, rate: string) => {
    const vp8 = ['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-g', '150', '-b:v', rate];
    await ffmpeg(
      '-f',
      'lavfi',
      '-i',
      source,
      '-t',
      '60',
      ...vp8,
      '-minrate',
      rate,
      '-maxrate',
      rate,
      to(name),
    );
    return ivfFrames(await readFile(to(name)), RATE);
  };
  try {
    return {
      voices: [
        await sound('a.ogg', 'anoisesrc=color=pink:amplitude=0.3,tremolo=f=2'),
        await sound('b.ogg', 'sine=frequency=300,tremolo=f=0.2'),
      ],
      camera: await picture('c.ivf', `testsrc2=s=640x480:r=${RATE},noise=alls=20:allf=t`, '800k'),
      screen: await picture('s.ivf', `testsrc=s=1280x720:r=${RATE}`, '500k'),
    };
  } finally {
    await rm(folder, { recursive: true });
  }
}

/** The relay's files of a class, written as it would have. */
async function writeRaw({ name, sort, frames, minutes: [first, end] }: Track, began: number) {
  const file = path.join(DATA, 'recordings', 'raw', name);
  const came = { began: began + first * MINUTE };
  await writeFile(file, relayHead(sort, came));
  let number = 0;
  for (let minute = first; minute < end; minute++) {
    const moved = frames.map((f) => ({ sent: f.sent + minute * MINUTE, bytes: f.bytes }));
    const made = relayPackets(sort, moved, came, { since: first * MINUTE, number });
    number = made.number;
    await appendFile(file, made.bytes);
  }
}

const untilStore = async (sql: string, values: unknown[]) => {
  for (;;) {
    const [row] = await askStore<{ done: number }>(sql, values);
    if (row && Number(row.done)) return performance.now();
    await pause(20);
  }
};

/** So long as it takes to copy what is watched, as it is. */
async function copied(recording: string): Promise<number> {
  const files = await askStore<{ file: string }>(
    'SELECT file FROM recording_pictures WHERE recording_id = ? UNION SELECT file FROM recordings WHERE id = ?',
    [recording, recording],
  );
  const began = performance.now();
  for (const { file } of files) {
    const out = path.join(tmpdir(), `bench-copy-${path.basename(file)}`);
    await ffmpeg('-i', path.join(DATA, 'recordings', 'ready', file), '-c', 'copy', out);
    await rm(out);
  }
  return performance.now() - began;
}

/** From a moment that is asked for until its picture is there; of a page's large picture. */
const sought = (page: Page, leader: 'audio' | 'video', to: number): Promise<number> =>
  page.evaluate(
    async ([element, second]) => {
      const video = document.querySelector('video')!;
      const began = performance.now();
      const there = new Promise<void>((resolve) => {
        const look = (_: number, { mediaTime }: VideoFrameCallbackMetadata) =>
          Math.abs(mediaTime - second) < 1.5 ? resolve() : void video.requestVideoFrameCallback(look);
        video.requestVideoFrameCallback(look);
      });
      document.querySelector(element)!.currentTime = second;
      await there;
      return performance.now() - began;
    },
    [leader, to] as const,
  );

async function watching(course: string, recording: string): Promise<Figure[]> {
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
    await signIn(page, MAREN);
    const began = performance.now();
    await page.goto(`/course/${course}/watch/${recording}`);
    await page.waitForFunction(() => (document.querySelector('video')?.readyState ?? 0) >= 2);
    const first = performance.now() - began;
    // In the half in which a screen is shown the large picture is the screen's: its first is at the beginning.
    const moments = Array.from({ length: SEEKS }, (_, i) => 30 + ((i * 977) % (MINUTES * 30 - 120)));
    await sought(page, 'audio', 20);
    const ours: number[] = [];
    for (const moment of moments) ours.push(await sought(page, 'audio', moment));
    const source = await page.evaluate(() => document.querySelector('video')!.src);
    await page.goto('/mailbox');
    await page.evaluate((src) => {
      const video = document.createElement('video');
      Object.assign(video, { src, muted: true });
      document.body.append(video);
      return new Promise((resolve) => video.addEventListener('loadeddata', resolve));
    }, source);
    const bare: number[] = [];
    for (const moment of moments) bare.push(await sought(page, 'video', moment));
    const figure = (p: number): Figure => ({
      what: `to any moment of it, until its picture is there, p${100 * p}`,
      ours: ms(percentile(ours, p)),
      peer: 'a bare video element, the same file',
      theirs: ms(percentile(bare, p)),
      ratio: `${(percentile(ours, p) / percentile(bare, p)).toFixed(1)} to 1`,
      wanted: '',
    });
    return [
      {
        what: 'its watch page opened, until its first picture is there',
        ours: ms(first),
        peer: 'the limit',
        theirs: '2 s',
        ratio: `${(first / 2000).toFixed(2)} to 1`,
        wanted: '',
      },
      figure(0.5),
      figure(0.99),
    ];
  } finally {
    await browser.close();
  }
}

/** A class of 80 minutes, two who speak, a camera, a screen for half of it: prepared while it is on, then dismissed. */
export async function recording(): Promise<Figure[]> {
  const course = await makeCourse({ record: true });
  const api = await account(MAREN);
  const { now } = await (await api.get('/api/me')).json();
  const ahead = now - Date.now();
  const [teacher] = await askStore<{ id: string }>(
    "SELECT id FROM enrolments WHERE course_id = ? AND role = 'teacher'",
    [course.id],
  );
  const minute = await aMinute();
  const from = now - MINUTES * MINUTE - 10_000;
  const began = from - ahead;
  const [id, part] = ['benchrecord1', 'benchpart001'];
  const mine = `${part}-teacher`;
  const tracks: Track[] = [
    { name: `${mine}-audio-0.mjr`, sort: 'sound', frames: minute.voices[0]!, minutes: [0, MINUTES] },
    { name: `${mine}-video-1.mjr`, sort: 'picture', frames: minute.camera, minutes: [0, MINUTES] },
    { name: `${mine}-video-2.mjr`, sort: 'picture', frames: minute.screen, minutes: [0, MINUTES / 2] },
    { name: `${part}-student-audio-0.mjr`, sort: 'sound', frames: minute.voices[1]!, minutes: [0, MINUTES] },
  ];
  for (const track of tracks) await writeRaw(track, began);
  await askStore('INSERT INTO recordings (id, session_id) VALUES (?, ?)', [id, course.session]);
  await askStore('INSERT INTO recording_parts (id, recording_id, started_at) VALUES (?, ?, ?)', [
    part,
    id,
    from,
  ]);
  await askStore('INSERT INTO recording_tracks (part_id, member_id, base) VALUES ?', [
    [
      [part, teacher!.id, mine],
      [part, course.students[0]!.id, `${part}-student`],
    ],
  ]);
  const queue = (kind: string, key: string, payload: object) =>
    askStore('INSERT INTO jobs (kind, job_key, payload, due_at) VALUES (?, ?, ?, 0)', [
      kind,
      `${kind}/bench/${key}`,
      JSON.stringify(payload),
    ]);
  const on = performance.now();
  await queue('piece', part, { part });
  const pieces = 'SELECT COUNT(*) >= ? AS done FROM recording_pieces WHERE part_id = ?';
  const during = (await untilStore(pieces, [MINUTES - 1, part])) - on;
  await askStore('UPDATE recording_parts SET ended_at = ? WHERE id = ?', [from + MINUTES * MINUTE, part]);
  const dismissed = performance.now();
  await queue('prepare', id, { recording: id });
  const playable =
    (await untilStore("SELECT state = 'ready' AS done FROM recordings WHERE id = ?", [id])) - dismissed;
  const plain = await copied(id);
  const finished =
    (await untilStore('SELECT finished_at IS NOT NULL AS done FROM recordings WHERE id = ?', [id])) -
    dismissed;
  const limit = (what: string, ours: number, theirs: number, wanted: string): Figure => ({
    ...{ what, ours: ms(ours), peer: 'the limit', theirs: ms(theirs), wanted },
    ratio: `${(ours / theirs).toFixed(2)} to 1`,
  });
  const whole = MINUTES * MINUTE;
  return [
    limit(
      `prepared while a class of ${MINUTES} minutes is on: all its pieces but the last, in all`,
      during,
      whole,
      'a share of one core',
    ),
    limit('from dismissal until it can be watched', playable, 5000, 'at most 5 s'),
    {
      what: 'the same, beside a plain copy of what is watched',
      ours: ms(playable),
      peer: 'ffmpeg -c copy',
      theirs: ms(plain),
      ratio: `${(playable / plain).toFixed(1)} to 1`,
      wanted: '',
    },
    limit('from dismissal until it is finished', finished, whole / 10, 'at most a tenth of it'),
    ...(await watching(course.id, id)),
  ];
}
