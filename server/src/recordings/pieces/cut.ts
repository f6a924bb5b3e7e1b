import { open, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { cutTrack, headOf, laterBy, type RelayHead, type Slice } from '@nimble-bell/core/recording';
import { TRACK_KINDS, type TrackKind } from '../../media/relay';
import { runProgram } from '../files';
import type { Reached } from './store';

const HEAD = 4096;
/** So much of a file is read at once: more than a minute of it. */
const READ = { sound: 1 << 20, picture: 12 << 20 };

/** The relay ends a file's name with the number of the track's media section. */
export const kindOf = (name: string): TrackKind | undefined =>
  TRACK_KINDS[Number(/-(\d+)\.mjr$/.exec(name)?.[1])];

async function readFrom(file: string, from: number, most: number): Promise<Buffer> {
  const handle = await open(file);
  try {
    const { size } = await handle.stat();
    const buffer = Buffer.alloc(Math.max(0, Math.min(most, size - from)));
    const { bytesRead } = await handle.read(buffer, 0, buffer.length, from);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

/** A slice of a track, unpacked to a file; its times in ms after the span's instant zero. */
export interface Unpacked {
  file: string;
  at: number;
  length: number;
  goesOn: boolean;
}

interface Span {
  /** Instant by the machine's clock from which times are counted, ms. */
  zero: number;
  /** ms after zero */
  until: number;
  over: boolean;
  before: Reached | undefined;
  /** Begins the names of what is made. */
  target: string;
  patient: boolean;
}

/** What came of one of the relay's files in a span: each stretch as Ogg or WebM. */
export async function cutFile(
  raw: string,
  span: Span,
): Promise<{ made: Unpacked[]; reached: Reached } | null> {
  const head = headOf(await readFrom(raw, 0, HEAD));
  if (!head) return null;
  const from = span.before?.bytes ?? head.length;
  const look = span.before?.look ?? from;
  // The clock by which the relay writes is the machine's.
  const shift = head.began - span.zero;
  const ended = span.before?.ended ?? null;
  const asked = { from, look, until: span.until - shift, over: span.over, ended };
  const { bytes, cut } = await cutEnough(raw, head, asked);
  const made: Unpacked[] = [];
  for (const [i, slice] of cut.slices.entries()) {
    const file = await unpack(bytes, head, slice, `${span.target}-${i}`, span.patient);
    if (file) made.push({ file, at: slice.at + shift, length: slice.length, goesOn: slice.goesOn });
  }
  const last = cut.slices.at(-1);
  const { reached: bytesDone, look: seen } = cut;
  return {
    made,
    reached: { bytes: bytesDone, look: seen, ended: last ? last.at + last.length : ended },
  };
}

/** Reads as much as there is to cut, and no more than twice that. */
async function cutEnough(raw: string, head: RelayHead, asked: Parameters<typeof cutTrack>[2]) {
  const begins = await readFrom(raw, 0, head.length);
  for (let most = READ[head.sort]; ; most *= 2) {
    const packets = await readFrom(raw, asked.look ?? asked.from, most);
    const bytes = Buffer.concat([begins, packets]);
    const cut = cutTrack(bytes, head, asked);
    if (cut.past || packets.length < most) return { bytes, cut };
  }
}

/** One slice by the relay's own program; null where it holds nothing. */
async function unpack(
  bytes: Buffer,
  head: RelayHead,
  slice: Slice,
  target: string,
  patient: boolean,
): Promise<string | null> {
  const packets = slice.packets.map(([from, to, ticks]) => laterBy(bytes.subarray(from, to), ticks));
  await writeFile(`${target}.mjr`, Buffer.concat([bytes.subarray(0, head.length), ...packets]));
  const file = `${target}.${head.sort === 'sound' ? 'opus' : 'webm'}`;
  await runProgram('janus-pp-rec', [`${target}.mjr`, file], { patient });
  const size = (await stat(file).catch(() => null))?.size ?? 0;
  return size > 0 ? path.resolve(file) : null;
}
