import { z } from 'zod';
import { line, tidyProse } from '../text';
import { CutList } from '../recording/cuts/marks';
import type { RecordingPlan } from '../recording/schema';
import type { Picture, Stretch } from '../recording/mixing';
import type { Chapter, Gap } from '../recording/timeline';
import type { StoredEvent } from '../room/index';
import type { Leavable } from '../settings/index';
import type { Found, PageRead, StripParts } from '../watching/index';

export interface RecordingInfo {
  id: string;
  sessionId: string;
  title: string;
  startsAt: number;
  /** `expired`: its keep-until date has passed and its file is gone. */
  state: 'running' | 'preparing' | 'ready' | 'failed' | 'expired';
  /** 0 to 1 while it is being prepared. */
  progress: number;
  lengthMs: number;
  bytes: number;
  keepUntil: string | null;
  mayDownload: boolean;
  /** Taken away, and gone for good at this instant; null where it is not. For those who teach. */
  goneAt: number | null;
  /** Where the picture is had that stands for it; null where nothing is seen in it. */
  still: string | null;
}

/** The moment whose picture stands for a recording, ms of what one sees; null leaves it to us. */
export const StillInput = z.object({ position: z.number().min(0).max(1e9).nullable() });

/** What a recording is called; nothing gives it its session’s title again. */
export const RecordingTitle = z.object({ title: line('', 120, 0).default('') });

/** Chapters as somebody wrote them, ms into what they see; null has them from what happened again. */
export const ChaptersInput = z.object({
  chapters: z
    .array(
      z.object({ position: z.number().min(0).max(1e9), title: line('A chapter is called something.', 120) }),
    )
    .max(200, 'At most 200 chapters.')
    .nullable(),
});
export type ChaptersInput = z.infer<typeof ChaptersInput>;

/** One's address to listen at; another in place of the one there is where it is replaced. */
export const ListeningInput = z.object({ replace: z.boolean().default(false) });

/** How a recording is to be cut; `after`: the one it was made of, by number, null where that was nothing. */
export const CutInput = CutList.extend({ after: z.int().nullable() });
export type CutInput = z.infer<typeof CutInput>;
/** One that was made before is in force again, or none. */
export const CutBackInput = z.object({ number: z.int().nullable(), after: z.int().nullable() });

/** A recording as it was cut once. */
export interface CutInfo extends CutList {
  number: number;
  by: string;
  at: number;
  /** How long what is told of it is, ms. */
  lengthMs: number;
}

/** What there is to cut: all that was recorded, and how it was cut. For those who plan. */
export interface CutTable {
  whole: RecordingDetail;
  /** By number; null where nothing is cut. */
  inForce: number | null;
  /** How far what is in force is made, 0 to 1. */
  state: RecordingInfo['state'];
  progress: number;
  history: CutInfo[];
  people: { id: string; name: string }[];
}

/** What is said in a recording, written in time (WebVTT). */
export interface CaptionTrack {
  /** BCP 47. */
  language: string;
  path: string;
}

/** What was said at a table of the class, to be heard by who sat there and by those who teach. */
export interface TableSound {
  place: string;
  name: string;
  /** When they sat down, an instant; and how long it is, ms. */
  at: number;
  lengthMs: number;
  /** Who sat there, for those who teach; nobody where the recording is without names. */
  members: string[];
  path: string;
}

