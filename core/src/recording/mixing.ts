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
const BLANK = 'color=c=0x12352C:s=640x480:r=20';
const ENCODE = [
  '-pix_fmt',
  'yuv420p',
  '-c:v',
  'libvpx',
  '-deadline',
  'realtime',
  '-cpu-used',
  '8',
  '-b:v',
  '900k',
  '-threads',
  '2',
];

/**
 * ffmpeg's arguments for one part: all sounds mixed to one Opus track; the picture copied as it is where one camera is
 * all there is, otherwise drawn over one another with the presented screen on top. `picture`: whether the recording
 * has a picture at all, so that its parts can be joined without encoding them again.
 */
export function mixArguments(part: MixPart, picture: boolean, output: string): string[] {
  const sounds = part.tracks.filter((t) => t.kind === 'sound');
  const pictures = part.tracks.filter((t) => t.kind !== 'sound').sort((a, b) => rank(a) - rank(b));
  const copy = pictures.length === 1;
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
  if (picture && copy) {
    const track = pictures[0]!;
    const input = add('-itsoffset', seconds(track.offset), '-i', track.file);
    video.push('-map', `${input}:v`, '-c:v', 'copy');
  } else if (picture) {
    let canvas = `[${add('-f', 'lavfi', '-i', BLANK)}:v]`;
    for (const track of pictures) {
      const input = add('-itsoffset', seconds(track.offset), '-i', track.file);
      filters.push(
        `[${input}:v]scale=640:480:force_original_aspect_ratio=decrease,pad=640:480:-1:-1[v${input}]`,
      );
      filters.push(`${canvas}[v${input}]overlay=eof_action=pass[c${input}]`);
      canvas = `[c${input}]`;
    }
    video.push('-map', pictures.length ? canvas : canvas.slice(1, -1), ...ENCODE);
  }
  return [
    ...['-y', '-v', 'error', '-nostdin', ...inputs, '-filter_complex', filters.join(';')],
    ...['-map', '[sound]', ...SOUND, ...video, '-t', seconds(part.length), output],
  ];
}

const rank = (track: MixTrack) => (track.kind === 'screen' ? 1 : 0);
