import { concern, EVERYONE, type Audience } from '../kernel/concern';
import { CLASS, isAt } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import type { Film, FilmState } from './state';

/** Where it is at an instant, ms of it. */
export const positionIn = ({ playing, position, since }: Film, now: number): number =>
  playing ? position + Math.max(0, now - since) : position;

const toClass = (): Audience => ({ to: 'place', place: CLASS });
const NOTHING: FilmState = { on: null, card: null };

/** What everybody watches at the same moment; and an address that is opened for all. */
export const film = concern({
  name: 'film',
  empty: NOTHING,
  commands: {
    showFilm: {
      who: 'teaching',
      phase: 'live',
      decide: ({ film: { on } }, { member: by }, { material, name }) =>
        on?.material === material ? [] : [{ type: 'filmShown', by, material, name }],
    },
    playFilm: {
      who: 'teaching',
      phase: 'live',
      decide: ({ film: { on } }, { member: by }, { playing, position }) =>
        on ? [{ type: 'filmPlayed', by, playing, position: Math.round(position) }] : refuse('no-film'),
    },
    putFilmAway: {
      who: 'teaching',
      phase: 'live',
      decide: ({ film: { on } }, { member: by }) => (on ? [{ type: 'filmPutAway', by }] : []),
    },
    openCard: {
      who: 'teaching',
      phase: 'live',
      decide: (_room, { member: by }, { url, title }) => [{ type: 'cardOpened', by, url, title }],
    },
    putCardAway: {
      who: 'teaching',
      phase: 'live',
      decide: ({ film: { card } }, { member: by }) => (card ? [{ type: 'cardPutAway', by }] : []),
    },
  },
  events: {
    filmShown: {
      version: 1,
      hears: toClass,
      evolve: (part, { material, name, at }) => ({
        ...part,
        on: { material, name, playing: false, position: 0, since: at },
      }),
      chapter: ({ name }) => `Film: ${name}`,
      log: ({ by, name }, nameOf) => `${nameOf(by)} showed ${name}.`,
    },
    filmPlayed: {
      version: 1,
      hears: toClass,
      evolve: (part, { playing, position, at }) => ({
        ...part,
        on: part.on && { ...part.on, playing, position, since: at },
      }),
      log: null,
    },
    filmPutAway: {
      version: 1,
      hears: toClass,
      evolve: (part) => ({ ...part, on: null }),
      log: ({ by }, nameOf) => `${nameOf(by)} put the film away.`,
    },
    cardOpened: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { url, title }) => ({ ...part, card: { url, title } }),
      log: ({ by, url, title }, nameOf) => `${nameOf(by)} opened an address for all: ${title}, ${url}`,
    },
    cardPutAway: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, card: null }),
      log: null,
    },
  },
  heeds: {
    // Nobody is in the class to watch it.
    tablesLaid: (part) => ({ ...part, on: null }),
    dismissed: () => NOTHING,
  },
  seenBy: (part, viewer, room) => (isAt(room, viewer, CLASS) ? part : { ...part, on: null }),
});
