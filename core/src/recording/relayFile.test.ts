import fc from 'fast-check';
import { relayFile, relayHead, relayPackets, type Frame } from '../testing/index';
import { cutTrack, headOf, laterBy, type Cut, type RelayHead } from './index';

const BEGAN = Date.UTC(2026, 9, 6, 21, 30);
const sound = (count: number): Frame[] =>
  Array.from({ length: count }, (_, i) => ({
    sent: i * 20,
    bytes: Uint8Array.from([i & 255, (i >> 8) & 255]),
  }));
/** VP8 says in the lowest bit of a frame whether it needs others before it. */
const picture = (count: number, keyEvery: number, size = 10): Frame[] =>
  Array.from({ length: count }, (_, i) => ({
    sent: i * 40,
    bytes: new Uint8Array(size).fill(i % keyEvery !== 0 ? 1 : 0, 0, 1),
  }));

/** A file cut at these moments, one cut after another as while it grows; the last is over. */
function cutAt(file: Uint8Array, head: RelayHead, moments: readonly number[]): Cut[] {
  let [from, look] = [head.length, head.length];
  let ended: number | null = null;
  return moments.map((until, i) => {
    const over = i === moments.length - 1;
    const bytes = new Uint8Array(head.length + file.length - look);
    bytes.set(file.subarray(0, head.length));
    bytes.set(file.subarray(look), head.length);
    const cut = cutTrack(bytes, head, { from, look, until, over, ended });
    expect(cut.look).toBeLessThanOrEqual(cut.reached);
    [from, look] = [cut.reached, cut.look];
    const last = cut.slices.at(-1);
    if (last) ended = last.at + last.length;
    return cut;
  });
}
const packetsOf = (cuts: readonly Cut[]) => cuts.flatMap((c) => c.slices.flatMap((s) => s.packets)).length;

test('a head says what a file holds and since when; what is none, or has not come whole, says nothing', () => {
  const file = relayFile('sound', sound(3), { began: BEGAN });
  expect(headOf(file)).toMatchObject({ sort: 'sound', began: BEGAN });
  expect(headOf(relayHead('picture', { began: BEGAN }))).toMatchObject({ sort: 'picture' });
  expect(headOf(file.subarray(0, 9))).toBeNull();
  expect(headOf(file.subarray(0, 30))).toBeNull();
  expect(headOf(new TextEncoder().encode('MJR00002'))).toBeNull();
  expect(headOf(new TextEncoder().encode('RIFF0000 something else'))).toBeNull();
  const torn = Uint8Array.from(file);
  torn[12] = 0;
  expect(headOf(torn)).toBeNull();
});

test('wherever sound is cut, every packet is in one slice and in no other, and none is before its cut', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20_000 }), { maxLength: 6 }),
      fc.integer({ min: 0, max: 60 }),
      (some, late) => {
        const file = relayFile('sound', sound(900), { began: BEGAN, late: (ms) => (ms * 31) % (late + 1) });
        const moments = [...some.sort((a, b) => a - b), 30_000];
        const cuts = cutAt(file, headOf(file)!, moments);
        expect(packetsOf(cuts)).toBe(900);
        cuts.forEach((cut, i) =>
          cut.slices.forEach((s) => {
            expect(s.at + s.length).toBeLessThan(moments[i]!);
            expect(s.packets.every(([from, to]) => to > from)).toBe(true);
          }),
        );
      },
    ),
    { numRuns: 60 },
  );
});

test('wherever a picture is cut, each slice begins with a frame that needs none before it, and nothing is lost', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20_000 }), { maxLength: 5 }),
      fc.integer({ min: 5, max: 200 }),
      fc.integer({ min: 2, max: 3000 }),
      (some, keyEvery, size) => {
        const file = relayFile('picture', picture(300, keyEvery, size), { began: BEGAN });
        const moments = [...some.sort((a, b) => a - b), 30_000];
        const cuts = cutAt(file, headOf(file)!, moments);
        const all = cuts.flatMap((c) => c.slices);
        expect(packetsOf(cuts)).toBe(300 * Math.ceil(size / 1100));
        // Times of slices are those of key frames; each goes on from the one before it.
        for (const s of all) expect(Math.round(s.at) % (40 * keyEvery)).toBe(0);
        expect(all.map((s) => s.goesOn)).toEqual(all.map((_, i) => i > 0));
      },
    ),
    { numRuns: 60 },
  );
});

