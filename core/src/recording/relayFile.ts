/**
 * What the relay writes while a class is on: one file a track, MJR version 2. A head (`MJR00002`, two bytes of length,
 * JSON), then for each packet `MEET`, when it came (ms after the first, 32 bits), its length (16 bits) and the packet
 * (RTP, RFC 3550). Pictures are VP8 (RFC 7741), sound is Opus (RFC 7587). Such a file is read while it grows.
 */

const MAGIC = 'MJR00002';
const MARK = 0x4d454554;
const BEFORE_PACKET = 10;
/** RTP ticks a millisecond. */
const TICKS = { sound: 48, picture: 90 } as const;
export type Sort = keyof typeof TICKS;
/** A sender's clock that leaps so far from the time of arrival has begun anew, ms. */
const LEAP_MS = 2000;
/** How late the least late is, is looked at anew so often, ms. */
const MOMENT_MS = 5000;
/** A picture that stands still for so long has ended, and another has begun, ms. */
const STILL_MS = 3000;

export interface RelayHead {
  sort: Sort;
  /** When the first packet came, by the machine's clock, ms since 1970. */
  began: number;
  /** Bytes of the head: where the packets begin. */
  length: number;
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** The head of a relay's file; null where it holds none, or nothing has come yet. */
export function headOf(bytes: Uint8Array): RelayHead | null {
  if (bytes.length < BEFORE_PACKET || new TextDecoder('latin1').decode(bytes.subarray(0, 8)) !== MAGIC)
    return null;
  const length = viewOf(bytes).getUint16(8);
  if (bytes.length < BEFORE_PACKET + length) return null;
  try {
    const said = JSON.parse(
      new TextDecoder().decode(bytes.subarray(BEFORE_PACKET, BEFORE_PACKET + length)),
    ) as { t?: unknown; u?: unknown };
    if (typeof said.u !== 'number' || (said.t !== 'a' && said.t !== 'v')) return null;
    return {
      sort: said.t === 'a' ? 'sound' : 'picture',
      began: said.u / 1000,
      length: BEFORE_PACKET + length,
    };
  } catch {
    return null;
  }
}

interface Packet {
  /** Where it lies in the bytes, with its mark. */
  from: number;
  to: number;
  /** ms after the first of the file. */
  arrived: number;
  /** The sender's time, ms, counted on over the 32 bits of its clock. */
  sent: number;
  /** A picture that needs none before it begins here. */
  key: boolean;
}

/** Where an RTP packet's payload begins. */
function payloadAt(view: DataView, at: number, end: number): number {
  const first = view.getUint8(at);
  let payload = at + 12 + 4 * (first & 15);
  if (first & 16 && payload + 4 <= end) payload += 4 + 4 * view.getUint16(payload + 2);
  return payload;
}

/** Whether a VP8 payload is the first of a key frame. */
function beginsKeyFrame(view: DataView, at: number, end: number): boolean {
  if (at >= end) return false;
  const first = view.getUint8(at);
  if ((first & 0x17) !== 0x10) return false;
  let next = at + 1;
  if (first & 0x80 && next < end) {
    const more = view.getUint8(next++);
    if (more & 0x80) next += next < end && view.getUint8(next) & 0x80 ? 2 : 1;
    if (more & 0x40) next++;
    if (more & 0x30) next++;
  }
  return next < end && (view.getUint8(next) & 1) === 0;
}

/** The packets that lie whole in the bytes; what is half-written, or no packet, ends them. */
function packetsIn(bytes: Uint8Array, from: number, sort: Sort): Packet[] {
  const view = viewOf(bytes);
  const packets: Packet[] = [];
  let last: { ticks: number; sent: number } | null = null;
  for (let at = from; at + BEFORE_PACKET <= bytes.length && view.getUint32(at) === MARK;) {
    const begin = at + BEFORE_PACKET;
    const to = begin + view.getUint16(at + 8);
    if (to > bytes.length) break;
    if (to - begin >= 12) {
      const ticks = view.getUint32(begin + 4);
      const sent: number = last ? last.sent + ((ticks - last.ticks) | 0) / TICKS[sort] : 0;
      last = { ticks, sent };
      const key = sort === 'picture' && beginsKeyFrame(view, payloadAt(view, begin, to), to);
      packets.push({ from: at, to, arrived: view.getUint32(at + 4), sent, key });
    }
    at = to;
  }
  return packets;
}

/** What a track sent without a break. */
export interface Slice {
  /** Where its packets lie in the bytes: from, to. */
  packets: readonly (readonly [number, number])[];
  /** ms after the file's first packet came: when its first was sent, by the clock of arrival. */
  at: number;
  /** ms */
  length: number;
  /** It goes on from the slice before it, without a break. */
  goesOn: boolean;
}

export interface Cut {
  slices: Slice[];
  /** As many bytes are done with. */
  reached: number;
  /** Something was sent after the moment: nothing of before it is still to be read. */
  past: boolean;
}

interface Timed extends Packet {
  /** When it was sent, by the clock of arrival, ms after the file's first packet came. */
  at: number;
}

/**
 * When each was sent, by the clock by which all tracks of a class arrive: the least late of a few seconds came at once. So
 * the clocks of senders, each a little wrong, cannot drift apart over a class. A clock that leaps begins a new stretch.
 */
function timed(packets: readonly Packet[]): Timed[][] {
  const stretches: Packet[][] = [];
  let before: Packet | null = null;
  for (const p of packets) {
    if (!before || Math.abs(p.sent - before.sent - (p.arrived - before.arrived)) > LEAP_MS)
      stretches.push([]);
    stretches.at(-1)!.push(p);
    before = p;
  }
  return stretches.map((stretch) => {
    const least = new Map<number, number>();
    const moment = (p: Packet) => Math.floor((p.arrived - stretch[0]!.arrived) / MOMENT_MS);
    for (const p of stretch)
      least.set(moment(p), Math.min(least.get(moment(p)) ?? Infinity, p.arrived - p.sent));
    return stretch.map((p) => ({ ...p, at: p.sent + least.get(moment(p))! }));
  });
}

const sliceOf = (packets: readonly Timed[], goesOn: boolean): Slice => {
  const times = packets.map((p) => p.at);
  const at = Math.min(...times);
  return {
    packets: packets.map((p) => [p.from, p.to] as const),
    at,
    length: Math.max(...times) - at,
    goesOn,
  };
};

/** Where a cut begins and ends. */
export interface Span {
  /** Byte of the file where the last cut ended. */
  from: number;
  /** ms after the file's first packet. */
  until: number;
  /** Nothing comes after it. */
  over: boolean;
  /** When what was cut last ended, ms after the file's first packet; null where nothing was. */
  ended: number | null;
}

/**
 * What a track sent until a moment, from where the last cut ended. `bytes` begin with the file's head and go on at
 * `from`. Sound is cut where the moment is; a picture before its last key frame, and whole where it is over.
 */
export function cutTrack(bytes: Uint8Array, head: RelayHead, span: Span): Cut {
  const shift = span.from - head.length;
  const stretches = timed(packetsIn(bytes, head.length, head.sort));
  const { runs, reached } = head.sort === 'sound' ? soundOf(stretches, span) : pictureOf(stretches, span);
  const slices = runs.flatMap((run, i) => (run.length ? [sliceOf(run, i === 0 && goesOn(run, span))] : []));
  const past = stretches.some((stretch) => stretch.some((p) => p.at > span.until + LEAP_MS));
  return { slices, reached: reached === null ? span.from : reached + shift, past };
}

const goesOn = (run: readonly Timed[], { ended }: Span): boolean =>
  ended !== null && run.length > 0 && run[0]!.at - ended <= STILL_MS;

/** What is cut of a track, and the byte that is reached; null where nothing is. */
interface Runs {
  runs: Timed[][];
  reached: number | null;
}

function soundOf(stretches: Timed[][], { until }: Span): Runs {
  const all = stretches.flat();
  const rest = all.find((p) => p.at >= until);
  return {
    runs: stretches.map((stretch) => stretch.filter((p) => p.at < until)),
    reached: rest?.from ?? all.at(-1)?.to ?? null,
  };
}

function pictureOf(stretches: Timed[][], { until, over, ended }: Span): Runs {
  const all = stretches.flat();
  const last = all.findLast((p) => p.key && p.at < until);
  const taken = over ? all.filter((p) => p.at < until) : all.filter((p) => last && p.from < last.from);
  const runs: Timed[][] = [];
  let run: Timed[] | null = null;
  let before: number | null = ended;
  for (const p of taken) {
    // Where it stood still another begins, with the next that needs none before it.
    if (before === null || p.at - before > STILL_MS) run = null;
    if (!run && (p.key || (runs.length === 0 && before !== null && before === ended))) runs.push((run = []));
    run?.push(p);
    before = p.at;
  }
  return { runs, reached: over ? (all.at(-1)?.to ?? null) : (last?.from ?? null) };
}
