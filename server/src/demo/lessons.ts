import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cp, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { writeVtt, type Cue } from '@nimble-bell/core/captions';
import type { Picture, Stretch } from '@nimble-bell/core/recording';
import { MadeOnce } from '../files/madeOnce';
import { runProgram } from '../recordings/files';
import type { Lesson, Slide } from './lessonScripts';

const RATE = 22_050;
const SENTENCE_MS = 500;
const SLIDE_MS = 4000;
const WIDTH = 960;
const HEIGHT = 540;
/** What is said of a lesson that is kept. */
const TOLD = 'made.json';

/** A lesson as it was made: its files in its folder, and when each slide came; times in ms. */
export interface MadeLesson {
  lengthMs: number;
  slides: { slide: Slide; at: number }[];
  silences: Stretch[];
  captions: string;
  sound: string;
  pictures: (Picture & { file: string })[];
}

/** A spoken sentence, as samples of 16 bits. */
async function speak(text: string, voice: string, file: string): Promise<Buffer> {
  await promisify(execFile)('espeak-ng', ['-v', voice, '-s', '125', '-w', file, '--', text]);
  const samples = (await readFile(file)).subarray(44);
  await rm(file);
  return samples;
}

const msOf = (samples: Buffer) => (samples.length / 2 / RATE) * 1000;
const quiet = (ms: number) => Buffer.alloc(Math.round((ms / 1000) * RATE) * 2);

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** A slide as it was drawn for the class. */
function drawn({ title, lines, curve }: Slide): string {
  const points = Array.from({ length: 81 }, (_, i) => {
    const y = curve ? curve(i / 80) : 0;
    return `${560 + i * 4.4},${(470 - y * 220).toFixed(1)}`;
  }).join(' ');
  const chart = curve
    ? `<path d="M560 240V470H915" fill="none" stroke="#5C6B66" stroke-width="2"/>
       <polyline points="${points}" fill="none" stroke="#2F6F8F" stroke-width="6"/>`
    : '<path d="M560 470q60-60 120 0t120 0t120 0" fill="none" stroke="#2F6F8F" stroke-width="6"/>';
  const text = lines.map(
    (line, i) =>
      `<text x="60" y="${190 + i * 62}" font-size="${curve ? 26 : 34}" fill="#22302B">${escaped(line)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" font-family="DejaVu Sans">
    <rect width="100%" height="100%" fill="#FBF7EE"/><rect width="14" height="100%" fill="#1E5244"/>
    <text x="60" y="100" font-size="46" font-weight="bold" fill="#1E5244">${escaped(title)}</text>
    ${text.join('')}${chart}</svg>`;
}

const VP8 = ['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '16'];
const begins = ['-y', '-v', 'error', '-nostdin'];

/** As loud as a lesson speaks, and what is silence in it; dB below full. */
const LOUD_DB = -16.5;
const QUIET_DB = -40;

/** By how much a made voice is raised, dB: it is as loud from beginning to end, so its mean is enough to know. */
function gainOf(samples: Buffer): number {
  const quiet = 32_768 * 10 ** (QUIET_DB / 20);
  let [sum, count] = [0, 0];
  for (let i = 0; i + 1 < samples.length; i += 2) {
    const value = samples.readInt16LE(i);
    if (Math.abs(value) < quiet) continue;
    sum += value * value;
    count++;
  }
  return count ? LOUD_DB - 20 * Math.log10(Math.sqrt(sum / count) / 32_768) : 0;
}

/** Makes a lesson in a folder of its own: spoken, its slides drawn, each with when it was said and shown. */
export async function makeLesson({ voice, sea, slides }: Lesson, folder: string): Promise<MadeLesson> {
  await mkdir(folder, { recursive: true });
  const to = (name: string) => path.join(folder, name);
  const sounds: Buffer[] = [];
  const cues: Cue[] = [];
  const came: MadeLesson['slides'] = [];
  const silences: Stretch[] = [];
  let at = 0;
  const add = (samples: Buffer) => {
    sounds.push(samples);
    at += msOf(samples);
  };
  for (const slide of slides) {
    came.push({ slide, at });
    add(quiet(700));
    for (const text of slide.says) {
      const from = at;
      add(await speak(text, voice, to('spoken.wav')));
      cues.push({ from: Math.round(from), until: Math.round(at), text });
      add(quiet(SENTENCE_MS));
    }
    silences.push({ from: Math.round(at), until: Math.round(at + SLIDE_MS) });
    add(quiet(SLIDE_MS));
  }
  await writeFile(to('spoken.pcm'), Buffer.concat(sounds));
  const raw = ['-f', 's16le', '-ar', String(RATE), '-ac', '1', '-i', to('spoken.pcm')];
  const level = `volume=${gainOf(Buffer.concat(sounds)).toFixed(1)}dB,alimiter=limit=0.84:level=false,aresample=48000`;
  const opus = ['-af', level, '-c:a', 'libopus', '-b:a', '32k', '-compression_level', '2'];
  await runProgram('ffmpeg', [...begins, ...raw, ...opus, to('sound.webm')]);
  await drawScreen(came, at, to);
  await drawCamera(sea, at, to);
  await rm(to('spoken.pcm'));
  const length = Math.round(at);
  return {
    ...{ lengthMs: length, slides: came, silences, captions: writeVtt(cues), sound: 'sound.webm' },
    pictures: [
      { kind: 'camera', at: 0, length, file: 'camera.webm' },
      { kind: 'screen', at: 0, length, file: 'screen.webm' },
    ],
  };
}

async function drawScreen(came: MadeLesson['slides'], until: number, to: (name: string) => string) {
  const list = ['ffconcat version 1.0'];
  for (const [i, { slide, at }] of came.entries()) {
    await writeFile(to(`${i}.svg`), drawn(slide));
    await runProgram('ffmpeg', [...begins, '-i', to(`${i}.svg`), to(`${i}.png`)]);
    list.push(`file '${i}.png'`, `duration ${(((came[i + 1]?.at ?? until) - at) / 1000).toFixed(3)}`);
  }
  // The last is named again: a list ends with its last frame.
  await writeFile(to('slides.txt'), `${list.join('\n')}\nfile '${came.length - 1}.png'\n`);
  const source = ['-f', 'concat', '-safe', '0', '-i', to('slides.txt')];
  // Two pictures a second, the last held until the end.
  const held = 'format=yuv420p,fps=2,tpad=stop_mode=clone:stop_duration=30';
  const still = ['-vf', held, ...VP8, '-g', '10', '-b:v', '180k'];
  const time = ['-t', (until / 1000).toFixed(3)];
  await runProgram('ffmpeg', [...begins, ...source, ...still, ...time, to('screen.webm')]);
  for (const i of came.keys()) for (const kind of ['svg', 'png']) await rm(to(`${i}.${kind}`));
  await rm(to('slides.txt'));
}

/** What the camera saw: the sea in the lesson's light, ten seconds of it again and again. */
async function drawCamera([dark, light]: Lesson['sea'], until: number, to: (name: string) => string) {
  const sea = [
    '-f',
    'lavfi',
    '-i',
    `gradients=s=320x180:r=8:c0=${dark}:c1=${light}:speed=0.008,format=yuv420p`,
  ];
  await runProgram('ffmpeg', [
    ...begins,
    ...sea,
    ...VP8,
    '-g',
    '40',
    '-b:v',
    '90k',
    '-t',
    '10',
    to('ten.webm'),
  ]);
  const again = ['-stream_loop', '-1', '-i', to('ten.webm'), '-c', 'copy', '-t', (until / 1000).toFixed(3)];
  await runProgram('ffmpeg', [...begins, ...again, to('camera.webm')]);
  await rm(to('ten.webm'));
}

/** How a lesson is made: another way, or another lesson, is another film. */
const nameOf = (lesson: Lesson): string => {
  const way = [makeLesson, speak, gainOf, drawn, drawScreen, drawCamera].map(String);
  const sizes = [RATE, SENTENCE_MS, SLIDE_MS, WIDTH, HEIGHT, LOUD_DB, QUIET_DB, ...VP8];
  const told = JSON.stringify(lesson, (_key, value: unknown) =>
    typeof value === 'function' ? String(value) : value,
  );
  return createHash('sha256')
    .update([...way, ...sizes, told].join('\n'))
    .digest('hex')
    .slice(0, 24);
};

/** A lesson in a folder of its own; the same that was made before, where there is a place in which it is kept. */
export async function lessonIn(lesson: Lesson, folder: string, kept: string | null): Promise<MadeLesson> {
  if (!kept) return makeLesson(lesson, folder);
  const home = await new MadeOnce(kept).of(`lesson-${nameOf(lesson)}`, async (begun) => {
    const made = await makeLesson(lesson, begun);
    await writeFile(path.join(begun, TOLD), JSON.stringify(made));
  });
  const made = JSON.parse(await readFile(path.join(home, TOLD), 'utf8')) as MadeLesson;
  await cp(home, folder, { recursive: true, filter: (file) => path.basename(file) !== TOLD });
  return { ...made, slides: made.slides.map(({ at }, i) => ({ slide: lesson.slides[i]!, at })) };
}
