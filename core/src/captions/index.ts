/** One caption: when it is shown, ms into the recording, and what it says. */
export interface Cue {
  from: number;
  until: number;
  text: string;
}

/** A recording has at most so many, and each at most so much text. */
export const MOST_CUES = 20_000;
export const LONGEST_CUE = 500;

const TIME = /^(?:(\d{1,3}):)?([0-5]?\d):([0-5]?\d)[.,](\d{1,3})$/;
const ARROW = /^\s*(\S+)\s+-->\s+(\S+)(?:\s.*)?$/;

function timeOf(text: string): number | null {
  const found = TIME.exec(text);
  if (!found) return null;
  const [, h = '0', m, s, fraction] = found;
  return ((Number(h) * 60 + Number(m)) * 60 + Number(s)) * 1000 + Number(fraction!.padEnd(3, '0'));
}

const two = (n: number) => String(n).padStart(2, '0');

/** "01:02:03.004", as WebVTT has it. */
export function stampOf(ms: number): string {
  const s = Math.floor(ms / 1000);
  const clock = [Math.floor(s / 3600), Math.floor(s / 60) % 60, s % 60].map(two).join(':');
  return `${clock}.${String(Math.round(ms % 1000)).padStart(3, '0')}`;
}

/** Text without the marks of voices, styles and classes, and without what a file may not say within a cue. */
const plain = (text: string): string =>
  text
    .replace(/<[^>]*>/g, '')
    .replaceAll('&nbsp;', '\u00a0')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .join('\n');

/** Why a file holds no captions that can be taken; the line where it is seen, from 1. */
export class CaptionFault extends Error {
  constructor(
    message: string,
    readonly line: number,
  ) {
    super(`Line ${line}: ${message}`);
  }
}

/**
 * Captions of a WebVTT or SubRip file, in their order in time. Notes, styles, regions and settings are left out; a cue
 * without text is none. Throws a `CaptionFault` where a time cannot be read or ends before it begins.
 */
export function readCaptions(file: string): Cue[] {
  const lines = file
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .split('\n');
  const cues: Cue[] = [];
  let i = 0;
  while (i < lines.length) {
    const arrow = lines[i]!.includes('-->');
    if (!arrow) {
      i++;
      continue;
    }
    const [, begins, ends] = ARROW.exec(lines[i]!) ?? [];
    const from = timeOf(begins ?? '');
    const until = timeOf(ends ?? '');
    if (from === null || until === null) throw new CaptionFault('This time cannot be read.', i + 1);
    if (until <= from) throw new CaptionFault('This ends before it begins.', i + 1);
    const begun = i++;
    const said: string[] = [];
    while (i < lines.length && lines[i]!.trim() !== '') {
      if (lines[i]!.includes('-->')) throw new CaptionFault('A line between two captions is missing.', i + 1);
      said.push(lines[i++]!);
    }
    const text = plain(said.join('\n'));
    if (text.length > LONGEST_CUE)
      throw new CaptionFault(`A caption has at most ${LONGEST_CUE} characters.`, begun + 1);
    if (text) cues.push({ from, until, text });
    if (cues.length > MOST_CUES)
      throw new CaptionFault('These are more captions than a recording has.', begun + 1);
  }
  return cues.sort((a, b) => a.from - b.from || a.until - b.until);
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

/** The same as a WebVTT file (W3C WebVTT). */
export const writeVtt = (cues: readonly Cue[]): string =>
  ['WEBVTT', ...cues.map((c) => `${stampOf(c.from)} --> ${stampOf(c.until)}\n${escaped(c.text)}`)].join(
    '\n\n',
  ) + '\n';
