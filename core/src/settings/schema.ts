import { z } from 'zod';
import { Capability, Permission } from '../limits/schema';
import { AROUND, ENTRIES, LAYERS, LEAVABLE } from './values';

export const LayerName = z.enum(LAYERS);
export type LayerName = z.infer<typeof LayerName>;

const set = <T extends z.ZodType>(value: T) =>
  z.object({ value, by: z.string().max(40).nullable(), at: z.number().nullable() });

export const Entry = z.enum(ENTRIES);
export type Entry = z.infer<typeof Entry>;

/** Who may enter when, and how: what each value can be. */
export const DoorValues = z.object({
  /** Students may enter from this many minutes before the start. */
  opensMinutesBefore: z.int('Give whole minutes.').min(0).max(240, 'At most 240 minutes.'),
  /** Nobody but teachers enters before a teacher has rung in. */
  teacherFirst: z.boolean(),
  /** How those on the class list come in. */
  classList: Entry.exclude(['not']),
  /** How guests come in: who is invited for this course alone. */
  guests: Entry,
  /** How somebody with an account of the college comes in who is not on the class list, by the class link. */
  accounts: Entry,
  /** How somebody without an account comes in by the class link; as guests do, where nothing is said. */
  visitors: Entry,
  /** How a caller comes in, where that is stricter. */
  telephone: Entry,
  /** A class that nobody who teaches is in closes after so many minutes. */
  aloneMinutes: z.int('Give whole minutes.').min(1).max(60, 'At most 60 minutes.'),
  /** From so many minutes after the start one is late. */
  lateMinutes: z.int('Give whole minutes.').min(0).max(240, 'At most 240 minutes.'),
  /** How who is late comes in, where that is stricter. */
  late: Entry,
  /** Whether students may come with their camera on. Microphones are always off. */
  cameras: z.enum(['off', 'choice']),
  /** Who is told of everybody who comes and goes, and how. */
  arrivalsFor: z.enum(['nobody', 'teachers', 'everyone']),
  arrivalsBy: z.enum(['line', 'bell']),
  /** Where nobody has rung in so many minutes after the start, the others who teach are told; 0: nobody is. */
  missingMinutes: z.int('Give whole minutes.').min(0).max(60, 'At most 60 minutes.'),
});
const { shape: DOOR } = DoorValues;

const DoorSettings = z
  .object({
    opensMinutesBefore: set(DOOR.opensMinutesBefore),
    teacherFirst: set(DOOR.teacherFirst),
    classList: set(DOOR.classList),
    guests: set(DOOR.guests),
    accounts: set(DOOR.accounts),
    visitors: set(DOOR.visitors),
    telephone: set(DOOR.telephone),
    aloneMinutes: set(DOOR.aloneMinutes),
    lateMinutes: set(DOOR.lateMinutes),
    late: set(DOOR.late),
    cameras: set(DOOR.cameras),
    arrivalsFor: set(DOOR.arrivalsFor),
    arrivalsBy: set(DOOR.arrivalsBy),
    missingMinutes: set(DOOR.missingMinutes),
  })
  .partial();

export const Leavable = z.enum(LEAVABLE);
export type Leavable = z.infer<typeof Leavable>;

/** Whom alone a recording is for, of those it would be for: these groups, and these members. */
export const OnlyFor = z.object({
  groups: z.array(z.string().max(60)).max(60),
  members: z.array(z.string().max(20)).max(400),
});
export type OnlyFor = z.infer<typeof OnlyFor>;
const Days = z.int('Give whole days.').min(0).max(365, 'At most 365 days.');
/** When students may watch: so many days after class, and for so many from then on; 0: as long as it is kept. */
export const WatchTimes = z.object({ watchAfterDays: Days, watchForDays: Days });

/** With what a recording begins: ring-in, the planned start, the segment of that number, or a teacher's hand. */
export const Begins = z.union([z.enum(['ringIn', 'start', 'hand']), z.int().min(2).max(20)]);
export type Begins = z.infer<typeof Begins>;
/** With what it ends: dismissal, or the planned end, so that lingering is not in it. */
export const Ends = z.enum(['dismissal', 'end']);
export type Ends = z.infer<typeof Ends>;

