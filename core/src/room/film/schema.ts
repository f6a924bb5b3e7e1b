import { z } from 'zod';
import { line } from '../../text/index';
import { MaterialId, MemberId, message } from '../kernel/schema';

/** No film is longer than a day. */
const Position = z.number().min(0).max(86_400_000);
/** As it is sent to a browser: nothing in it that is not seen. */
const Url = z
  .url({ protocol: /^https?$/, error: 'An address begins with https://.' })
  .max(2000, 'At most 2,000 characters.')
  .transform((url) => new URL(url).href);

export const filmCommands = {
  showFilm: message('showFilm', { material: MaterialId, name: z.string().min(1).max(160) }),
  /** Plays from a position, or holds there. */
  playFilm: message('playFilm', { playing: z.boolean(), position: Position }),
  putFilmAway: message('putFilmAway', {}),
  /** An address for all, to be pressed. */
  openCard: message('openCard', { url: Url, title: line('A card has a title.', 120) }),
  putCardAway: message('putCardAway', {}),
};

export const filmEvents = {
  filmShown: message('filmShown', { by: MemberId, material: MaterialId, name: z.string() }),
  filmPlayed: message('filmPlayed', { by: MemberId, playing: z.boolean(), position: z.number() }),
  filmPutAway: message('filmPutAway', { by: MemberId }),
  cardOpened: message('cardOpened', { by: MemberId, url: z.string(), title: z.string() }),
  cardPutAway: message('cardPutAway', { by: MemberId }),
};
