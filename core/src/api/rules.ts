import { z } from 'zod';
import { DoorAtInput } from '../door/schema';
import type { WritingTime } from '../writing/index';
import { SomeWriting, WritingAtInput } from '../writing/schema';
import { CAPABILITY_IDS } from '../limits/capabilities';
import { Capability, Permission, SomeLimits } from '../limits/schema';
import type { RuleSheet } from '../limits/sheets';
import type { ProofLine } from '../room/proof';
import { RecordingAtInput } from '../recording/schema';
import { line, prose } from '../text/index';
import { AfterValues, RollValues, type Segment, type Settings } from '../settings/index';

/** The end of the year 2100: no term runs that long. */
const LAST_INSTANT = Date.UTC(2101, 0, 1);

const Id = z.string().min(1).max(20);
const Ids = z.array(Id).min(1).max(500);

/** Where rules are set: for the course, for some of its series, for some of its sessions. */
export const RulesAt = z.discriminatedUnion('layer', [
  z.object({ layer: z.literal('course') }),
  z.object({ layer: z.literal('series'), ids: Ids }),
  z.object({ layer: z.literal('session'), ids: Ids }),
]);
export type RulesAt = z.infer<typeof RulesAt>;

export const SegmentInput = z.object({
  title: line('Give it a title.', 90),
  minutes: z.int('Give whole minutes.').min(1, 'At least a minute.').max(720, 'At most 720 minutes.'),
  sheet: Id.nullable().default(null),
  recording: z.enum(['on', 'paused']).nullable().default(null),
  timed: z.boolean().optional(),
  note: prose(500),
});
export type SegmentInput = z.infer<typeof SegmentInput>;

/** What is set there: each only where it is named. Null takes back what was said, so that the wider place holds again. */
export const RulesInput = z.object({
  at: RulesAt,
  sheet: Id.nullable().optional(),
  limits: z.partialRecord(Capability, Permission.nullable()).optional(),
  segments: z.array(SegmentInput).max(50, 'At most 50 segments.').nullable().optional(),
  door: DoorAtInput.optional(),
  writing: WritingAtInput.optional(),
  roll: RollValues.partial().optional(),
  after: AfterValues.partial().optional(),
  recording: RecordingAtInput.optional(),
});
export type RulesInput = z.infer<typeof RulesInput>;

/** A rule sheet of one's own: it says something of everything. */
export const SheetInput = z.object({
  name: line('Give it a name.', 60),
  about: line('', 120, 0).default(''),
  limits: SomeLimits.refine((limits) => CAPABILITY_IDS.every((c) => limits[c]), {
    message: 'A sheet says something of everything.',
  }),
  writing: SomeWriting.default({}),
});
export type SheetInput = z.infer<typeof SheetInput>;

export const ExceptionInput = z
  .object({
    member: Id,
    capability: Capability,
    state: Permission,
    /** Instant, ms; null is without end. */
    until: z.number().int().positive().max(LAST_INSTANT, 'This is too far away.').nullable(),
    reason: prose(300),
  })
  .superRefine(({ capability, state }, ctx) => {
    const told = SomeLimits.safeParse({ [capability]: state });
    if (!told.success)
      ctx.addIssue({ code: 'custom', path: ['state'], message: told.error.issues[0]!.message });
  });
export type ExceptionInput = z.infer<typeof ExceptionInput>;

/** The same for the college as a whole: every course has it from there. */
export const CollegeRulesInput = RulesInput.pick({ limits: true, door: true, writing: true }).refine(
  ({ limits, door, writing }) => limits || door || writing,
  'Say what is to be set.',
);
export type CollegeRulesInput = z.infer<typeof CollegeRulesInput>;

/** What the college says of itself, and the latest change of it that can be taken back. */
export interface CollegeRules {
  limits: Settings['limits'];
  writing: Settings['writing'];
  door: Settings['door'];
  latest: RulesDetail['latest'];
  on: string;
}

/** What one place says of itself. */
export interface RulesPlace {
  /** The sheet that was applied here. */
  sheet: string | null;
  /** What is said here otherwise than the sheet. */
  differ: (Capability | WritingTime)[];
  limits: Settings['limits'];
  writing: Settings['writing'];
  door: Settings['door'];
  recording: Settings['recording'];
  /** Null where the wider place's holds. */
  segments: Segment[] | null;
}

export interface ExceptionInfo {
  id: string;
  member: string;
  name: string;
  capability: Capability;
  state: Permission;
  until: number | null;
  reason: string;
  by: string;
  at: number;
}

/** Everything that is set of what students may do in a course, place by place. */
export interface RulesDetail {
  sheets: RuleSheet[];
  college: RulesPlace;
  course: RulesPlace;
  series: (RulesPlace & { id: string })[];
  /** Those that say something of their own. */
  sessions: (RulesPlace & { id: string })[];
  exceptions: ExceptionInfo[];
  /** Who is let in without knocking, since a teacher said so in class. */
  always: { member: string; name: string }[];
  /** Names of those who set something. */
  names: Record<string, string>;
  /** The latest change that can be taken back. */
  latest: { id: string; at: number; words: string } | null;
  /** The state that all this is of: an edit made on another is refused. */
  on: string;
}

/** Where a sheet is used: what changes with it. */
export interface SheetUse {
  course: string;
  what: string;
  /** How many of its values follow the sheet here. */
  following: number;
}

/** What every student may do in a session, at a part of its run sheet, or as its class is now. */
export interface SessionProof {
  live: boolean;
  part: number | null;
  /** The titles of its run sheet. */
  parts: string[];
  people: ProofLine[];
}

/** A segment of a run sheet as it was held; instants in ms. */
export interface HeldSegmentInfo {
  session: string;
  startsAt: number;
  title: string;
  /** As planned. */
  minutes: number;
  from: number;
  until: number;
}
