import type { Capability, Permission } from '../limits/capabilities';
import type { MeetingPattern, Period, Term } from '../calendar/plan';
import type { PlanEditDraft } from '../api/planEdit';
import type { SeriesKind } from '../calendar/seriesKind';
import type { LaidSession } from '../calendar/lay';
import type { PlannedSeries } from '../calendar/sessions';
import type { Instant } from '../calendar/zone';
import type { DoorRules } from '../door/index';
import type { Limits } from '../limits/capabilities';
import type { RuleSheet } from '../limits/sheets';
import type { RulesInput } from '../api/rules';
import type { Role } from '../roster/role';
import type { Segment, Settings } from '../settings/index';

/** `stops`: the term cannot be run like this. `warns`: somebody will be let down. `advises`: worth a look. */
export type Level = 'stops' | 'warns' | 'advises';

/** What one press would do. The server works it out again from its own findings before it does it. */
export type Fix =
  | { do: 'edit'; edit: PlanEditDraft }
  | { do: 'limits'; capability: Capability; permission: Permission }
  | { do: 'door'; rules: Partial<DoorRules> }
  | { do: 'rules'; input: RulesInput }
  | { do: 'recording'; plan: Partial<RecordingWishes> }
  | { do: 'invite' }
  /** Nothing is changed: it leads to where the decision is made. */
  | { do: 'go'; to: string };

export interface Finding {
  /** Rule and what it is about: the same finding has the same id in the next check. */
  id: string;
  rule: string;
  level: Level;
  text: string;
  stage: 'plan' | 'class' | 'invite' | 'limits' | 'recording';
  series?: string;
  session?: string;
  fix?: { label: string; fix: Fix };
}

export interface RecordingWishes {
  automatic: boolean;
  keepUntil: string;
  studentsWatch: boolean;
  studentsDownload: boolean;
}

export interface SetupSeries {
  id: string;
  title: string;
  kind: SeriesKind;
  pattern: MeetingPattern | null;
  periods: readonly Period[];
  expected: number | null;
  group: string | null;
  leads: readonly string[];
  published: boolean;
  planned: PlannedSeries;
  /** As they stand, by date. From a plan file there are none but those planned. */
  sessions: readonly LaidSession[];
}

export interface SetupPerson {
  id: string;
  name: string;
  role: Role;
  group: string | null;
  zone: string;
  /** When their link was last sent to them, and when the link in force was made; null where it never was. */
  invitedAt: Instant | null;
  linkAt: Instant | null;
}

export interface SetupClash {
  series: string;
  session: string | null;
  startsAt: Instant;
  minutes: number;
  /** "MET-140 Lecture". */
  other: string;
  people: { name: string; teaches: boolean }[];
}

/** A place that says something of its own: what holds there, what it says itself, its sheet and its run sheet. */
export interface SetupPlace {
  layer: 'course' | 'series' | 'session';
  id: string;
  /** "Lecture", "Lecture, Tue 6 Oct, 18:30". */
  title: string;
  /** Of the shortest session that it is for; null where there is none. */
  minutes: number | null;
  limits: Limits;
  said: Settings['limits'];
  sheet: RuleSheet | null;
  segments: readonly Segment[] | null;
}

export interface SetupException {
  id: string;
  name: string;
  capability: Capability;
  state: Permission;
  until: Instant | null;
}

/** A whole set-up, as the rules read it. A part that is not known yet is null, and its rules say nothing. */
export interface Setup {
  term: Term;
  now: Instant | null;
  series: readonly SetupSeries[];
  clashes: readonly SetupClash[];
  people: readonly SetupPerson[] | null;
  youngPupils: boolean;
  door: DoorRules | null;
  limits: Limits | null;
  rules?: { places: readonly SetupPlace[]; exceptions: readonly SetupException[] } | null;
  /** `undefined` from a plan file, null where no plan was made. */
  recording?: RecordingWishes | null;
  /** Bytes free, and what the term's recordings will take. */
  storage: { free: number; forecast: number } | null;
}

/** A small rule: what it is called, how serious it is, and what it finds. */
export interface Rule {
  id: string;
  level: Level;
  stage: Finding['stage'];
  find: (setup: Setup) => Found[];
}

/** What a rule hands over; the engine adds the rest. */
export type Found = {
  /** Tells this finding from others of the rule. */
  key?: string;
  text: string;
  series?: string | undefined;
  session?: string | undefined;
  fix?: Finding['fix'];
  level?: Level;
};
