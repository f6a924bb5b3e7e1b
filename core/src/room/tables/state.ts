import type { Place } from '../kernel/schema';

/** How many tables there can be. */
export const MOST_TABLES = 60;
/** How many files a task can have. */
export const MOST_FILES = 5;
/** A pair in a larger company has hardly met. */
export const COMPANY = 12;
/** Before everybody is back, it is said this long ahead, ms. */
export const NOTICE_MS = 30_000;

/** One of the small tables of a class: a place of its own. */
export interface Table {
  place: Place;
  name: string;
  /** Whose seat is there, whether they are here or not. */
  members: readonly string[];
}

/** What a class sits at. Instants in ms. */
export interface Laid {
  tables: readonly Table[];
  /** Everybody chooses a table. */
  choose: boolean;
  /** What is to be done there; empty where it was said aloud. */
  task: string;
  /** Files of the class that are for it. */
  files: readonly { material: string; name: string }[];
  from: number;
  /** When everybody is back by themselves; null until somebody says so. */
  until: number | null;
  /** It was said that the time is nearly over. */
  soon: boolean;
  /** Who has no seat because a teacher wants them in the class. */
  aside: readonly string[];
  /** Which tables ask for a teacher, in the order of their asking. */
  calls: readonly { place: Place; at: number }[];
  /** What was said to all tables. */
  words: readonly { at: number; by: string; text: string }[];
  /** The recording was paused for it, and goes on after it. */
  paused: boolean;
  /** While the recording is on, what is said there is kept, each table's by itself. */
  recorded: boolean;
}

export interface TablesState {
  /** Null where the class is together. */
  laid: Laid | null;
  /** How many times tables were laid in this room. */
  times: number;
  /** How often two were at a table together, by both their ids. Known to those who teach. */
  met: Readonly<Record<string, number>>;
  /** The tables that were, the latest first: what was drawn and written there is kept. */
  were: readonly Table[];
}
