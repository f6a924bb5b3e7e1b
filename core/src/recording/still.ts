import type { Picture } from './mixing';

/** Into a picture before it stands for its recording where nobody chose: a screen has something on it, a camera somebody. */
const IN_MS = { screen: 3000, camera: 10_000 };

/** The picture that stands for a recording: of the moment chosen (ms), or of its first screen, or of its first camera. */
export function stillOf<P extends Picture>(
  pictures: readonly P[],
  chosen: number | null,
): { picture: P; into: number } | null {
  for (const kind of ['screen', 'camera'] as const) {
    const picture = pictures.findLast(
      (p) => chosen !== null && p.kind === kind && p.at <= chosen && chosen < p.at + p.length,
    );
    if (picture) return { picture, into: chosen! - picture.at };
  }
  const first = pictures.find((p) => p.kind === 'screen') ?? pictures[0];
  return first ? { picture: first, into: Math.min(IN_MS[first.kind], Math.round(first.length / 2)) } : null;
}

/** ffmpeg's arguments for one frame of a picture, so wide as a list shows it on a sharp screen. */
export const stillArguments = (file: string, into: number, output: string): string[] => [
  ...['-y', '-v', 'error', '-nostdin', '-ss', (into / 1000).toFixed(3), '-i', file],
  ...['-frames:v', '1', '-vf', 'scale=384:-2', '-q:v', '5', output],
];
