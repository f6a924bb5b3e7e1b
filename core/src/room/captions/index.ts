import { concern, EVERYONE } from '../kernel/concern';
import { CLASS, isAt } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import { isHere } from '../presence/index';
import { LINES_AT_HAND, type CaptionLine, type CaptionsState } from './state';

/** The lines after one more, or after one was mended. */
export function withLine(
  lines: readonly CaptionLine[],
  { seq, at, by, text, heard }: CaptionLine,
  instead: number | undefined,
): readonly CaptionLine[] {
  if (instead === undefined) return [...lines, { seq, at, by, text, ...(heard ? { heard } : {}) }];
  return lines.flatMap((l) => (l.seq !== instead ? [l] : text ? [{ ...l, text }] : []));
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
      decide: ({ captions: { writers, lines } }, { member: by }, { text, instead }) => {
        if (!writers.includes(by)) return refuse('no-captioner');
        if (instead === undefined) return text ? [{ type: 'captioned', by, text }] : refuse('no-words');
        const mended = lines.find((l) => l.seq === instead);
        if (!mended) return refuse('no-line');
        if (mended.text === text) return [];
        // Mended, it is still what somebody said: what holds for their voice holds for it.
        const said = mended.heard ? ({ by: mended.by, heard: true } as const) : { by };
        return [{ type: 'captioned', ...said, text, instead }];
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
        on ? 'A program writes down what is said here. It mishears.' : 'No program listens any more.',
      log: ({ by, on }, nameOf) =>
        on ? `${nameOf(by)} let a program write captions.` : `${nameOf(by)} let no program write captions.`,
    },
    captioned: {
      version: 1,
      hears: () => ({ to: 'place', place: CLASS }),
      evolve: (part, { instead, ...line }) => ({
        ...part,
        lines: withLine(part.lines, line, instead).slice(-LINES_AT_HAND),
      }),
      log: null,
    },
  },
  heeds: { dismissed: () => NOTHING },
  seenBy: (part, viewer, room) => (isAt(room, viewer, CLASS) ? part : { ...part, lines: [] }),
});
