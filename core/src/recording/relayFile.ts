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
/** How late the least late of a moment is, is looked for so far before it and after it; in moments, ms. */
const MOMENT_MS = 250;
const AROUND = 10;
/** So much of what came before a cut is looked at with it, ms. */
const LOOK_MS = 2 * AROUND * MOMENT_MS;
/** Where there are fewer on one side nothing is to be learned of that side. */
const FEW = 5;
/** Sound that is so far from its place is put there, ms, in steps of the length of its frames. */
const FAR_MS = 40;
const FRAME_MS = 20;
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
  /** Where its packets lie in the bytes, from and to; and by how much later than it says each was sent, ticks. */
  packets: readonly (readonly [number, number, number])[];
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
  /** The byte from which the next cut has to see what came before it: how late packets came then. */
  look: number;
  /** Something was sent after the moment: nothing of before it is still to be read. */
  past: boolean;
}

interface Timed extends Packet {
  /** When it was sent, by the clock of arrival, ms after the file's first packet came. */
  at: number;
  /** By how much the sender's clock is put on, ms. */
  later: number;
}

/**
 * How late the least late of each moment's packets is. Of the seconds before it and of those after it the later counts:
 * what comes late for a while is late on one side only; a sender's clock that stood still makes all that follows later.
 */
function leastLate(packets: readonly Packet[]): (p: Packet) => number {
  const moment = (p: Packet) => Math.max(0, Math.floor((p.arrived - packets[0]!.arrived) / MOMENT_MS));
  const least: number[] = [];
  for (const p of packets) least[moment(p)] = Math.min(least[moment(p)] ?? Infinity, p.arrived - p.sent);
  const of = (from: number, to: number) =>
    Math.min(...least.slice(Math.max(0, from), to).filter(Number.isFinite));
  const around = least.map((_, i) => {
    const [before, after] = [of(i - AROUND, i + 1), of(i, i + AROUND + 1)];
    if (i < FEW) return after;
    return least.length - i <= FEW ? before : Math.max(before, after);
  });
  return (p) => around[moment(p)]!;
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
    const late = leastLate(stretch);
    return stretch.map((p) => ({ ...p, at: p.sent + late(p), later: 0 }));
  });
}

/**
 * Sound as it is unpacked goes by its sender's clock alone. Where that stood still, or ran, what follows is put where it
 * belongs: later, or instead of what is there already.
 */
function inPlace(run: readonly Timed[]): Timed[] {
  let [later, last] = [0, -Infinity];
  return run.flatMap((p) => {
    const apart = p.at - p.sent - (run[0]!.at - run[0]!.sent) - later;
    if (Math.abs(apart) >= FAR_MS) later += FRAME_MS * Math.round(apart / FRAME_MS);
    if (p.sent + later <= last) return [];
    last = p.sent + later;
    return [{ ...p, later }];
  });
}

/** A packet as the relay writes it, its time so many ticks later. */
export function laterBy(packet: Uint8Array, ticks: number): Uint8Array {
  if (ticks === 0) return packet;
  const moved = Uint8Array.from(packet);
  const view = viewOf(moved);
  view.setUint32(BEFORE_PACKET + 4, view.getUint32(BEFORE_PACKET + 4) + ticks);
  return moved;
}

const sliceOf = (packets: readonly Timed[], sort: Sort, goesOn: boolean): Slice => {
  const times = packets.map((p) => p.at);
  const at = Math.min(...times);
  return {
    packets: packets.map((p) => [p.from, p.to, p.later * TICKS[sort]] as const),
    at,
    length: Math.max(...times) - at,
    goesOn,
  };
};

/** Where a cut begins and ends. */
export interface Span {
  /** Byte of the file where the last cut ended. */
  from: number;
  /** Byte of the file where what is given begins: some seconds before that, so that it is known how late packets came. */
  look?: number;
  /** ms after the file's first packet. */
  until: number;
  /** Nothing comes after it. */
  over: boolean;
  /** When what was cut last ended, ms after the file's first packet; null where nothing was. */
  ended: number | null;
}

/**
 * What a track sent until a moment, from where the last cut ended. `bytes` begin with the file's head and go on at
 * `look`. Sound is cut where the moment is; a picture before its last key frame, and whole where it is over.
 */
export function cutTrack(bytes: Uint8Array, head: RelayHead, span: Span): Cut {
  const shift = (span.look ?? span.from) - head.length;
  const packets = packetsIn(bytes, head.length, head.sort);
  const all = timed(packets);
  const stretches = all.map((s) => s.filter((p) => p.from + shift >= span.from)).filter((s) => s.length);
  const { runs, reached } = head.sort === 'sound' ? soundOf(stretches, span) : pictureOf(stretches, span);
  const slices = runs.flatMap((run, i) =>
    run.length ? [sliceOf(run, head.sort, i === 0 && goesOn(run, span))] : [],
  );
  const past = stretches.some((stretch) => stretch.some((p) => p.at > span.until + LEAP_MS));
  const next = reached === null ? span.from : reached + shift;
  return { slices, reached: next, look: lookBefore(packets, next - shift) + shift, past };
}

/** The first packet that came some seconds before what lies at a byte, or that byte. */
function lookBefore(packets: readonly Packet[], byte: number): number {
  const at = packets.find((p) => p.from >= byte) ?? packets.at(-1);
  if (!at) return byte;
  return Math.min(byte, packets.find((p) => p.arrived >= at.arrived - LOOK_MS)?.from ?? byte);
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
    runs: stretches.map((stretch) => inPlace(stretch.filter((p) => p.at < until))),
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