const RecordingSettings = z
  .object({
    /** Whether sessions are recorded without anybody asking for it; by hand: whether they may be. */
    automatic: set(z.boolean()),
    begins: set(Begins),
    ends: set(Ends),
    /** Local date. */
    keepUntil: set(z.string().max(10)),
    studentsWatch: set(z.boolean()),
    studentsDownload: set(z.boolean()),
    leavesOut: set(z.array(Leavable).max(LEAVABLE.length)),
    /** Whether students’ cameras are kept, while they have the floor. */
    studentsCameras: set(z.boolean()),
    /** Whether what is said at tables is kept, each table’s by itself. */
    tables: set(z.boolean()),
    /** Whether everybody is told when it can be watched, and not those alone who were absent. */
    tellsAll: set(z.boolean()),
    watchAfterDays: set(WatchTimes.shape.watchAfterDays),
    watchForDays: set(WatchTimes.shape.watchForDays),
    onlyFor: set(OnlyFor),
  })
  .partial();

/** A planned stretch of a session. */
export const Segment = z.object({
  title: z.string().max(90),
  minutes: z.number().min(0).max(720),
  /** The rule sheet that it goes by, and what that says of limits: a room does not look it up. */
  sheet: z.string().max(20).nullable().default(null),
  limits: z.partialRecord(Capability, Permission).default({}),
  /** What becomes of the recording; null leaves it as it is. */
  recording: z.enum(['on', 'paused']).nullable().default(null),
  /** Everybody sees its minutes run out. */
  timed: z.boolean().optional(),
  /** For those who teach alone: it never reaches a room. */
  note: z.string().max(500).default(''),
});
export type Segment = z.infer<typeof Segment>;

const WritingSettings = z
  .object({
    aheadHours: set(z.number()),
    early: set(z.enum(AROUND)),
    linger: set(z.enum(AROUND)),
    afterHours: set(z.number()),
  })
  .partial();

/** What a roll counts: values as a form sends them. */
export const RollValues = z.object({
  lateAfterMinutes: z.int('Give whole minutes.').min(0).max(120, 'At most 120 minutes.'),
  earlyBeforeMinutes: z.int('Give whole minutes.').min(0).max(120, 'At most 120 minutes.'),
  enoughMinutes: z.int('Give whole minutes.').min(0).max(720, 'At most 720 minutes.'),
});
const RollSettings = z
  .object({
    lateAfterMinutes: set(RollValues.shape.lateAfterMinutes),
    earlyBeforeMinutes: set(RollValues.shape.earlyBeforeMinutes),
    enoughMinutes: set(RollValues.shape.enoughMinutes),
  })
  .partial();

/** What comes after class, and what is counted: values as a form sends them. */
export const AfterValues = z.object({
  /** Whether it is counted how much each takes part, and what a minute, a line, a hand and an answer are worth. */
  participation: z.boolean(),
  perMinute: z.int('Give whole numbers.').min(0).max(100, 'At most 100.'),
  perLine: z.int('Give whole numbers.').min(0).max(100, 'At most 100.'),
  perHand: z.int('Give whole numbers.').min(0).max(100, 'At most 100.'),
  perAnswer: z.int('Give whole numbers.').min(0).max(100, 'At most 100.'),
  /** Whether the class is asked what it thought. */
  thoughts: z.boolean(),
  /** Whether it is counted who watches recordings, and what of them. */
  watching: z.boolean(),
});
export type AfterValues = z.infer<typeof AfterValues>;
const AfterSettings = z
  .object({
    participation: set(AfterValues.shape.participation),
    perMinute: set(AfterValues.shape.perMinute),
    perLine: set(AfterValues.shape.perLine),
    perHand: set(AfterValues.shape.perHand),
    perAnswer: set(AfterValues.shape.perAnswer),
    thoughts: set(AfterValues.shape.thoughts),
    watching: set(AfterValues.shape.watching),
  })
  .partial();

/**
 * What one place says: of limits, writing at other times, door, recording, roll, what comes after and run sheet, each only where it says
 * something. The same shape at college, course, series and session.
 */
export const Settings = z.object({
  /** The rule sheet that was applied here: its values stand among the limits, and follow it when it is edited. */
  sheet: z
    .object({ applied: set(z.string().max(20)) })
    .partial()
    .default({}),
  limits: z.partialRecord(Capability, set(Permission)).default({}),
  writing: WritingSettings.default({}),
  door: DoorSettings.default({}),
  recording: RecordingSettings.default({}),
  roll: RollSettings.default({}),
  after: AfterSettings.default({}),
  runSheet: z
    .object({ segments: set(z.array(Segment).max(50)) })
    .partial()
    .default({}),
});
export type Settings = z.infer<typeof Settings>;
export type Section = keyof Settings;
