import { z } from 'zod';
import { line } from '../text';
import type { DoorRules, DoorState } from '../door/index';
import { MARKS, type RollBook, type RollLine, type RollRules } from '../roll/index';
import type { RecordingPlan } from '../recording/schema';
import type { Limits } from '../limits/capabilities';
import { SomeLimits } from '../limits/schema';
import type { Role } from '../roster/role';
import type { Difference } from '../calendar/carry';
import type { Own } from '../calendar/lay';
import type { Clash } from '../clashes/clashes';
import type { Finding } from '../readiness/finding';
import { LocalDate, type BellTimes, type MeetingPattern, type Term } from '../calendar/plan';
import type { SeriesKind } from '../calendar/seriesKind';
import type { Reply } from '../mail/answer';
import type { Unwanted } from '../mail/topic';
import type { InvitationTemplate, InviteBefore } from '../mail/invitation';
import type { MaterialInfo, NoticeInfo } from './invite';
import type { Preferences } from './preferences';
import type { RecordingInfo } from './recordings';
import type { SessionWriting } from './written';

export const SignIn = z.object({
  email: z.string().trim().toLowerCase().max(254),
  password: z.string().max(200),
});
export const NewCourse = z.object({
  /** The term; the one that runs, or begins next, where none is named. */
  term: z.string().max(20).optional(),
  code: line('Give a code such as NAV-210.', 20, 2),
  title: line('Give the course a title.', 120, 2),
});
export type NewCourse = z.infer<typeof NewCourse>;
export const CourseSettings = z.object({
  title: line('Give the course a title.', 120, 2),
  youngPupils: z.boolean(),
});
export const LimitsInput = z.object({ limits: SomeLimits });

export interface ErrorBody {
  error: { code: string; message: string; fields?: { path: string; message: string }[] };
}

export interface Me {
  /** The server's clock, ms: pages show time by it. */
  now: number;
  person: { id: string; name: string; email: string; zone: string } | null;
  demo: boolean;
  /** Of the account, or of the link that asks. */
  preferences: Preferences;
}

export interface DemoEntrance {
  people: { name: string; email: string; role: string }[];
  password: string;
  links: { name: string; path: string; about: string }[];
}

export interface CourseCard {
  id: string;
  code: string;
  title: string;
  role: Role;
  students: number;
  /** The term's name. */
  term: string;
  /** When it was put away; null where it is at hand. */
  archivedAt: number | null;
  next: { id: string; startsAt: number; state: SessionState } | null;
}

/** What a course has left behind, and what is still to come of it. */
export interface Traces {
  /** Sessions that were held, or are live. */
  held: number;
  /** People who were written to. */
  written: number;
  /** Sessions ahead. */
  ahead: number;
}

export const MoveInput = z.object({ term: z.string().min(1).max(20) });

export type SessionState = 'planned' | 'moved' | 'cancelled' | 'live' | 'held';

export interface SessionInfo {
  id: string;
  seriesId: string;
  seriesTitle: string;
  number: number;
  date: string;
  startsAt: number;
  endsAt: number;
  minutes: number;
  lingerMinutes: number;
  state: SessionState;
  group: string | null;
  kind: SeriesKind;
  /** A name of its own. */
  title: string | null;
  own: readonly Own[];
  /** The lost session that it makes up for. */
  replaces: string | null;
  record: boolean | null;
  /** Whether students see it: its series is published, and a capture is posted. */
  published: boolean;
  /** Whether the college's public page names it: its own word, or its series'. */
  listed: boolean;
  /** Tells the sessions of one series and date apart. */
  take: number;
  /** Why it is cancelled, where that was said. */
  reason: string | null;
}

export interface SeriesInfo {
  id: string;
  title: string;
  kind: SeriesKind;
  /** None for a room without dates. */
  pattern: MeetingPattern | null;
  group: string | null;
  expected: number | null;
  leads: string[];
  publishedAt: number | null;
  /** Whether its sessions stand on the college's public page. */
  listed: boolean;
}

/** A clash with a session of this course in it, in names. */
export interface NamedClash {
  /** Of this course. */
  sessionId: string | null;
  seriesTitle: string;
  startsAt: number;
  /** The other one, anywhere in the college. */
  other: { course: string; title: string; startsAt: number; endsAt: number };
  minutes: number;
  people: { name: string; teaches: boolean }[];
  /** Both are sessions of this course for the same people: two behind one link. */
  oneLink: boolean;
}

/** One session's part in a change of the plan. */
export interface SessionDelta {
  sessionId: string;
  title: string;
  /** What was, and what becomes of it: an instant and a length, or null where there was or is nothing. */
  was: { startsAt: number; minutes: number } | null;
  becomes: { startsAt: number; minutes: number } | null;
  words: string;
}

/** Somebody who is written to. */
export interface Told {
  member: string;
  name: string;
}

/** What an edit of the plan does, or did. */
export interface PlanOutcome {
  /** The history's entry; null in a preview. */
  changeId: string | null;
  /** The latest entry of the history that it was worked out on: sent with the save, as `If-Match`. */
  on: string;
  words: string;
  sessions: SessionDelta[];
  /** Who will be told: those invited already whom it touches. */
  told: Told[];
  clashes: NamedClash[];
  /** The series that were made. */
  made: string[];
}

/** What a change of a term or of bell times does to the courses of the college. */
export interface CollegeOutcome {
  courses: { id: string; code: string; title: string; sessions: SessionDelta[]; told: Told[] }[];
}

