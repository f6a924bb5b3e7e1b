/** A film that everybody watches at the same moment. Positions in ms of it, instants in ms. */
export interface Film {
  /** The file, among the session's or the course's. */
  material: string;
  name: string;
  playing: boolean;
  /** Where it was when it was last set going, held or moved, and when that was. */
  position: number;
  since: number;
}

/** An address that was opened for all. */
export interface Card {
  url: string;
  title: string;
}

export interface FilmState {
  on: Film | null;
  card: Card | null;
}
