import type { Cue } from '../captions/index';
import { CLASS, withLine, type CaptionLine, type StoredEvent } from '../room/index';
import { lengthOf, positionOf, type Part } from './timeline';
import { withheldIn } from './withheld';

/** Whoever writes down what is said is so far behind, ms, and so much more for each character. */
const BEHIND_MS = 1200;
const BEHIND_EACH_MS = 45;
/** A line is shown at least so long, ms, and so much more for each character: as fast as one reads. */
const SHOWN_MS = 1200;
const SHOWN_EACH_MS = 60;

/**
 * The captions that were written in class, in the time of its recording: each where it was said, as far as that is known
 * from when it was written; mended as it was mended. What was said at a table or in a pause is not in it, nor what a program heard of
 * somebody who does not agree to be in it.
 */
export function classCaptions(events: readonly StoredEvent[], parts: readonly Part[]): Cue[] {
  let lines: readonly CaptionLine[] = [];
  const withheld = withheldIn(events);
  for (const e of events)
    if (e.type === 'captioned' && e.place === CLASS) lines = withLine(lines, e, e.instead);
  const length = lengthOf(parts);
  const cues: Cue[] = [];
  for (const { at, by, text, heard } of lines) {
    if (heard && withheld.has(by)) continue;
    if (!parts.some((p) => at >= p.from && at <= p.until)) continue;
    const before = cues.at(-1);
    const said = positionOf(parts, at) - BEHIND_MS - BEHIND_EACH_MS * text.length;
    const from = Math.max(0, said, before ? before.from + 1 : 0);
    if (before) before.until = Math.min(before.until, from);
    const until = Math.min(length, from + SHOWN_MS + SHOWN_EACH_MS * text.length);
    if (until > from) cues.push({ from, until, text });
  }
  return cues;
}