export interface TermInfo extends Term {
  id: string;
  courses: number;
}

export interface TemplateInfo {
  id: string;
  name: string;
  at: number;
  /** The titles of its series. */
  series: string[];
}

export interface CarryPreview {
  series: { id: string; title: string; differences: Difference[] }[];
}

/** A course carried to another term, each difference settled by its date: taken as proposed, or left out. */
export const CarryInput = z.object({
  term: z.string().min(1).max(20),
  settled: z.array(z.object({ series: z.string().max(20), date: LocalDate, take: z.boolean() })).max(2000),
});
export type CarryInput = z.infer<typeof CarryInput>;

/** The entry of a history that is to be taken back. */
export const UndoInput = z.object({ change: z.string().min(1).max(20) });

export interface PlanChangeInfo {
  id: string;
  at: number;
  by: string;
  words: string;
  sessions: SessionDelta[];
  /** Who has a letter that tells of it, and whose letter is still to leave. */
  told: number;
  waiting: number;
  undoneAt: number | null;
  /** Only the latest change that stands can be undone. */
  undoable: boolean;
  /** Nothing is left of it to take back: what it changed was changed again, or taught. */
  spent: boolean;
}

export type StageName = 'plan' | 'class' | 'invite' | 'limits' | 'recording' | 'teach' | 'review';
export type StageState = 'done' | 'needs you' | 'not yet';

export interface CourseDetail {
  id: string;
  code: string;
  title: string;
  role: Role;
  term: Term;
  series: SeriesInfo[];
  sessions: SessionInfo[];
  limits: Limits;
  limitsSet: { by: string; at: number } | null;
  door: DoorRules;
  recordingPlan: RecordingPlan | null;
  /** `undelivered`: students whose invitation came back, or could not be sent. */
  counts: { students: number; invited: number; undelivered: number; recordings: number };
  /** When it was put away; null where it is at hand. */
  archivedAt: number | null;
  reminders: number[];
  inviteBefore: InviteBefore | null;
  /** The number of the course's telephone line. */
  telephone: string | null;
  /** The invitation's own words; the college's where there are none. */
  invitation: InvitationTemplate | null;
  stages: Record<StageName, StageState>;
  termId: string;
  bellTimes: BellTimes[];
  /** Rooms without dates that stand ready. */
  standing: SessionInfo[];
  /** Those who may lead a series. */
  teachers: { id: string; name: string; role: Role }[];
  /** Pupils of an age at which half an hour is what they sustain. */
  youngPupils: boolean;
  findings: Finding[];
  clashes: NamedClash[];
  /** People on the class list, by zone. */
  zones: { zone: string; people: number }[];
}

export type { Clash, DoorRules, Finding };

export interface SessionDetail {
  session: SessionInfo;
  course: { id: string; code: string; title: string };
  role: Role;
  member: string;
  zone: string;
  door: DoorState;
  roll: RollLine[] | null;
  /** Answers to the session, or to its whole series, for those who teach. */
  replies: (Pick<Reply, 'answer' | 'outdated' | 'verified'> & { member: string; name: string })[] | null;
  materials: MaterialInfo[];
  recordings: RecordingInfo[];
}

/** A student's page. */
export interface MyCourse {
  course: { id: string; code: string; title: string; term: Term };
  me: {
    member: string;
    name: string;
    preferredName: string | null;
    pronouns: string | null;
    zone: string;
    role: Role;
    /** The kinds of letters that they do without. */
    quiet: Unwanted[];
  };
  /** The way in by telephone, where the course has a line. */
  telephone: { number: string; pin: string } | null;
  teachers: string[];
  /** An answer that was kept for offline may say nothing of writing. */
  sessions: (SessionInfo & { door: DoorState; writing?: SessionWriting })[];
  recordings: RecordingInfo[];
  door: DoorRules;
  /** The always-open rooms. */
  rooms: (SessionInfo & { door: DoorState })[];
  /** What is recorded, and what one may do, in words; an answer that was kept for offline may be older. */
  inClass?: { may: string; recorded: string };
  /** Whether it is counted how one takes part. */
  countsPart: boolean;
  notices: NoticeInfo[];
  materials: MaterialInfo[];
  replies: Reply[];
}

/** What a teacher says in place of the rules; null takes it back. */
export const CorrectionInput = z
  .object({ mark: z.enum(MARKS).nullable(), reason: line('', 300, 0).default('') })
  .refine(({ mark, reason }) => mark === null || reason.length > 0, {
    path: ['reason'],
    message: 'Say why: it is kept with it.',
  });
export type CorrectionInput = z.infer<typeof CorrectionInput>;

/** The roll of the term, with who is slipping and why, and by which rules it was made. */
export interface RollBookInfo extends RollBook {
  slipping: Record<string, string>;
  rules: Pick<RollRules, 'lateAfterMinutes' | 'earlyBeforeMinutes' | 'enoughMinutes'>;
}

/** One's own line of the roll of a session that was held. */
export interface Attended {
  sessionId: string;
  line: RollLine;
}

export interface Letter {
  id: number;
  to: string;
  from: string;
  subject: string;
  at: number;
}

export interface LetterDetail extends Letter {
  text: string;
  html: string | null;
  /** Calendar messages inside, with what each can be answered. */
  calendars: { method: string; title: string; content: string }[];
}
