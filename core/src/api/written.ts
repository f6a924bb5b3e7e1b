import type { Addressee } from '../room/index';
import type { Role } from '../roster/role';

/** How many letters of what stands somebody wrote. */
export interface WrittenBy {
  name: string;
  letters: number;
}

/** What a class wrote together, and each table of it where one sat: a line for each paragraph; nothing of what is empty. */
export interface ClassNotesInfo {
  notes: {
    place: string;
    title: string;
    text: string;
    /** Who wrote it, the most first; for those who teach alone. */
    by: WrittenBy[];
  }[];
}

/** What stood in a class's notes at an instant. */
export interface NotesThen {
  text: string;
}

/** A board that was drawn on in a class that is over, for whoever may have it. */
export interface KeptBoardInfo {
  place: string;
  title: string;
  /** How many sides of it have something on them. */
  sides: number;
}

/** A file that goes with a message one may read. */
export interface AttachedInfo {
  id: string;
  name: string;
  bytes: number;
  /** It is a picture, and small enough to be shown without being asked for. */
  shown: boolean;
  /** Good for some hours. */
  path: string;
}

/** Whether one may write on a session's page now, and how much of what stands there is for one to read. */
export interface SessionWriting {
  now: { when: 'ahead' | 'after'; until: number } | null;
  written: number;
}

/** Something written on a session's page. */
export interface WrittenInfo {
  id: string;
  session: string;
  at: number;
  from: string;
  name: string;
  role: Role;
  addressee: Addressee;
  /** To whom, where it is to one. */
  toName: string | null;
  text: string;
}

/** What stands on a session's page for somebody, and why they may not write there now; null where they may. */
export interface SessionWritten {
  now: SessionWriting['now'];
  written: WrittenInfo[];
  closed: { class: string | null; teachers: string | null };
}

export interface CourseWritten extends WrittenInfo {
  title: string;
  startsAt: number;
}
