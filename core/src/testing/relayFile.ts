/** A frame of a track: sound of 20 ms, or a picture; when it was sent, ms. */
export interface Frame {
  sent: number;
  bytes: Uint8Array;
}

/** The packets of an Ogg Opus file, its two heads left out: 20 ms each. */
export function opusFrames(ogg: Uint8Array): Frame[] {
  const packets: number[][] = [];
  let open: number[] = [];
  for (let at = 0; at + 27 <= ogg.length;) {
    const sizes = ogg.subarray(at + 27, at + 27 + ogg[at + 26]!);
    at += 27 + sizes.length;
    for (const size of sizes) {
      for (let i = 0; i < size; i++) open.push(ogg[at + i]!);
      at += size;
      if (size < 255) {
        packets.push(open);
        open = [];
      }
    }
  }
  return packets.slice(2).map((bytes, i) => ({ sent: i * 20, bytes: Uint8Array.from(bytes) }));
}

/** The frames of an IVF file, whose times are counted at `rate` a second. */
export function ivfFrames(ivf: Uint8Array, rate: number): Frame[] {
  const view = new DataView(ivf.buffer, ivf.byteOffset, ivf.byteLength);
  const frames: Frame[] = [];
  for (let at = view.getUint16(6, true); at + 12 <= ivf.length;) {
    const size = view.getUint32(at, true);
    frames.push({
      sent: (view.getUint32(at + 4, true) / rate) * 1000,
      bytes: ivf.subarray(at + 12, at + 12 + size),
    });
    at += 12 + size;
  }
  return frames;
}

const MOST = 1100;
/** Each packet of a frame: VP8 says in a byte before it whether it begins one. */
function payloads(sort: 'sound' | 'picture', frame: Uint8Array): Uint8Array[] {
  if (sort === 'sound') return [frame];
  return Array.from({ length: Math.ceil(frame.length / MOST) }, (_, i) =>
    Uint8Array.from([i === 0 ? 0x10 : 0, ...frame.subarray(i * MOST, (i + 1) * MOST)]),
  );
}

/** How a track came. */
export interface Came {
  /** When the file's first packet came, ms since 1970. */
  began: number;
  /** How late a packet of a moment comes, ms. */
  late?: (sent: number) => number;
  /** By how much the sender's clock is wrong, as a share. */
  fast?: number;
}

const text = new TextEncoder();
const word = (n: number) => [(n >>> 24) & 255, (n >>> 16) & 255, (n >>> 8) & 255, n & 255];
const short = (n: number) => [(n >> 8) & 255, n & 255];

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(chunks.reduce((sum, c) => sum + c.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}

/** The head of a file as the relay writes it (MJR version 2). */
export function relayHead(sort: 'sound' | 'picture', { began }: Came): Uint8Array {
  const [t, c] = sort === 'sound' ? ['a', 'opus'] : ['v', 'vp8'];
  const head = text.encode(JSON.stringify({ t, c, s: began * 1000, u: began * 1000 }));
  return Uint8Array.from([...text.encode('MJR00002'), ...short(head.length), ...head]);
}

/** Its packets: `since` is when the first of the file was sent, `number` how many came before these. */
export function relayPackets(
  sort: 'sound' | 'picture',
  frames: readonly Frame[],
  { late = () => 0, fast = 0 }: Came,
  { since, number }: { since: number; number: number },
): { bytes: Uint8Array; number: number } {
  const ticks = sort === 'sound' ? 48 : 90;
  const chunks: Uint8Array[] = [];
  for (const { sent, bytes } of frames) {
    const parts = payloads(sort, bytes);
    parts.forEach((payload, i) => {
      const last = i === parts.length - 1;
      const time = Math.round(sent * (1 + fast) * ticks + 0xfffff000) >>> 0;
      const rtp = [0x80, (last ? 0x80 : 0) | 96, ...short(number++ & 0xffff), ...word(time), ...word(7)];
      const came = Math.round(sent - since + late(sent));
      const mark = [...text.encode('MEET'), ...word(came), ...short(rtp.length + payload.length)];
      chunks.push(Uint8Array.from([...mark, ...rtp]), payload);
    });
  }
  return { bytes: joined(chunks), number };
}

/** A whole file as the relay writes it. */
export const relayFile = (sort: 'sound' | 'picture', frames: readonly Frame[], came: Came): Uint8Array =>
  joined([
    relayHead(sort, came),
    relayPackets(sort, frames, came, { since: frames[0]!.sent, number: 0 }).bytes,
  ]);
