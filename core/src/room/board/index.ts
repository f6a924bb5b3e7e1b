import { concern } from '../kernel/concern';
import { CLASS } from '../kernel/place';
import { placeOf } from '../stage/index';

/** A board that is drawn on together, one in each place. */
export const board = concern({
  name: 'board',
  empty: { strokes: [], texts: [] },
  commands: {
    draw: {
      who: 'anyone',
      phase: 'any',
      needs: () => ['draw'],
      decide: (room, { member: by }, { stroke }) => [{ type: 'drawn', by, stroke, place: placeOf(room, by) }],
    },
    putText: {
      who: 'anyone',
      phase: 'any',
      needs: () => ['draw'],
      decide: (room, { member: by }, { text }) => [{ type: 'textPut', by, text, place: placeOf(room, by) }],
    },
    clearBoard: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => {
        const place = placeOf(room, by);
        const { strokes, texts } = room.board;
        return [...strokes, ...texts].some((s) => s.place === place)
          ? [{ type: 'boardCleared', by, place }]
          : [];
      },
    },
  },
  events: {
    drawn: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { seq, by, stroke, place }) => ({
        ...part,
        strokes: [...part.strokes, { ...stroke, seq, by, place }],
      }),
      log: null,
    },
    textPut: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { seq, by, text, place }) => ({
        ...part,
        texts: [...part.texts, { ...text, seq, by, place }],
      }),
      log: ({ by, text }, nameOf) => `${nameOf(by)} put on the board: ${text.text}`,
    },
    boardCleared: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: ({ strokes, texts }, { place }) => ({
        strokes: strokes.filter((s) => s.place !== place),
        texts: texts.filter((t) => t.place !== place),
      }),
      notice: () => 'The board has been cleared.',
      log: ({ by }, nameOf) => `${nameOf(by)} cleared the board.`,
    },
  },
});
