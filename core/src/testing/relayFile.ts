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

/**
 * A file as the relay writes it (MJR version 2). `began`: when the first packet came, ms since 1970; `late`: how late a
 * packet of a moment comes, ms; `fast`: by how much the sender's clock is wrong, as a share.
 */
export function relayFile(
  sort: 'sound' | 'picture',
  frames: readonly Frame[],
  { began, late = () => 0, fast = 0 }: { began: number; late?: (sent: number) => number; fast?: number },
): Uint8Array {
  const codec = sort === 'sound' ? 'opus' : 'vp8';
  const head = new TextEncoder().encode(
    JSON.stringify({ t: sort === 'sound' ? 'a' : 'v', c: codec, s: began * 1000, u: began * 1000 }),
  );
  const ticks = sort === 'sound' ? 48 : 90;
  const bytes: number[] = [
    ...new TextEncoder().encode('MJR00002'),
    head.length >> 8,
    head.length & 255,
    ...head,
  ];
  const word = (n: number) => [(n >>> 24) & 255, (n >>> 16) & 255, (n >>> 8) & 255, n & 255];
  const short = (n: number) => [(n >> 8) & 255, n & 255];
  const chunks: Uint8Array[] = [Uint8Array.from(bytes)];
  let number = 0;
  for (const { sent, bytes: frame } of frames) {
    const parts = payloads(sort, frame);
    parts.forEach((payload, i) => {
      const last = i === parts.length - 1;
      const time = Math.round(sent * (1 + fast) * ticks + 0xfffff000) >>> 0;
      const rtp = [0x80, (last ? 0x80 : 0) | 96, ...short(number++ & 0xffff), ...word(time), ...word(7)];
      const came = Math.round(sent - frames[0]!.sent + late(sent));
      const mark = [
        ...new TextEncoder().encode('MEET'),
        ...word(came),
        ...short(rtp.length + payload.length),
      ];
      chunks.push(Uint8Array.from([...mark, ...rtp, ...payload]));
    });
  }
  const whole = new Uint8Array(chunks.reduce((sum, c) => sum + c.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}
