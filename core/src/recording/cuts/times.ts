import type { Cue } from '../../captions/index';
import type { StoredEvent } from '../../room/index';
import type { Stretch } from '../mixing';
import { common } from '../stretches';
import { gapsOf, type Chapter, type Gap, type Part } from '../timeline';
import { toldBy, type Mark } from './marks';

/** How long these are together, ms. */
export const lengthTold = (told: readonly Stretch[]): number =>
  told.reduce((sum, s) => sum + s.until - s.from, 0);

/** Where a moment of the untouched recording is in what is told of it; one that is left out, where its neighbours meet. */
export function shownAt(told: readonly Stretch[], at: number): number {
  let shown = 0;
  for (const { from, until } of told) {
    if (at < from) return shown;
    if (at < until) return shown + at - from;
    shown += until - from;
  }
  return shown;
}

/** Where in the untouched recording a moment of what is told of it is; where two meet, the later. */
export function sourceAt(told: readonly Stretch[], shown: number): number {
  let before = 0;
  for (const { from, until } of told) {
    if (shown < before + until - from) return from + shown - before;
    before += until - from;
  }
  return told.at(-1)?.until ?? 0;
}

export const isTold = (told: readonly Stretch[], at: number): boolean =>
  told.some((s) => at >= s.from && at < s.until);

/** The parts of a class that are told of its recording: as if nothing else had been recorded. */
export function partsTold(parts: readonly Part[], told: readonly Stretch[]): Part[] {
  let position = 0;
  return parts.flatMap(({ from, until }) => {
    const begins = position;
    position += until - from;
    return told.flatMap((s) => {
      const [a, b] = [Math.max(s.from, begins), Math.min(s.until, position)];
      return a < b ? [{ from: from + a - begins, until: from + b - begins }] : [];
    });
  });
}

const WRITTEN: ReadonlySet<StoredEvent['type']> = new Set(['said', 'answered']);

/** What happened, without what was written while nothing of it is told. Who came and what stood on the board stays true. */
export function eventsTold(
  events: readonly StoredEvent[],
  { parts, left }: { parts: readonly Part[]; left: readonly Part[] },
): StoredEvent[] {
  const within = (all: readonly Part[], at: number) => all.some((p) => at >= p.from && at <= p.until);
  return events.filter((e) => !WRITTEN.has(e.type) || !within(parts, e.at) || within(left, e.at));
}

/** What was not recorded, and what was left out between two that are told; nothing is said of how it began and ended. */
export function gapsTold(
  parts: readonly Part[],
  told: readonly Stretch[],
  events: readonly StoredEvent[],
): Gap[] {
  const recorded = gapsOf(parts, events)
    .filter((g) => told.some((s) => g.position > s.from && g.position < s.until))
    .map((g) => ({ ...g, position: shownAt(told, g.position) }));
  const left = told.slice(1).map((s, i): Gap => ({
    ...{ position: shownAt(told, s.from), missing: s.from - told[i]!.until, why: 'cut' },
  }));
  return [...recorded, ...left].sort((a, b) => a.position - b.position);
}

/** Chapters where they are in what is told; of several that meet at one place the last. */
export function chaptersTold(chapters: readonly Chapter[], told: readonly Stretch[]): Chapter[] {
  const length = lengthTold(told);
  const shown = chapters.map((c) => ({ ...c, position: shownAt(told, c.position) }));
  return shown.filter(
    (c, i) => c.position !== shown[i + 1]?.position && (c.position < length || c.position === 0),
  );
}

/** Captions of what is heard, where it is told: none of what is left out or silent. */
export function cuesTold(cues: readonly Cue[], marks: readonly Mark[], lengthMs: number): Cue[] {
  const told = toldBy(marks, lengthMs);
  return toldBy(marks, lengthMs, 'silent')
    .flatMap((s) =>
      cues.flatMap((c) => {
        const [from, until] = [Math.max(c.from, s.from), Math.min(c.until, s.until)];
        // Words of which more than half is left out are left out: they would tell it.
        if (2 * (until - from) < c.until - c.from || until <= from) return [];
        const at = shownAt(told, from);
        return [{ ...c, from: Math.round(at), until: Math.round(at + until - from) }];
      }),
    )
    .sort((a, b) => a.from - b.from);
}

/** Captions as they were mended in what is told, put back into all there are: those that were not seen stay. */
export function cuesMended(
  all: readonly Cue[],
  mended: readonly Cue[],
  marks: readonly Mark[],
  lengthMs: number,
): Cue[] {
  const told = toldBy(marks, lengthMs);
  const heard = toldBy(marks, lengthMs, 'silent');
  const seen = ({ from, until }: Cue) =>
    heard.some((s) => 2 * (Math.min(until, s.until) - Math.max(from, s.from)) >= until - from);
  const put = mended.map((c) => {
    const from = Math.round(sourceAt(told, c.from));
    return { ...c, from, until: from + (c.until - c.from) };
  });
  return [...all.filter((c) => !seen(c)), ...put].sort((a, b) => a.from - b.from);
}

/** Silences where they are in what is told. */
export const silencesTold = (silences: readonly Stretch[], told: readonly Stretch[]): Stretch[] =>
  common(told, silences).map(({ from, until }) => ({
    from: Math.round(shownAt(told, from)),
    until: Math.round(shownAt(told, from) + until - from),
  }));
