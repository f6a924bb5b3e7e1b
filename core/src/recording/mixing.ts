/** One voice as it was cut from what the relay wrote: a file, and when it begins, ms after its piece does. */
export interface Voice {
  file: string;
  /** Before the piece where it is below nothing: so much of it is left out. */
  offset: number;
}

/** A picture of a recording: it is shown for as long as it lasts, in ms of the recording. */
export interface Picture {
  kind: 'camera' | 'screen';
  at: number;
  length: number;
}

/** Two screens that overlap for less follow one another, ms: one was taken over. */
export const TOGETHER_MS = 2000;

/** Whether two screens were presented side by side. */
export const together = (one: Picture, other: Picture): boolean =>
  one.kind === 'screen' &&
  other.kind === 'screen' &&
  Math.min(one.at + one.length, other.at + other.length) - Math.max(one.at, other.at) >= TOGETHER_MS;

/** How loud a recording is made: what broadcasts of speech over the web are at (EBU R 128 s2). */
const LOUDNESS = 'I=-18:TP=-1.5:LRA=11';
const OPUS = ['-c:a', 'libopus', '-b:a', '48k', '-ac', '1', '-ar', '48000'];
/** In long frames: a third of the packets, so that the pieces of a long class are joined in a moment. */
const QUICK = [...OPUS, '-frame_duration', '60'];
/** What is quieter than this for so long is a silence. */
export const SILENCE = { db: -42, seconds: 1.5 };

export const seconds = (ms: number) => (ms / 1000).toFixed(3);
/** How every call of ffmpeg begins. */
export const begins = ['-y', '-v', 'error', '-nostdin'];

/**
 * ffmpeg's arguments for one piece (length in ms): all voices at their times, mixed to one. `whole` keeps every sample
 * (FLAC), `quick` can be heard at once (Opus in WebM).
 */
export function mixArguments(
  length: number,
  voices: readonly Voice[],
  { whole, quick }: { whole: string; quick: string },
): string[] {
  const placed = voices.map(({ offset }, i) => {
    const late =
      offset >= 0
        ? `adelay=${Math.round(offset)}:all=1`
        : `atrim=start=${seconds(-offset)},asetpts=PTS-STARTPTS`;
    return `[${i}:a]aresample=48000:async=1:first_pts=0,${late}[v${i}]`;
  });
  const quiet = voices.length;
  const all = voices.map((_, i) => `[v${i}]`).join('');
  const mixed = `[${quiet}:a]${all}amix=inputs=${quiet + 1}:duration=first:normalize=0,asplit[whole][quick]`;
  const time = ['-t', seconds(length)];
  return [
    ...begins,
    ...voices.flatMap(({ file }) => ['-i', file]),
    ...['-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=mono'],
    ...['-filter_complex', [...placed, mixed].join(';')],
    ...['-map', '[whole]', '-c:a', 'flac', '-sample_fmt', 's16', '-ac', '1', ...time, whole],
    ...['-map', '[quick]', ...QUICK, ...time, quick],
  ];
}

/** Files that follow one another, each for so long, as ffmpeg's concat demuxer reads them. */
export const followed = (files: readonly { file: string; length: number }[]): string =>
  `ffconcat version 1.0\n${files.map((f) => `file '${f.file}'\nduration ${seconds(f.length)}\n`).join('')}`;

/** ffmpeg's arguments that join what a list names, as it is. */
export const joinArguments = (list: string, output: string): string[] => [
  ...begins,
  ...['-f', 'concat', '-safe', '0', '-i', list, '-map', '0', '-c', 'copy', output],
];

/** ffmpeg's arguments that measure how loud a list of pieces is, and where they are silent; both are said on stderr. */
export const measureArguments = (list: string): string[] => [
  ...['-hide_banner', '-nostats', '-nostdin', '-f', 'concat', '-safe', '0', '-i', list],
  ...['-af', `silencedetect=noise=${SILENCE.db}dB:d=${SILENCE.seconds},ebur128=peak=true:framelog=verbose`],
  ...['-f', 'null', '-'],
];

/** ms of a recording */
export interface Stretch {
  from: number;
  until: number;
}

