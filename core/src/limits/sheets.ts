import { withValues, type Settings } from '../settings/index';
import { CAPABILITY_IDS, type Capability, type Permission } from './capabilities';
import type { SomeWriting } from '../writing/schema';
import { WRITING_ROWS, type WritingTime } from '../writing/index';
import type { SomeLimits } from './schema';

/** What a sheet says: of everything in class; of writing at other times, where it says something. */
export interface SheetSays {
  limits: SomeLimits;
  writing?: SomeWriting;
}

/** A named set of limits: the college's, shipped with the product, or a teacher's own. */
export interface RuleSheet extends SheetSays {
  id: string;
  name: string;
  /** When one uses it, in a line. */
  about: string;
  /** One's own can be edited. */
  own: boolean;
}

const sheet = (
  id: string,
  name: string,
  about: string,
  limits: SomeLimits,
  writing: SomeWriting,
): RuleSheet => ({ id, name, about, limits, writing, own: false });

/** From a day before until a week after, and in the room as in class. */
const DAY_TO_WEEK: SomeWriting = { aheadHours: 24, early: 'asInClass', linger: 'asInClass', afterHours: 168 };

/** Nothing is said, shown or written. What is seen of one another the course says, for all its parts. */
const CLOSED: SomeLimits = {
  speak: 'closed',
  camera: 'closed',
  present: 'closed',
  draw: 'closed',
  writeToClass: 'closed',
  writeToTeachers: 'open',
  writeToStudents: 'closed',
  attachFiles: 'closed',
  writeNotes: 'closed',
  rename: 'closed',
};

/** The college's own sheets. */
export const SHIPPED_SHEETS: readonly RuleSheet[] = [
  sheet(
    'lecture',
    'Lecture',
    'One speaks, questions by hand or in writing',
    {
      ...CLOSED,
      speak: 'byHand',
      camera: 'open',
      writeToClass: 'open',
    },
    DAY_TO_WEEK,
  ),
  sheet(
    'discussion',
    'Discussion',
    'Everybody speaks, shows and writes',
    {
      ...CLOSED,
      speak: 'open',
      camera: 'open',
      present: 'byHand',
      draw: 'open',
      writeToClass: 'open',
      writeNotes: 'open',
    },
    DAY_TO_WEEK,
  ),
  sheet(
    'examination',
    'Examination',
    'Seen by teachers alone, silent, a teacher can be written to',
    {
      ...CLOSED,
      camera: 'open',
      react: 'closed',
      seeCameras: 'closed',
      seeMarks: 'closed',
    },
    { aheadHours: 0, early: 'teachers', linger: 'teachers', afterHours: 0 },
  ),
  sheet(
    'group-work',
    'Group work',
    'Among themselves everything is open',
    {
      ...CLOSED,
      speak: 'open',
      camera: 'open',
      present: 'open',
      draw: 'open',
      writeToClass: 'open',
      writeToStudents: 'open',
      attachFiles: 'open',
      writeNotes: 'open',
    },
    { ...DAY_TO_WEEK, aheadHours: 168 },
  ),
  sheet(
    'young-pupils',
    'Young pupils',
    'By hand, and nothing that no teacher reads',
    {
      ...CLOSED,
      speak: 'byHand',
      camera: 'byHand',
      draw: 'byHand',
      writeToClass: 'byHand',
    },
    { aheadHours: 0, early: 'teachers', linger: 'teachers', afterHours: 0 },
  ),
];

const ofSheet = (limits: SomeLimits) =>
  Object.fromEntries(CAPABILITY_IDS.map((c) => [c, limits[c]])) as Record<Capability, Permission | undefined>;

const WRITING_KEYS = WRITING_ROWS.map((r) => r.key);
type Values = { [K in WritingTime]?: never };
/** Some of the times of writing, as `withValues` takes them. */
const times = (keys: readonly WritingTime[], of: SomeWriting | null) =>
  Object.fromEntries(keys.map((k) => [k, of?.[k]])) as Values;

/** Settings under a sheet: it says all its values here, in place of what was said. */
export function underSheet(
  settings: Settings,
  { id, limits, writing = {} }: SheetSays & Pick<RuleSheet, 'id'>,
  by: string | null,
  at: number,
): Settings {
  const limited = withValues(settings, 'limits', ofSheet(limits), by, at);
  const timed = withValues(limited, 'writing', times(WRITING_KEYS, writing), by, at);
  return withValues(timed, 'sheet', { applied: id }, by, at);
}

const saidOf = ({ limits }: Settings, says: SheetSays) =>
  CAPABILITY_IDS.filter((c) => limits[c]?.value === says.limits[c]);
const timesOf = ({ writing }: Settings, says: SheetSays) =>
  WRITING_KEYS.filter((k) => writing[k]?.value === says.writing?.[k]);

/** Settings that no sheet holds any more; what deviates from it stays said. */
export function withoutSheet(settings: Settings, says: SheetSays): Settings {
  const silent = Object.fromEntries(saidOf(settings, says).map((c) => [c, undefined]));
  const limited = withValues(settings, 'limits', silent, null, 0);
  const timed = withValues(limited, 'writing', times(timesOf(settings, says), null), null, 0);
  return withValues(timed, 'sheet', { applied: undefined }, null, 0);
}

/** What was said here otherwise than the sheet that holds. */
export const deviations = (settings: Settings, says: SheetSays): (Capability | WritingTime)[] => [
  ...CAPABILITY_IDS.filter((c) => !saidOf(settings, says).includes(c)),
  ...WRITING_KEYS.filter((k) => !timesOf(settings, says).includes(k)),
];

/** Settings after their sheet was edited: what followed it follows, what deviates stays. */
export function followSheet(
  settings: Settings,
  before: SheetSays,
  after: SheetSays,
  by: string | null,
  at: number,
): Settings {
  const limits = Object.fromEntries(saidOf(settings, before).map((c) => [c, after.limits[c]]));
  const limited = withValues(settings, 'limits', limits, by, at);
  return withValues(limited, 'writing', times(timesOf(settings, before), after.writing ?? {}), by, at);
}
