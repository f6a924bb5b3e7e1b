import { teaches } from '../../roster/role';
import { concern, type Actor } from '../kernel/concern';
import { placeOf } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import type { Place } from '../kernel/schema';
import type { RoomState } from '../kernel/state';
import { WHOLE_PAGE, type Frame, type Shown, type SlidesState } from './state';

/** What lies open where somebody is; null where nothing does. */
export const slidesAt = (room: Pick<RoomState, 'slides'>, place: Place): Shown | null =>
  room.slides.on[place] ?? null;

const change = (part: SlidesState, place: Place, more: Partial<Shown>): SlidesState => {
  const on = part.on[place];
  return on ? { ...part, on: { ...part.on, [place]: { ...on, ...more } } } : part;
};

/** The page was shown: it may be looked at again. */
function seenToo(part: SlidesState, place: Place, deck: string, page: number): SlidesState['seen'] {
  const seen = part.seen[place]?.[deck] ?? [];
  if (seen.includes(page)) return part.seen;
  return { ...part.seen, [place]: { ...part.seen[place], [deck]: [...seen, page] } };
}

/**
 * The pages of a deck that somebody may have, in their order: who teaches all of them, others what was shown, or all of
 * it where they leaf freely. Who may have a page has its file; of every other page nothing is sent.
 */
export function pagesFor(
  room: Pick<RoomState, 'slides' | 'presence'>,
  viewer: Actor,
  deck: string,
): number[] {
  const place = placeOf(room, viewer.member);
  const on = slidesAt(room, place);
  if (on?.deck.id === deck && (teaches(viewer.role) || on.leafing === 'freely'))
    return Array.from({ length: on.deck.pages }, (_, i) => i + 1);
  return [...(room.slides.seen[place]?.[deck] ?? [])].sort((a, b) => a - b);
}

/** The pages to which somebody leafs by themselves: none where the class goes together. */
export function leafsTo(room: Pick<RoomState, 'slides' | 'presence'>, viewer: Actor): number[] {
  const on = slidesAt(room, placeOf(room, viewer.member));
  if (!on || (on.leafing === 'together' && !teaches(viewer.role))) return [];
  return pagesFor(room, viewer, on.deck.id);
}

const sameFrame = (a: Frame, b: Frame) => a.fit === b.fit && a.zoom === b.zoom && a.x === b.x && a.y === b.y;

const open = (room: RoomState, member: string) => slidesAt(room, placeOf(room, member));

/** Pages of a file that a class looks at together, and what is marked on them. */
export const slides = concern({
  name: 'slides',
  empty: { on: {}, seen: {}, marks: [] },
  commands: {
    showSlides: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { deck, page }) => {
        if (page > deck.pages) return refuse('no-page');
        const on = open(room, by);
        if (on?.deck.id === deck.id && on.page === page) return [];
        return [{ type: 'slidesShown', by, deck, page, place: placeOf(room, by) }];
      },
    },
    turnSlide: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { page }) => {
        const on = open(room, by);
        if (!on) return refuse('no-slides');
        if (page > on.deck.pages) return refuse('no-page');
        return page === on.page ? [] : [{ type: 'slideTurned', by, page, place: placeOf(room, by) }];
      },
    },
    frameSlide: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { frame }) => {
        const on = open(room, by);
        if (!on) return refuse('no-slides');
        return sameFrame(on.frame, frame)
          ? []
          : [{ type: 'slideFramed', by, frame, place: placeOf(room, by) }];
      },
    },
    letLeaf: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { leafing }) => {
        const on = open(room, by);
        if (!on) return refuse('no-slides');
        return on.leafing === leafing ? [] : [{ type: 'leafingSet', by, leafing, place: placeOf(room, by) }];
      },
    },
    putSlidesAway: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }) =>
        open(room, by) ? [{ type: 'slidesPutAway', by, place: placeOf(room, by) }] : [],
    },
    markSlide: {
      who: 'anyone',
      phase: 'any',
      needs: () => ['draw'],
      decide: (room, { member: by }, { deck, page, stroke }) => {
        const on = open(room, by);
        // Whose page was turned in the middle of a stroke has marked the one before.
        if (on?.deck.id !== deck || on.page !== page) return refuse('page-turned');
        return [{ type: 'slideMarked', by, deck, page, stroke, place: placeOf(room, by) }];
      },
    },
    clearMarks: {
      who: 'teaching',
      phase: 'any',
      decide: (room, { member: by }, { page }) => {
        const place = placeOf(room, by);
        const on = open(room, by);
        if (!on) return refuse('no-slides');
        const deck = on.deck.id;
        const marked = room.slides.marks.some((m) => m.place === place && m.deck === deck && m.page === page);
        return marked ? [{ type: 'marksCleared', by, deck, page, place }] : [];
      },
    },
  },
  events: {
    slidesShown: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { by, deck, page, place }) => ({
        ...part,
        on: { ...part.on, [place]: { deck, page, by, leafing: 'together', frame: WHOLE_PAGE } },
        seen: seenToo(part, place, deck.id, page),
      }),
      notice: ({ deck }) => `“${deck.name}” is shown.`,
      chapter: ({ deck, page }) => (page === 1 ? deck.name : `${deck.name}, page ${page}`),
      log: ({ by, deck, page }, nameOf) => `${nameOf(by)} showed “${deck.name}”, page ${page}.`,
    },
    slideTurned: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { by, page, place }) => {
        const on = part.on[place];
        if (!on) return part;
        const frame = { ...on.frame, zoom: 1, x: 0.5, y: 0.5 };
        return { ...change(part, place, { page, by, frame }), seen: seenToo(part, place, on.deck.id, page) };
      },
      chapter: ({ page }) => `Page ${page}`,
      log: null,
    },
    slideFramed: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { frame, place }) => change(part, place, { frame }),
      log: null,
    },
    leafingSet: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { leafing, place }) => change(part, place, { leafing }),
      notice: ({ leafing }) => LEAFING_NOTICES[leafing],
      log: ({ by, leafing }, nameOf) => `${nameOf(by)}: ${LEAFING_NOTICES[leafing]}`,
    },
    slidesPutAway: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { place }) => {
        const { [place]: _, ...on } = part.on;
        return { ...part, on };
      },
      log: ({ by }, nameOf) => `${nameOf(by)} put the pages away.`,
    },
    slideMarked: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { seq, by, deck, page, stroke, place }) => ({
        ...part,
        marks: [...part.marks, { ...stroke, seq, by, deck, page, place }],
      }),
      log: null,
    },
    marksCleared: {
      version: 1,
      hears: ({ place }) => ({ to: 'place', place }),
      evolve: (part, { deck, page, place }) => ({
        ...part,
        marks: part.marks.filter((m) => m.place !== place || m.deck !== deck || m.page !== page),
      }),
      log: ({ by, page }, nameOf) => `${nameOf(by)} wiped the marks off page ${page}.`,
    },
  },
  heeds: { dismissed: (part) => ({ ...part, on: {} }) },
  // What was shown elsewhere, and what was marked on it, is for those who were there.
  seenBy: (part, viewer, room) => {
    const place = placeOf(room, viewer.member);
    const only = <T>(of: Readonly<Record<Place, T>>) => (of[place] ? { [place]: of[place] } : {});
    if (teaches(viewer.role)) return part;
    return {
      on: only(part.on),
      seen: only(part.seen),
      marks: part.marks.filter((m) => m.place === place),
    };
  },
});

const LEAFING_NOTICES = {
  together: 'The pages are turned for everybody.',
  back: 'You can leaf back through the pages that were shown.',
  freely: 'You can leaf through all the pages.',
};
