import { withValues, type Settings } from '../settings/index';
import { SHOWN_CAPABILITIES, type Capability, type Permission } from './capabilities';
import type { SomeLimits } from './schema';

/** A named set of limits: the college's, shipped with the product, or a teacher's own. */
export interface RuleSheet {
  id: string;
  name: string;
  /** When one uses it, in a line. */
  about: string;
  limits: SomeLimits;
  /** One's own can be edited. */
  own: boolean;
}

const sheet = (id: string, name: string, about: string, limits: SomeLimits): RuleSheet => ({
  id,
  name,
  about,
  limits,
  own: false,
});

const CLOSED: SomeLimits = {
  speak: 'closed',
  camera: 'closed',
  present: 'closed',
  draw: 'closed',
  writeToClass: 'closed',
  writeToTeachers: 'open',
  writeToStudents: 'closed',
  rename: 'closed',
};

/** The college's own sheets. */
export const SHIPPED_SHEETS: readonly RuleSheet[] = [
  sheet('lecture', 'Lecture', 'One speaks, questions by hand or in writing', {
    ...CLOSED,
    speak: 'byHand',
    camera: 'open',
    writeToClass: 'open',
  }),
  sheet('discussion', 'Discussion', 'Everybody speaks, shows and writes', {
    ...CLOSED,
    speak: 'open',
    camera: 'open',
    present: 'byHand',
    draw: 'open',
    writeToClass: 'open',
  }),
  sheet('examination', 'Examination', 'Seen, silent, a teacher can be written to', {
    ...CLOSED,
    camera: 'open',
  }),
  sheet('group-work', 'Group work', 'Among themselves everything is open', {
    ...CLOSED,
    speak: 'open',
    camera: 'open',
    present: 'open',
    draw: 'open',
    writeToClass: 'open',
    writeToStudents: 'open',
  }),
  sheet('young-pupils', 'Young pupils', 'By hand, and nothing that no teacher reads', {
    ...CLOSED,
    speak: 'byHand',
    camera: 'byHand',
    draw: 'byHand',
    writeToClass: 'byHand',
  }),
];

const ofSheet = (limits: SomeLimits) =>
  Object.fromEntries(SHOWN_CAPABILITIES.map((c) => [c, limits[c]])) as Record<
    Capability,
    Permission | undefined
  >;

/** Settings under a sheet: it says all its values here, in place of what was said. */
export const underSheet = (
  settings: Settings,
  { id, limits }: Pick<RuleSheet, 'id' | 'limits'>,
  by: string | null,
  at: number,
) => withValues(withValues(settings, 'limits', ofSheet(limits), by, at), 'sheet', { applied: id }, by, at);

/** Settings that no sheet holds any more; what deviates from it stays said. */
export function withoutSheet(settings: Settings, limits: SomeLimits): Settings {
  const same = SHOWN_CAPABILITIES.filter((c) => settings.limits[c]?.value === limits[c]);
  const silent = Object.fromEntries(same.map((c) => [c, undefined]));
  return withValues(
    withValues(settings, 'limits', silent, null, 0),
    'sheet',
    { applied: undefined },
    null,
    0,
  );
}

/** What was said here otherwise than the sheet that holds. */
export const deviations = ({ limits }: Settings, sheet: Pick<RuleSheet, 'limits'>): Capability[] =>
  SHOWN_CAPABILITIES.filter((c) => limits[c]?.value !== sheet.limits[c]);

/** Settings after their sheet was edited: what followed it follows, what deviates stays. */
export function followSheet(
  settings: Settings,
  before: SomeLimits,
  after: SomeLimits,
  by: string | null,
  at: number,
): Settings {
  const following = SHOWN_CAPABILITIES.filter((c) => settings.limits[c]?.value === before[c]);
  return withValues(settings, 'limits', Object.fromEntries(following.map((c) => [c, after[c]])), by, at);
}
