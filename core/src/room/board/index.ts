import { concern } from '../kernel/concern';
import { CLASS } from '../kernel/schema';
import { placeOf } from '../stage/index';

/** A board that is drawn on together, one in each place. */
export const board = concern({
  name: 'board',
  empty: { strokes: [] },
  commands: {
    draw: {
      who: 'anyone',
      phase: 'any',
      needs: () => 'draw',
      decide: (room, { member: by }, { stroke }) => [{ type: 'drawn', by, stroke, place: placeOf(room, by) }],
    },
    clearBoard: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => {
        const place = placeOf(room, by);
        return room.board.strokes.some((s) => s.place === place) ? [{ type: 'boardCleared', by, place }] : [];
      },
    },
  },
  events: {
    drawn: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { seq, by, stroke, place }) => ({
        strokes: [...part.strokes, { ...stroke, seq, by, place }],
      }),
      log: null,
    },
    boardCleared: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { place }) => ({ strokes: part.strokes.filter((s) => s.place !== place) }),
      notice: () => 'The board has been cleared.',
      log: ({ by }, nameOf) => `${nameOf(by)} cleared the board.`,
    },
  },
});
