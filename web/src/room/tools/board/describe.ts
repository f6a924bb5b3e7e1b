import { countWords, listWords } from '@nimble-bell/core/calendar';
import type { OnBoard } from '@nimble-bell/core/room';
import { placeOfText } from '@nimble-bell/core/board';

/** The board in one line. */
export const boardWords = ({ strokes, texts }: OnBoard): string =>
  `Board with ${countWords(strokes.length, 'stroke')}${texts.length ? ` and ${countWords(texts.length, 'text')}` : ''}`;

const each = <T>(list: readonly T[], of: (one: T) => string) => listWords([...new Set(list.map(of))]);

/** What is on the board, a line each, for who does not see it. */
export const boardLines = ({ strokes, texts }: OnBoard, nameOf: (member: string) => string): string[] => [
  ...texts.map((t) => `${placeOfText(t)}, by ${nameOf(t.by)}: ${t.text}`),
  ...(strokes.length
    ? [
        `${countWords(strokes.length, 'stroke')} in ${each(strokes, (s) => s.colour)}, by ${each(strokes, (s) => nameOf(s.by))}`,
      ]
    : []),
];
