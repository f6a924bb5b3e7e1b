import { concern, EVERYONE } from '../kernel/concern';
import { CLASS, isAt, placeOf } from '../kernel/place';
import type { Place } from '../kernel/schema';
import { refuse } from '../kernel/refusals';
import { isHere } from '../presence/index';
import { LINES_AT_HAND, type CaptionLine, type CaptionsState } from './state';

/** The lines after one more, or after one was mended. */
export function withLine(
  lines: readonly CaptionLine[],
  { seq, at, place, by, text, heard }: CaptionLine,
  instead: number | undefined,
): readonly CaptionLine[] {
  if (instead === undefined) return [...lines, { seq, at, place, by, text, ...(heard ? { heard } : {}) }];
  return lines.flatMap((l) => (l.seq !== instead ? [l] : text ? [{ ...l, text }] : []));
}

/** Of each place the last that are at hand: what is said at one takes nothing of another's. */
function atHand(lines: readonly CaptionLine[], place: Place): readonly CaptionLine[] {
  const here = lines.filter((l) => l.place === place);
  if (here.length <= LINES_AT_HAND) return lines;
  const from = here.at(-LINES_AT_HAND)!;
  return lines.filter((l) => l.place !== place || l.seq >= from.seq);
}

const NOTHING: CaptionsState = { writers: [], lines: [], listens: false };

/** What is said aloud, written down by one or two persons in turn, or by a program that listens. */
export const captions = concern({
  name: 'captions',
  empty: NOTHING,
  commands: {
    setCaptioner: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { member, on }) => {
        if (on && !isHere(room, member)) return refuse('not-here');
        return room.captions.writers.includes(member) === on
          ? []
          : [{ type: 'captionerSet', by, member, on }];
      },
    },
    letListen: {
      who: 'teaching',
      phase: 'live',
      decide: ({ captions }, { member: by }, { on }) =>
        captions.listens === on ? [] : [{ type: 'listening', by, on }],
    },
    caption: {
      who: 'anyone',
      phase: 'any',
      decide: (room, { member: by }, { text, instead }) => {
        const { writers, lines } = room.captions;
        // Who writes hears where they are.
        const place = placeOf(room, by);
        if (!writers.includes(by)) return refuse('no-captioner');
        if (instead === undefined)
          return text ? [{ type: 'captioned', place, by, text }] : refuse('no-words');
        const mended = lines.find((l) => l.seq === instead && l.place === place);
        if (!mended) return refuse('no-line');
        if (mended.text === text) return [];
        // Mended, it is still what somebody said: what holds for their voice holds for it.
        const said = mended.heard ? ({ by: mended.by, heard: true } as const) : { by };
        return [{ type: 'captioned', place, ...said, text, instead }];
      },
    },
  },
  events: {
    captionerSet: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, on }) => {
        const others = part.writers.filter((m) => m !== member);
        return { ...part, writers: on ? [...others, member] : others };
      },
      log: ({ member, on }, nameOf) => `${nameOf(member)} ${on ? 'writes' : 'writes no more'} captions.`,
    },
    listening: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { on }) => ({ ...part, listens: on }),
      notice: ({ on }) =>
        on
          ? 'A program writes down what is said, at tables too. It mishears.'
          : 'No program listens any more.',
      log: ({ by, on }, nameOf) =>
        on ? `${nameOf(by)} let a program write captions.` : `${nameOf(by)} let no program write captions.`,
    },
    captioned: {
      version: 2,
      // Before there were any at tables, all were the class's.
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { instead, ...line }) => ({
        ...part,
        lines: atHand(withLine(part.lines, line, instead), line.place),
      }),
      log: null,
    },
  },
  heeds: { dismissed: () => NOTHING },
  seenBy: (part, viewer, room) => ({ ...part, lines: part.lines.filter((l) => isAt(room, viewer, l.place)) }),
});
