import type { Picture, Stretch } from '../mixing';
import { lengthTold, shownAt } from './times';
import { stretchesBy, toldBy, type Mark } from './marks';

const seconds = (ms: number) => (ms / 1000).toFixed(3);
const begins = ['-y', '-v', 'error', '-nostdin'];
/** Sound comes and goes so softly where it was cut that nothing clicks, s. */
const SOFT_S = 0.012;

/**
 * ffmpeg's arguments for the sound of what is told: each stretch read from its own place, what is silent as long as it was.
 * It is encoded as what was recorded is.
 */
export function cutSoundArguments(
  sound: string,
  marks: readonly Mark[],
  lengthMs: number,
  output: string,
): string[] {
  const all = stretchesBy(marks, lengthMs).filter(({ fate }) => fate !== 'out');
  const inputs = all.flatMap(({ from, until, fate }) => {
    const length = ['-t', seconds(until - from)];
    return fate === 'silent'
      ? ['-f', 'lavfi', ...length, '-i', 'anullsrc=r=48000:cl=mono']
      : ['-ss', seconds(from), ...length, '-i', sound];
  });
  const soft = all.map(({ from, until }, i) => {
    const length = (until - from) / 1000;
    const end = `apad=whole_dur=${length.toFixed(3)},atrim=end=${length.toFixed(3)}`;
    const fades = `afade=t=in:d=${SOFT_S},afade=t=out:st=${(length - SOFT_S).toFixed(3)}:d=${SOFT_S}`;
    return `[${i}:a]aresample=48000,asetpts=PTS-STARTPTS,${end},${fades}[s${i}]`;
  });
  const joins = `${all.map((_, i) => `[s${i}]`).join('')}concat=n=${all.length}:v=0:a=1[all]`;
  return [
    ...begins,
    ...inputs,
    ...['-filter_complex', [...soft, joins].join(';'), '-map', '[all]'],
    ...['-c:a', 'libopus', '-b:a', '48k', '-ac', '1', '-ar', '48000', output],
  ];
}

/** What of a picture is told, in ms of its file: and where that is in what is told. */
export interface CutOut extends Picture {
  /** Of the pictures that there are, by number. */
  of: number;
  from: number;
  until: number;
}

/** Every stretch of every picture that is told. */
export function cutPictures(
  pictures: readonly Picture[],
  marks: readonly Mark[],
  lengthMs: number,
): CutOut[] {
  const told = toldBy(marks, lengthMs);
  const seen = toldBy(marks, lengthMs, 'unseen');
  return pictures.flatMap((p, of) =>
    // Apart where something between was left out, though it is told without a break.
    seen.flatMap((s: Stretch) => {
      const [from, until] = [Math.max(p.at, s.from), Math.min(p.at + p.length, s.until)];
      if (until <= from) return [];
      const at = Math.round(shownAt(told, from));
      return [{ kind: p.kind, of, at, length: until - from, from: from - p.at, until: until - p.at }];
    }),
  );
}

/** As what a picture's beginning is encoded anew, by what it came as. */
const ENCODERS: Record<string, readonly string[]> = {
  vp8: ['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '6', '-crf', '10', '-b:v', '2500k'],
  vp9: ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '7', '-crf', '24', '-b:v', '0'],
  h264: ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-bf', '0'],
};

/** ffmpeg's arguments for the beginning of a stretch, up to the key frame from which it can be copied; ms of the file. */
export function headArguments(
  { file, codec }: { file: string; codec: string },
  from: number,
  until: number,
  output: string,
): string[] {
  const encoder = ENCODERS[codec] ?? ENCODERS.vp8!;
  return [
    ...begins,
    ...['-ss', seconds(from), '-t', seconds(until - from), '-i', file, '-an', ...encoder],
    ...['-threads', '2', '-fps_mode', 'passthrough', output],
  ];
}

/** ffmpeg's arguments that copy a stretch that begins at a key frame (or the beginning), as it came; ms of the file. */
export const copyArguments = (file: string, from: number, until: number, output: string): string[] => [
  ...begins,
  // A hair after its key frame, so that rounding does not go to the one before.
  ...(from > 0 ? ['-ss', seconds(from + 1)] : []),
  ...[
    '-i',
    file,
    '-t',
    seconds(until - from),
    '-an',
    '-c',
    'copy',
    '-avoid_negative_ts',
    'make_zero',
    output,
  ],
];

/** The key frames of a picture, ms, of what ffprobe says of its packets (`pts_time,flags`). */
export const keyFrames = (said: string): number[] =>
  said.split('\n').flatMap((line) => {
    const [at, flags] = line.split(',');
    return flags?.includes('K') && Number.isFinite(Number(at)) ? [Number(at) * 1000] : [];
  });

/** Whether there is anything left to tell. */
export const leavesSomething = (marks: readonly Mark[], lengthMs: number): boolean =>
  lengthTold(toldBy(marks, lengthMs)) >= 1000;