test('where a picture stood still another begins, with the next frame that needs none; what came in between is left out', () => {
  const frames = picture(200, 25).filter((_, i) => i < 50 || i > 130);
  const file = relayFile('picture', frames, { began: BEGAN });
  const [cut] = cutAt(file, headOf(file)!, [30_000]);
  expect(cut!.slices.map((s) => [Math.round(s.at), s.goesOn])).toEqual([
    [0, false],
    [6000, false],
  ]);
});

test('a clock of 32 bits that begins anew, and one that leaps, cut nothing to pieces that belongs together', () => {
  // The made clock begins just before its end: it has begun anew within a tenth of a second.
  const file = relayFile('sound', sound(500), { began: BEGAN });
  const [whole] = cutAt(file, headOf(file)!, [60_000]);
  expect(whole!.slices).toHaveLength(1);
  expect(whole!.slices[0]).toMatchObject({ at: 0, length: 499 * 20 });
  const came = { began: BEGAN };
  const first = relayPackets('sound', sound(100), came, { since: 0, number: 0 });
  const leapt = sound(100).map((f) => ({ sent: f.sent + 90_000, bytes: f.bytes }));
  const second = relayPackets('sound', leapt, came, { since: 88_000, number: first.number });
  const both = new Uint8Array([...relayHead('sound', came), ...first.bytes, ...second.bytes]);
  const [cut] = cutAt(both, headOf(both)!, [60_000]);
  expect(cut!.slices.map((s) => Math.round(s.at))).toEqual([0, 2000]);
});

test('a file that was cut off in the middle of a packet, or holds what is no packet, is read as far as it goes', () => {
  const file = relayFile('sound', sound(50), { began: BEGAN });
  const head = headOf(file)!;
  const [short] = cutAt(file.subarray(0, file.length - 3), head, [60_000]);
  expect(packetsOf([short!])).toBe(49);
  const torn = Uint8Array.from(file);
  torn.set([0, 0, 0, 0], head.length + 10 * 24);
  const [until] = cutAt(torn, head, [60_000]);
  expect(packetsOf([until!])).toBe(10);
  const [empty] = cutAt(file.subarray(0, head.length), head, [60_000]);
  expect(empty).toEqual({ slices: [], reached: head.length, look: head.length, past: false });
});

test('it is said whether anything of before a moment may still come', () => {
  const file = relayFile('sound', sound(500), { began: BEGAN });
  const head = headOf(file)!;
  const past = (until: number) =>
    cutTrack(file, head, { from: head.length, until, over: false, ended: null }).past;
  expect([past(1000), past(9000)]).toEqual([true, false]);
});

/** When packets are as they are unpacked, by each one's own clock and what it is put on, ms. */
function placesOf(file: Uint8Array, cut: Cut): number[] {
  const view = new DataView(file.buffer, file.byteOffset);
  return cut.slices.flatMap(({ at, packets }) => {
    const ticks = packets.map(([from, to, later]) => {
      expect(laterBy(file.subarray(from, to), later).length).toBe(to - from);
      return view.getUint32(from + 14) + later;
    });
    return ticks.map((t) => at + ((t - ticks[0]!) | 0) / 48);
  });
}

test.each([
  ['stood still for a second', (sent: number) => (sent > 12_000 ? 1000 : 0), 0],
  ['stood still three times', (sent: number) => 170 * Math.floor(sent / 8000), 0],
  ['leapt on for a second', (sent: number) => (sent > 12_000 ? -1000 : 0), 0],
  ['is slow by one in 200', () => 0, -0.005],
  ['is fast by one in 200', () => 0, 0.005],
])('sound of a sender whose clock %s is where it was spoken', (_name, leap, fast) => {
  // It comes late by a little, and for some time by much.
  const late = (sent: number) => leap(sent) + ((sent * 31) % 15) + (sent > 20_000 && sent < 22_000 ? 300 : 0);
  const frames = sound(1500);
  const file = relayFile('sound', frames, { began: BEGAN, late, fast });
  const [cut] = cutAt(file, headOf(file)!, [60_000]);
  const kept = new Set(cut!.slices.flatMap((s) => s.packets.map(([from]) => from)));
  const spoken: number[] = [];
  for (let at = headOf(file)!.length, i = 0; at < file.length; i++) {
    if (kept.has(at)) spoken.push(frames[i]!.sent + leap(frames[i]!.sent));
    at += 10 + new DataView(file.buffer, at).getUint16(8);
  }
  // Next to nothing is left out, and nothing is in two places.
  expect(spoken.length).toBeGreaterThan(1500 - (leap(30_000) < 0 ? 60 : 12));
  const places = placesOf(file, cut!);
  for (const [i, place] of places.entries()) {
    // All of it but a moment around each leap.
    const near = [8000, 12_000, 16_000, 24_000].some((at) => Math.abs(spoken[i]! - at) < 400);
    if (!near) expect(Math.abs(place - spoken[i]!)).toBeLessThan(60);
    if (i) expect(place).toBeGreaterThan(places[i - 1]!);
  }
});

