export * from './places';
export * from './silences';
import { folded } from './places';
import {
  CLASS,
  evolve,
  givenSigns,
  newRoom,
  type GivenSigns,
  type RoomState,
  type StoredEvent,
} from '../room/index';
import type { Cue } from '../captions/index';
import { lengthTold, sourceAt } from '../recording/cuts/times';
import type { Stretch } from '../recording/mixing';
import { lengthOf, positionOf, type Chapter, type Part } from '../recording/timeline';

/** A stretch of a recording, ms. What is watched is counted by stretches of this length. */
export const STRETCH_MS = 10_000;

/** How many stretches a recording has. */
export const stretchesOf = (lengthMs: number): number => Math.max(1, Math.ceil(lengthMs / STRETCH_MS));

/** How often each stretch was watched, by one person or by all. */
export type Watched = readonly number[];

/** What was watched, and now these stretches again; others than the recording has are left out. */
export function watchedAgain(known: Watched, stretches: readonly number[], lengthMs: number): number[] {
  const next = Array.from({ length: stretchesOf(lengthMs) }, (_, i) => known[i] ?? 0);
  for (const i of stretches) if (i in next) next[i]!++;
  return next;
}

/** Which stretch of what was recorded one of what is told of it is. */
export const sourceStretch = (told: readonly Stretch[], shown: number): number =>
  Math.floor(sourceAt(told, Math.min((shown + 0.5) * STRETCH_MS, lengthTold(told) - 1)) / STRETCH_MS);

/** What was watched of what was recorded, as stretches of what is told of it. */
export const watchedTold = (watched: Watched, told: readonly Stretch[]): number[] =>
  Array.from({ length: stretchesOf(lengthTold(told)) }, (_, i) => watched[sourceStretch(told, i)] ?? 0);

/** The share of a recording that was watched at least once, 0 to 1. */
export const shareWatched = (watched: Watched, lengthMs: number): number =>
  watched.slice(0, stretchesOf(lengthMs)).filter((n) => n > 0).length / stretchesOf(lengthMs);

/** All together, stretch by stretch. */
export const watchedByAll = (all: readonly Watched[], lengthMs: number): number[] =>
  Array.from({ length: stretchesOf(lengthMs) }, (_, i) => all.reduce((sum, one) => sum + (one[i] ?? 0), 0));

/** Where a word stands in a recording. */
export interface Found {
  /** ms into the recording. */
  position: number;
  kind: 'said' | 'written' | 'drawn' | 'shown' | 'chapter';
  text: string;
  /** Whose it is, by member, so that their name stays theirs; null where it is nobody's. */
  member: string | null;
}

/** A page that a class looked at, from when on, ms into the recording. */
export interface PageShown {
  position: number;
  deck: string;
  page: number;
}

/** What is read on a page that was shown. */
export interface PageRead {
  position: number;
  text: string;
}

/** The pages that a class looked at, each when it first did. */
export function pagesIn(parts: readonly Part[], events: readonly StoredEvent[]): PageShown[] {
  const shown: PageShown[] = [];
  let deck = '';
  for (const event of events) {
    if (event.type !== 'slidesShown' && event.type !== 'slideTurned') continue;
    if (event.place !== CLASS) continue;
    if (event.type === 'slidesShown') deck = event.deck.id;
    const { page } = event;
    if (shown.some((s) => s.deck === deck && s.page === page)) continue;
    shown.push({ deck, page, position: Math.max(0, positionOf(parts, event.at)) });
  }
  return shown;
}

/**
 * Everything of a recording that can be searched, in its order in time: captions, writing, words on the board, pages,
 * chapters.
 */