export interface Measured {
  /** Integrated loudness, LUFS; its threshold, the range (LU) and the true peak (dBTP). */
  loudness: { integrated: number; threshold: number; range: number; peak: number } | null;
  /** Where nothing is heard, ms. */
  silences: Stretch[];
}

/** What ffmpeg measured. A recording in which nobody spoke has no loudness. */
export function measuredIn(said: string, lengthMs: number): Measured {
  const summary = said.slice(said.lastIndexOf('Summary:'));
  const number = (pattern: RegExp) => Number(pattern.exec(summary)?.[1] ?? NaN);
  const integrated = number(/I:\s+(-?[\d.]+) LUFS/);
  const silences: Measured['silences'] = [];
  for (const [, what, at] of said.matchAll(/silence_(start|end): (-?[\d.]+)/g)) {
    const ms = Math.max(0, Math.min(lengthMs, Math.round(Number(at) * 1000)));
    if (what === 'start') silences.push({ from: ms, until: lengthMs });
    else if (silences.length) silences.at(-1)!.until = ms;
  }
  const loudness = {
    integrated,
    threshold: number(/Threshold:\s+(-?[\d.]+) LUFS/),
    range: number(/LRA:\s+(-?[\d.]+) LU/),
    peak: number(/Peak:\s+(-?[\d.]+) dBFS/),
  };
  const heard = Object.values(loudness).every(Number.isFinite) && integrated > -60;
  return { loudness: heard ? loudness : null, silences };
}

/** ffmpeg's arguments that make the sound to be kept of the pieces, levelled by what was measured of them. */
export function levelArguments(list: string, { loudness }: Measured, output: string): string[] {
  const level = loudness && [
    `loudnorm=${LOUDNESS}:measured_I=${loudness.integrated}:measured_TP=${loudness.peak}`,
    `measured_LRA=${loudness.range}:measured_thresh=${loudness.threshold}:linear=true`,
  ];
  return [
    ...[...begins, '-f', 'concat', '-safe', '0', '-i', list],
    ...(level ? ['-af', `${level.join(':')},aresample=48000`] : []),
    ...[...OPUS, output],
  ];
}

/** Pieces of a picture that follow one another without a break are one picture; `at` and `length` in ms. */
export interface PictureSlice extends Picture {
  member: string;
  /** The relay's file that it was cut from. */
  track: string;
  file: string;
  goesOn: boolean;
}

/** The pictures that slices, in their order, make: each with the files it is joined of, and how long each is shown. */
export function picturesOf(
  slices: readonly PictureSlice[],
): (Picture & { member: string; files: { file: string; length: number }[] })[] {
  const last = new Map<string, ReturnType<typeof picturesOf>[number]>();
  const pictures: ReturnType<typeof picturesOf> = [];
  for (const { kind, at, length, member, track, file, goesOn } of slices) {
    const before = goesOn ? last.get(track) : undefined;
    if (before) {
      before.files.at(-1)!.length =
        at - before.at - before.files.slice(0, -1).reduce((sum, f) => sum + f.length, 0);
      before.files.push({ file, length });
      before.length = at + length - before.at;
    } else {
      const picture = { kind, at, length, member, files: [{ file, length }] };
      last.set(track, picture);
      pictures.push(picture);
    }
  }
  return pictures;
}

type Joined = ReturnType<typeof picturesOf>[number];

/** A picture in parts that follow one another, each of at most so many files. */
export const inParts = (picture: Joined, most: number): Joined[] => {
  const parts: Joined[] = [];
  let { at } = picture;
  for (let i = 0; i < picture.files.length; i += most) {
    const files = picture.files.slice(i, i + most);
    const length = files.reduce((sum, f) => sum + f.length, 0);
    parts.push({ ...picture, at, length, files });
    at += length;
  }
  return parts;
};

/** Of the cameras only a teacher's is kept, or an assistant's where no teacher has one. */
export function keptPictures<T extends { kind: Picture['kind']; role: string }>(found: readonly T[]): T[] {
  const cameras = found.filter((p) => p.kind === 'camera');
  const kept = cameras.some((c) => c.role === 'teacher') ? 'teacher' : 'assistant';
  return found.filter((p) => p.kind === 'screen' || p.role === kept);
}
