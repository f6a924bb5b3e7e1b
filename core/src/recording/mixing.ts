/** One track as the relay wrote it: a file, and when its first packet came, ms after its part began. */
export interface MixTrack {
  file: string;
  kind: 'sound' | 'camera' | 'screen';
  offset: number;
}

export interface MixPart {
  /** ms */
  length: number;
  tracks: readonly MixTrack[];
}

const seconds = (ms: number) => (ms / 1000).toFixed(3);
const SOUND = ['-c:a', 'libopus', '-b:a', '48k', '-ac', '1', '-ar', '48000'];
const CANVAS = { width: 1280, height: 720, rate: 15 };
const BLANK = `color=c=0x12352C:s=${CANVAS.width}x${CANVAS.height}:r=${CANVAS.rate}`;
const ENCODE = [
  ...['-pix_fmt', 'yuv420p', '-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8'],
  ...['-b:v', '900k', '-threads', '2'],
];

/**
 * The pictures of a part that can be taken over as they are: cameras, one after another, each from its first packet
 * (a key frame) until the next begins. Null where there is none, or where a screen was presented and the picture has
 * to be drawn. Written as the list that ffmpeg's concat demuxer reads.
 */
export function copiedPicture(part: MixPart): { offset: number; list: string } | null {
  const pictures = part.tracks.filter((t) => t.kind !== 'sound').sort((a, b) => a.offset - b.offset);
  if (pictures.length === 0 || pictures.some((t) => t.kind === 'screen')) return null;
  const entries = pictures.map((track, i) => {
    const until = pictures[i + 1]?.offset ?? part.length;
    const shown = seconds(until - track.offset);
    return `file '${track.file}'\noutpoint ${shown}\nduration ${shown}\n`;
  });
  return { offset: pictures[0]!.offset, list: `ffconcat version 1.0\n${entries.join('')}` };
}

/** What the picture of a part is made of: a list to copy, everything drawn on a canvas, or none. */
export type Picture = { how: 'copy'; listFile: string; offset: number } | { how: 'draw' } | { how: 'none' };

/** ffmpeg's arguments for one part: all sounds mixed to one Opus track, and the picture. */
export function mixArguments(part: MixPart, picture: Picture, output: string): string[] {
  const sounds = part.tracks.filter((t) => t.kind === 'sound');
  const inputs: string[] = [];
  const filters: string[] = [];
  let index = 0;
  const add = (...options: string[]) => {
    inputs.push(...options);
    return index++;
  };

  const voices = sounds.map((track) => {
    const input = add('-i', track.file);
    filters.push(
      `[${input}:a]aresample=async=1:first_pts=0,adelay=${Math.round(track.offset)}:all=1[s${input}]`,
    );
    return `[s${input}]`;
  });
  const quiet = add('-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=mono');
  filters.push(
    `[${quiet}:a]${voices.join('')}amix=inputs=${voices.length + 1}:duration=first:normalize=0[sound]`,
  );

  const video: string[] = [];
  if (picture.how === 'copy') {
    const input = add(
      '-itsoffset',
      seconds(picture.offset),
      '-f',
      'concat',
      '-safe',
      '0',
      '-i',
      picture.listFile,
    );
    video.push('-map', `${input}:v`, '-c:v', 'copy');
  } else if (picture.how === 'draw') {
    let canvas = `[${add('-f', 'lavfi', '-i', BLANK)}:v]`;
    for (const track of drawn(part)) {
      const input = add('-itsoffset', seconds(track.offset), '-i', track.file);
      const { width, height } = CANVAS;
      filters.push(
        `[${input}:v]scale=${width}:${height}:force_original_aspect_ratio=decrease,pad=${width}:${height}:-1:-1[v${input}]`,
        `${canvas}[v${input}]overlay=eof_action=pass[c${input}]`,
      );
      canvas = `[c${input}]`;
    }
    video.push('-map', canvas.startsWith('[c') ? canvas : canvas.slice(1, -1), ...ENCODE);
  }
  return [
    ...['-y', '-v', 'error', '-nostdin', ...inputs, '-filter_complex', filters.join(';')],
    ...['-map', '[sound]', ...SOUND, ...video, '-t', seconds(part.length), output],
  ];
}

/** In the order of drawing: cameras first, screens on top, each kind as it came. */
const drawn = (part: MixPart) =>
  part.tracks
    .filter((t) => t.kind !== 'sound')
    .sort((a, b) => Number(a.kind === 'screen') - Number(b.kind === 'screen') || a.offset - b.offset);