export function wordsOf({
  parts,
  events,
  chapters,
  cues,
  read = [],
}: {
  parts: readonly Part[];
  events: readonly StoredEvent[];
  chapters: readonly Chapter[];
  cues: readonly Cue[];
  read?: readonly PageRead[];
}): Found[] {
  const found: Found[] = [
    ...cues.map((c): Found => ({ position: c.from, kind: 'said', text: c.text, member: null })),
    ...read.map(({ position, text }): Found => ({ position, kind: 'shown', text, member: null })),
    ...chapters.map(({ title, position }): Found => ({
      ...{ position, kind: 'chapter', text: title, member: null },
    })),
  ];
  for (const event of events) {
    const position = positionOf(parts, event.at);
    if (event.type === 'said')
      found.push({ position, kind: 'written', text: event.text, member: event.from });
    else if (event.type === 'textPut')
      found.push({ position, kind: 'drawn', text: event.text.text, member: event.by });
  }
  return found.sort((a, b) => a.position - b.position);
}

/** Those in which every word of what is looked for stands: in the text, or in the name of whose it is. */
export function search(all: readonly Found[], wanted: string, nameOf: (member: string) => string): Found[] {
  const words = folded(wanted).split(/\s+/).filter(Boolean);
  if (!words.length) return [];
  return all.filter(({ text, member }) => {
    const said = folded(member === null ? text : `${text} ${nameOf(member)}`);
    return words.every((w) => said.includes(w));
  });
}

/** The films that a class watched while any of it is told: of what is left out whole nothing is to be had. */
export function filmsIn(parts: readonly Part[], events: readonly StoredEvent[]): Set<string> {
  const films = new Set<string>();
  let room = newRoom();
  let since = 0;
  const seen = (until: number) => {
    const { on } = room.film;
    if (on && parts.some((p) => since < p.until && until > p.from)) films.add(on.material);
  };
  for (const event of events) {
    const next = evolve(room, event);
    if (next.film.on?.material !== room.film.on?.material) {
      seen(event.at);
      since = event.at;
    }
    room = next;
  }
  seen(Infinity);
  return films;
}

/** What the strip below a recording's time line shows; all in ms into the recording. */
export interface StripParts {
  /** How many microphones were open. */
  open: { from: number; until: number; count: number }[];
  /** When somebody had the floor. */
  floor: { from: number; until: number }[];
  /** How many gave which sign, while anybody gave one. */
  signs: { from: number; until: number; given: GivenSigns }[];
  /** How much was written, by stretch. */
  written: { from: number; until: number; count: number }[];
}

/** Follows what changes from moment to moment: from when until when it was what; nothing where it was null. */
class Stood<T> {
  readonly was: { from: number; until: number; what: T }[] = [];
  #now: { from: number; what: T; key: string } | null = null;

  follow(at: number, what: T | null) {
    const key = what === null ? null : JSON.stringify(what);
    if (key === (this.#now?.key ?? null)) return;
    if (this.#now && at > this.#now.from)
      this.was.push({ from: this.#now.from, until: at, what: this.#now.what });
    this.#now = key === null ? null : { from: at, what: what!, key };
  }
}

/** Who could be heard when, by the room itself as its events made it; by the floor, by signs, and by what was written. */
export function stripOf(parts: readonly Part[], events: readonly StoredEvent[]): StripParts {
  const counts = new Map<number, number>();
  const end = lengthOf(parts);
  const open = new Stood<number>();
  const floor = new Stood<string>();
  const signs = new Stood<GivenSigns>();
  let room = newRoom();
  const follow = (at: number, { desk, floor: { holder }, signs: given }: RoomState) => {
    open.follow(at, Object.values(desk.microphone).filter(Boolean).length || null);
    floor.follow(at, holder);
    signs.follow(at, Object.keys(given).length ? givenSigns(given) : null);
  };
  for (const event of events) {
    room = evolve(room, event);
    const at = positionOf(parts, event.at);
    follow(at, room);
    if (event.type !== 'said') continue;
    const stretch = Math.floor(at / STRETCH_MS);
    counts.set(stretch, (counts.get(stretch) ?? 0) + 1);
  }
  follow(end, newRoom());
  return {
    open: open.was.map(({ what: count, ...s }) => ({ ...s, count })),
    floor: floor.was.map(({ from, until }) => ({ from, until })),
    signs: signs.was.map(({ what: given, ...s }) => ({ ...s, given })),
    written: [...counts].map(([i, count]) => ({
      ...{ from: i * STRETCH_MS, until: Math.min(end, (i + 1) * STRETCH_MS), count },
    })),
  };
}
