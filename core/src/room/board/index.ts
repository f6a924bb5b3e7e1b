import { concern, type Actor } from '../kernel/concern';
import { CLASS, isAt, placeOf } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { tableOf } from '../tables/index';

/** So much of a table's board is shown at most. */
const MOST_SHOWN = 3000;

/** Whether somebody reads what is written together in a place: who is there, who teaches, and all while it is shown. */
export const readsNotes = (room: Pick<RoomState, 'presence' | 'board'>, viewer: Actor, place: Place) =>
  isAt(room, viewer, place) || (room.board.shown?.from === place && isAt(room, viewer, CLASS));

/** A board that is drawn on together, one in each place. */
export const board = concern({
  name: 'board',
  empty: { strokes: [], texts: [], shown: null },
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
    showWork: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { place: from }) => {
        const table = tableOf(room, from);
        if (!table) return refuse('no-table');
        const there = <T extends { place: Place }>(all: readonly T[]) =>
          all.filter((one) => one.place === from).slice(0, MOST_SHOWN);
        const without = <T extends { place: Place }>(all: readonly T[]) =>
          there(all).map(({ place: _, ...one }) => one);
        const { strokes, texts } = room.board;
        return [
          {
            ...{ type: 'workShown', by, from, title: table.name },
            ...{ strokes: without(strokes), texts: without(texts) },
          },
        ];
      },
    },
    putWorkBack: {
      who: 'teaching',
      phase: 'live',
      decide: ({ board: { shown } }, { member: by }) => (shown ? [{ type: 'workPutBack', by }] : []),
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
    workShown: {
      version: 1,
      hears: () => ({ to: 'place', place: CLASS }),
      evolve: (part, { from, title, strokes, texts }) => ({
        ...part,
        shown: {
          ...{ from, title },
          strokes: strokes.map((s) => ({ ...s, place: from })),
          texts: texts.map((t) => ({ ...t, place: from })),
        },
      }),
      chapter: ({ title }) => `What ${title} made`,
      log: ({ by, title }, nameOf) => `${nameOf(by)} showed what ${title} made.`,
    },
    workPutBack: {
      version: 1,
      hears: () => ({ to: 'place', place: CLASS }),
      evolve: (part) => ({ ...part, shown: null }),
      log: null,
    },
    boardCleared: {
      version: 2,
      upcast: [(body) => ({ ...body, place: CLASS })],
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: ({ strokes, texts, ...part }, { place }) => ({
        ...part,
        strokes: strokes.filter((s) => s.place !== place),
        texts: texts.filter((t) => t.place !== place),
      }),
      notice: () => 'The board has been cleared.',
      log: ({ by }, nameOf) => `${nameOf(by)} cleared the board.`,
    },
  },
  heeds: {
    // A class that goes to its tables puts away what it looked at.
    tablesLaid: (part) => (part.shown ? { ...part, shown: null } : part),
    dismissed: (part) => (part.shown ? { ...part, shown: null } : part),
  },
  seenBy: ({ strokes, texts, shown }, viewer, room) => ({
    shown: isAt(room, viewer, CLASS) ? shown : null,
    strokes: strokes.filter((s) => isAt(room, viewer, s.place)),
    texts: texts.filter((t) => isAt(room, viewer, t.place)),
  }),
});
