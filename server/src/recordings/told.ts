import {
  chaptersOf,
  chaptersTold,
  eventsTold,
  forAnybody,
  gapsOf,
  gapsTold,
  heardBy,
  keepsStudents,
  keptOf,
  maskedFor,
  partsTold,
  sawOthers,
  withheldIn,
  type Chapter,
  type Gap,
  type Part,
  type Watcher,
} from '@nimble-bell/core/recording';
import type { StoredEvent } from '@nimble-bell/core/room';
import type { Db } from '../db/pool';
import { eventsOf } from '../room/store';
import { partsOf, picturesIn, type PictureFile, type RecordingRow } from './store';

/** What a recording tells beside its sound and pictures; positions in ms of it as it is cut. */
export interface Told {
  parts: Part[];
  events: StoredEvent[];
  chapters: Chapter[];
  gaps: Gap[];
}

/** What is told of a recording is told to a member, or to anybody who has a link. */
export type Listener = Watcher | 'anybody';

type Recorded = Pick<RecordingRow, 'id' | 'sessionId' | 'plan' | 'cut' | 'told' | 'chapters'>;

/**
 * What happened in a session as its recording may tell it to this person: the one way to it for watching, searching and
 * taking along.
 */
export async function toldTo(db: Db, row: Recorded, listener: Listener): Promise<Told> {
  const [all, found] = await Promise.all([eventsOf(db, row.sessionId), partsOf(db, row.id)]);
  const recorded = found.map(({ from, until }) => ({ from, until }));
  const parts = row.cut ? partsTold(recorded, row.told) : recorded;
  const told = row.cut ? eventsTold(all, { parts: recorded, left: parts }) : all;
  const nobody = new Set([...withheldIn(all), ...(row.cut?.nobody ?? [])]);
  const kept = keptOf(maskedFor(told, nobody), row.plan?.leavesOut ?? []);
  const events = listener === 'anybody' ? forAnybody(kept) : heardBy(kept, listener);
  // What somebody wrote may name somebody: who is not of the class has what came by itself.
  const written = listener === 'anybody' ? null : row.chapters;
  const chapters = written ?? chaptersOf(recorded, events);
  // Why something is missing is nobody's name or word: it is told to whoever is told that it is.
  if (!row.cut) return { parts, events, chapters, gaps: gapsOf(parts, all) };
  return {
    ...{ parts, events },
    chapters: chaptersTold(chapters, row.told),
    gaps: gapsTold(recorded, row.told, all),
  };
}

/** What is seen of a recording by this person: a student's camera only by those who could see it in class. */
export async function picturesTo(db: Db, row: Recorded, listener: Listener): Promise<PictureFile[]> {
  const all = await picturesIn(db, row);
  if (all.every((p) => p.member === null)) return all;
  const events = await eventsOf(db, row.sessionId);
  const nobody = new Set([...withheldIn(events), ...(row.cut?.nobody ?? [])]);
  const others = listener !== 'anybody' && sawOthers(events, listener);
  const shown = (member: string) =>
    keepsStudents(row.plan) &&
    !nobody.has(member) &&
    (others || (listener !== 'anybody' && listener.member === member));
  return all.filter(({ member }) => member === null || shown(member));
}