/** What happens to a sender: packets come in a burst, its clock stands still, or leaps ahead; ms. */
interface Trouble {
  at: number;
  kind: 'burst' | 'stands' | 'leaps';
  for: number;
}

/** Sound of a troubled sender, cut a piece at a time: by how much each packet is off the place where it was spoken, ms. */
function offPlace(troubles: readonly Trouble[], seconds: number, pieceMs: number): number[] {
  const spoken = new Map<number, number>();
  let shift = 0;
  for (let now = 0; now < seconds * 1000; now += 20) {
    for (const { kind, for: ms } of troubles.filter((t) => now >= t.at && now < t.at + 20)) {
      if (kind === 'stands') [now, shift] = [now + ms, shift + ms];
      if (kind === 'leaps') shift -= ms;
    }
    spoken.set(now - shift, now);
  }
  const late = (at: number) => {
    const burst = troubles.find((t) => t.kind === 'burst' && at >= t.at && at < t.at + t.for);
    return burst ? burst.at + burst.for - at : 5 + ((at * 7919) % 25);
  };
  const frames = [...spoken.keys()].map((sent) => ({ sent, bytes: Uint8Array.from([1]) }));
  const file = relayFile('sound', frames, {
    began: BEGAN,
    late: (sent) => spoken.get(sent)! - sent + late(spoken.get(sent)!),
  });
  const head = headOf(file)!;
  const count = Math.ceil((seconds * 1000) / pieceMs);
  const moments = Array.from({ length: count }, (_, i) => (i + 1) * pieceMs + (i + 1 === count ? 9999 : 0));
  const ticksAt = (bytes: Uint8Array, at: number) =>
    new DataView(bytes.buffer, bytes.byteOffset).getUint32(at + 14);
  const first = ticksAt(file, head.length);
  let look = head.length;
  return cutAt(file, head, moments).flatMap((cut) => {
    const bytes = file.subarray(look - head.length);
    look = cut.look;
    return cut.slices.flatMap(({ at, packets }) => {
      const sent = packets.map(([from]) => ((ticksAt(bytes, from) - first) | 0) / 48);
      const placed = packets.map(([, , later], i) => sent[i]! + later / 48);
      const begins = Math.min(...placed);
      return placed.map((p, i) => at + p - begins + late(0) - spoken.get(Math.round(sent[i]!))!);
    });
  });
}

test('sound is where it was spoken, whatever happens to its sender, and wherever it is cut', () => {
  const worst = (...troubles: Trouble[]) => Math.max(...offPlace(troubles, 45, 20_000).map(Math.abs));
  for (const at of [17_000, 19_500, 21_000, 24_000]) {
    expect(worst({ at, kind: 'burst', for: 1500 })).toBeLessThan(60);
    expect(worst({ at, kind: 'stands', for: 1200 })).toBeLessThan(60);
    expect(worst({ at, kind: 'leaps', for: 1200 })).toBeLessThan(60);
    expect(worst({ at: 9000, kind: 'stands', for: 1200 }, { at, kind: 'leaps', for: 1200 })).toBeLessThan(60);
  }
  // A machine that is short of time: every few seconds it stands still, and catches up.
  const short = Array.from({ length: 6 }, (_, i): Trouble => ({
    ...{ at: 5000 + i * 5500, for: 1200 },
    kind: i % 2 ? 'leaps' : 'stands',
  }));
  expect(worst(...short)).toBeLessThan(60);
});