export interface RecordingDetail extends RecordingInfo {
  chapters: Chapter[];
  /** Somebody wrote them. */
  chaptersWritten: boolean;
  gaps: Gap[];
  parts: { from: number; until: number }[];
  /** What the viewer may read of what was written, and who was there, for the replay. */
  events: StoredEvent[];
  /** Its sound. What the page has of it is good until it is finished: then its sound has another path. */
  mediaPath: string;
  /** Where the pages are had that were shown: `path/deck/page`, and what is asked for behind it. */
  pages: { path: string; query: string };
  /** Where the films are had that the class watched: `path/material`; null where they are not told of. */
  films: { path: string; query: string } | null;
  /** What is read on the pages that were shown. */
  read: PageRead[];
  /** What is seen, each from when and for how long (ms), muted; whose it is where it is a student's camera. */
  pictures: (Picture & { path: string; member?: string })[];
  /** Where nothing is heard, ms; none before it is finished. */
  silences: Stretch[];
  /** Where somebody could be heard, had the floor, and where it was written, ms. */
  strip: StripParts;
  /** What it is without. */
  leavesOut: readonly Leavable[];
  captions: CaptionTrack[];
  /** The tables at which they sat, where those are recorded; null while that is made. */
  tables: TableSound[] | null;
  /** The viewer's zone; the term's for those who teach. */
  zone: string;
  /** It is theirs to name, to take away and to take back. */
  caring: boolean;
  /** What holds of it, for whom it is theirs; null where nothing is said. */
  plan: RecordingPlan | null;
  /** It is watched by a link that anybody may have: nothing of it is kept for anyone. */
  shared?: boolean;
  /** Captions are theirs to bring, and who watched is theirs to see. */
  teaching: boolean;
  /** Where this person was last, ms; 0 where they have not begun. */
  resume: number;
}

/** Who watched a recording, and how often each stretch of it. */
export interface Watchers {
  /** Whether it is counted at all. */
  counted: boolean;
  people: { member: string; name: string; at: number; share: number }[];
  /** Who was not there, may watch, and has not. */
  missed: { member: string; name: string }[];
  curve: number[];
}

/** What was found over a course. */
export interface CourseFound {
  recording: string;
  title: string;
  startsAt: number;
  /** ms into it. */
  position: number;
  kind: Found['kind'];
  text: string;
}

/** What a course's recordings take on the server, bytes. */
export interface RecordingSpace {
  /** Bytes that this course may take yet. */
  free: number;
  /** Of so many; null where it may have whatever there is. */
  quota: number | null;
  taken: number;
  /** By what was recorded; null where nothing was. */
  perMinute: number | null;
  /** What goes before long: on which local date, and of which sessions. */
  soon: { day: string; sessions: string[] }[];
}

/** Until when (instant, ms) anybody may watch by a link. */
export const ShareInput = z.object({ until: z.int().min(0).max(4e12) });
export interface ShareInfo {
  id: string;
  path: string;
  until: number;
  ended: boolean;
  /** How often it was opened. */
  opened: number;
}

/** What somebody keeps at a moment (ms) of a recording; or asks those who teach. */
export const NoteInput = z.object({
  position: z.number().min(0).max(1e9),
  text: z
    .string()
    .max(2000, 'At most 2,000 characters.')
    .transform((text) => tidyProse(text).trim())
    .pipe(z.string().min(1, 'Write something first.')),
  asks: z.boolean().default(false),
});
/** An answer; nothing takes it back. */
export const NoteAnswer = z.object({
  answer: z
    .string()
    .max(2000)
    .transform((text) => tidyProse(text).trim()),
});
export interface NoteInfo {
  id: string;
  kind: 'note' | 'question';
  position: number;
  text: string;
  answer: string | null;
  /** Whose question it is; null where it is one's own. */
  by: string | null;
}

/** As what a recording can be taken along; each is made once it is asked for. */
export const TAKEN_ALONG = [
  ...(['film.mp4', 'film.webm', 'beside.mp4', 'beside.webm'] as const),
  ...(['sound.mp3', 'archive.zip'] as const),
] as const;
export const ExportInput = z.object({ kind: z.enum(TAKEN_ALONG) });
export type TakenAlong = z.infer<typeof ExportInput>['kind'];

/** Something that is made to be taken along, or was. */
export interface ExportInfo {
  id: string;
  kind: TakenAlong;
  state: 'waiting' | 'making' | 'ready' | 'failed';
  /** 0 to 1 */
  progress: number;
  bytes: number;
  /** Where it is had, once it is ready; it is gone at an instant. */
  path: string | null;
  goneAt: number | null;
  /** SHA-256 of what was made, in hexadecimal. */
  sha256: string | null;
}
