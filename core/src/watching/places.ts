import { folded } from '../compare/index';
import type { Found } from './index';

export { folded } from '../compare/index';

/** Longer than any word one looks for; of a longer one its beginning counts. */
const LONGEST = 60;
const SHORTEST = 2;

/** The words of a text, folded, each once: letters and digits alone, at least two of them. */
export const wordsIn = (text: string): string[] => [
  ...new Set(
    (folded(text).match(/[\p{L}\p{N}]+/gu) ?? [])
      .map((w) => [...w].slice(0, LONGEST).join(''))
      .filter((w) => [...w].length >= SHORTEST),
  ),
];

/** Whether what is looked for is so short that it is a word of its own, not the beginning of one. */
export const isWhole = (wanted: string): boolean => [...wanted].length === SHORTEST;

/** How far apart, ms, words may stand that belong to one place. */
export const NEAR_MS = 60_000;

type Line = Pick<Found, 'position' | 'kind' | 'text'>;

/** Which of the wanted words stand in a text, or begin one of its words. */
function standing(text: string, wanted: readonly string[]): number[] {
  const words = wordsIn(text);
  return wanted.flatMap((w, i) =>
    words.some((word) => (isWhole(w) ? word === w : word.startsWith(w))) ? [i] : [],
  );
}

/** Lines that have every wanted word between them: the first line's moment, and the words of those that bring one. */
function joined(lines: readonly (Line & { has: number[] })[]): Line {
  const brought = new Set<number>();
  const telling = lines.filter(({ has }) => {
    const before = brought.size;
    for (const i of has) brought.add(i);
    return brought.size > before;
  });
  const { position, kind } = telling[0]!;
  return { position, kind, text: telling.map((l) => l.text).join(' … ') };
}

/**
 * Where in a recording all the words stand: the lines that have every one of them; if none has, where they are said within
 * a minute; if nowhere, where they come closest. Lines in their order in time; words as `wordsIn` gives them.
 */
export function placesOf(lines: readonly Line[], wanted: readonly string[]): Line[] {
  if (!wanted.length) return [];
  const having = lines
    .map((line) => ({ ...line, has: standing(line.text, wanted) }))
    .filter((line) => line.has.length);
  const whole = having.filter((line) => line.has.length === wanted.length);
  if (whole.length) return whole.map(({ position, kind, text }) => ({ position, kind, text }));
  const windows = closest(having, wanted.length);
  const near = windows.filter(([from, to]) => having[to]!.position - having[from]!.position <= NEAR_MS);
  const chosen = near.length ? apart(near) : shortest(windows, having);
  return chosen.map(([from, to]) => joined(having.slice(from, to + 1)));
}

type Window = [from: number, to: number];

/** For every line that completes them, the shortest run of lines up to it that has all the words. */
function closest(having: readonly { has: number[] }[], count: number): Window[] {
  const last = Array<number>(count).fill(-1);
  const windows: Window[] = [];
  for (const [to, { has }] of having.entries()) {
    for (const i of has) last[i] = to;
    const from = Math.min(...last);
    if (from >= 0 && windows.at(-1)?.[0] !== from) windows.push([from, to]);
  }
  return windows;
}

/** Those that share no line with one before. */
function apart(windows: readonly Window[]): Window[] {
  let end = -1;
  return windows.filter(([from, to]) => from > end && ((end = to), true));
}

function shortest(windows: readonly Window[], having: readonly Line[]): Window[] {
  const span = ([from, to]: Window) => having[to]!.position - having[from]!.position;
  const [first, ...rest] = windows;
  return first ? [rest.reduce((best, w) => (span(w) < span(best) ? w : best), first)] : [];
}
