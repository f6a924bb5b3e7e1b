import type { PutText } from '../room/index';
import { HEIGHT, WIDTH } from './outline';

/** Height of the letters, in the board's own units. */
export const LETTERS = 52;
const LINE = LETTERS * 1.25;
/** A text is a column of this many letters: three stand beside each other. */
const LETTERS_A_LINE = 18;

/** The nine places that a text is put in by its name, each with its first line. */
export const PLACES = ['Top', 'Middle', 'Bottom'].flatMap((row, i) =>
  ['left', 'middle', 'right'].map((column, j) => ({
    name: `${row} ${column}`,
    at: [0.03 + j * 0.33, 0.07 + i * 0.32] as [number, number],
  })),
);

/** A text in lines; a word that is longer than one is broken. */
export function linesOf(text: string): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const letters = [...word];
    const last = lines.at(-1);
    if (last !== undefined && [...last].length + 1 + letters.length <= LETTERS_A_LINE) {
      lines[lines.length - 1] = `${last} ${word}`;
      continue;
    }
    for (let i = 0; i < letters.length; i += LETTERS_A_LINE)
      lines.push(letters.slice(i, i + LETTERS_A_LINE).join(''));
  }
  return lines;
}

/** Where a line of a text stands, in the board's units. */
export const lineAt = ([x, y]: readonly [number, number], line: number): [number, number] => [
  x * WIDTH,
  y * HEIGHT + line * LINE,
];

/** Where a text goes that is put in a place: below what stands in that place already. */
export function freeIn(name: string, texts: readonly PutText[]): [number, number] {
  const [x, top] = PLACES.find((p) => p.name === name)!.at;
  const until = texts
    .filter((t) => t.at[0] === x && placeOfText(t) === name)
    .map((t) => t.at[1] + (linesOf(t.text).length * LINE) / HEIGHT);
  return [x, Math.min(0.98, Math.max(top, ...until))];
}

/** The name of the place that a text stands in, or nearest to. */
export function placeOfText({ at: [x, y] }: Pick<PutText, 'at'>): string {
  const far = (p: (typeof PLACES)[number]) =>
    Math.abs(p.at[0] - x) * 4 + (y < p.at[1] - 0.01 ? 9 : y - p.at[1]);
  return PLACES.reduce((best, p) => (far(p) < far(best) ? p : best)).name;
}

/** A slip's paper around its words, in the board's units. */
export function slipBox({ text, at }: Pick<PutText, 'text' | 'at'>) {
  const lines = linesOf(text);
  const longest = Math.max(...lines.map((l) => [...l].length));
  const [x, y] = lineAt(at, 0);
  return {
    x: x - 18,
    y: y - LETTERS,
    width: longest * LETTERS * 0.48 + 40,
    height: lines.length * LINE + 26,
  };
}
