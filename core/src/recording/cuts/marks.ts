import { z } from 'zod';
import type { Stretch } from '../mixing';
import { joined } from '../stretches';

/** What becomes of a stretch: told as it was, without its sound, without its pictures, or not at all. */
export const FATES = ['kept', 'silent', 'unseen', 'out'] as const;
export type Fate = (typeof FATES)[number];

/** From this moment of the untouched recording (whole ms) until the next mark, this becomes of it. */
export const Mark = z.object({ from: z.int().min(0).max(1e9), fate: z.enum(FATES) });
export type Mark = z.infer<typeof Mark>;

/** A stretch is at least so long, ms. */
export const SHORTEST_MS = 200;
export const MOST_MARKS = 400;

/** How a recording is cut: marks over what was recorded, which stays as it is; and who is nobody in it. */
export const CutList = z.object({
  marks: z
    .array(Mark)
    .min(1)
    .max(MOST_MARKS, `At most ${MOST_MARKS} stretches.`)
    .refine((m) => m[0]?.from === 0, 'The first stretch begins at the beginning.')
    .refine(
      (m) => m.every((one, i) => i === 0 || one.from >= m[i - 1]!.from + SHORTEST_MS),
      'Stretches follow one another, and each lasts a fifth of a second at least.',
    ),
  /** By member: their names and what they wrote are not told. */
  nobody: z.array(z.string().max(20)).max(400),
});
export type CutList = z.infer<typeof CutList>;

/** Nothing is cut. */
export const UNCUT: CutList = { marks: [{ from: 0, fate: 'kept' }], nobody: [] };

export interface MarkedStretch extends Stretch {
  fate: Fate;
}

/** The stretches that marks make of a recording of this length, ms. What was recorded later is as its last. */
export function stretchesBy(marks: readonly Mark[], lengthMs: number): MarkedStretch[] {
  return marks.flatMap(({ from, fate }, i) => {
    const until = Math.min(lengthMs, marks[i + 1]?.from ?? lengthMs);
    return from < until ? [{ from, until, fate }] : [];
  });
}

/** What is told of a recording, in ms of it; `without`: only where this is told of it. */
export const toldBy = (marks: readonly Mark[], lengthMs: number, without?: 'silent' | 'unseen'): Stretch[] =>
  joined(stretchesBy(marks, lengthMs).filter(({ fate }) => fate !== 'out' && fate !== without));

const isCut = ({ fate }: Mark) => fate !== 'kept';

/** Whether anything becomes of it. */
export const cutsAnything = ({ marks, nobody }: CutList): boolean => marks.some(isCut) || nobody.length > 0;

/** The stretch that a moment lies in, by its number. */
export const stretchAt = (marks: readonly Mark[], at: number): number =>
  Math.max(
    0,
    marks.findLastIndex((m) => m.from <= at),
  );

/** A stretch becomes two where there is room for both; what becomes of it stays. */
export function splitAt(marks: readonly Mark[], at: number, lengthMs: number): Mark[] {
  const from = Math.round(at);
  const i = stretchAt(marks, from);
  const until = marks[i + 1]?.from ?? lengthMs;
  if (from - marks[i]!.from < SHORTEST_MS || until - from < SHORTEST_MS) return [...marks];
  return [...marks.slice(0, i + 1), { from, fate: marks[i]!.fate }, ...marks.slice(i + 1)];
}

export const withFate = (marks: readonly Mark[], i: number, fate: Fate): Mark[] =>
  marks.map((m, k) => (k === i ? { ...m, fate } : m));

/** A stretch and the one after it become one; what became of the first becomes of both. */
export const joinNext = (marks: readonly Mark[], i: number): Mark[] => marks.filter((_, k) => k !== i + 1);

/** Everything before a moment is left out, or everything from it on. */
export function outBefore(marks: readonly Mark[], at: number, lengthMs: number): Mark[] {
  const split = splitAt(marks, at, lengthMs);
  const i = stretchAt(split, at);
  return [{ from: 0, fate: 'out' as const }, ...split.slice(i)].filter(
    (m, k, all) => k === 0 || m.from > all[0]!.from,
  );
}
export function outAfter(marks: readonly Mark[], at: number, lengthMs: number): Mark[] {
  const split = splitAt(marks, at, lengthMs);
  const i = stretchAt(split, at);
  return [...split.slice(0, i), { from: split[i]!.from, fate: 'out' as const }];
}

/** So near a silence a cut goes into it, ms. */
const NEAR_MS = 2000;

/** The middle of a silence that is near, or else the moment itself. */
export function snapped(silences: readonly Stretch[], at: number): number {
  const middles = silences
    .filter((s) => s.from - NEAR_MS <= at && at <= s.until + NEAR_MS)
    .map((s) => (at >= s.from && at <= s.until ? at : (s.from + s.until) / 2));
  const near = middles.sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0];
  return near !== undefined && Math.abs(near - at) <= NEAR_MS ? Math.round(near) : at;
}
