import { countWords, dayWords, namesWords } from '../calendar/words';
import type { Begins, Ends, Leavable, OnlyFor } from '../settings/index';
import { keepsStudents, keepsTables } from './leftOut';
import type { RecordingPlan } from './schema';

/** As what a recording can be without is called. */
export const LEAVABLE_WORDS: Record<Leavable, string> = {
  teachersVoices: 'teachers’ voices',
  teachersCameras: 'teachers’ cameras',
  screens: 'presented screens',
  studentsVoices: 'students’ voices',
  board: 'the board and the pages',
  writing: 'what is written to the class',
  notes: 'the class notes',
  captions: 'captions',
  names: 'names of students',
};

export const leftOutWords = (left: readonly Leavable[]): string =>
  namesWords(left.map((l) => LEAVABLE_WORDS[l]));

/** What of students is in it where their cameras are kept. */
export const FACES_WORDS = 'with the camera of a student who has the floor';

/** Who and what of students is in it beyond their voices in class. */
export const alsoWords = (plan: RecordingPlan): string =>
  `${keepsStudents(plan) ? `, ${FACES_WORDS}` : ''}${keepsTables(plan) ? ', with what is said at tables' : ''}`;

/** From when on a session is recorded. */
export const beginsWords = (begins: Begins = 'ringIn'): string =>
  typeof begins === 'number'
    ? `from segment ${begins} on`
    : { ringIn: 'from ring-in', start: 'from the planned start', hand: 'when a teacher begins it' }[begins];

/** Until when. */
export const endsWords = (ends: Ends = 'dismissal'): string =>
  ends === 'end' ? 'to the planned end' : 'to dismissal';

/** From when until when. */
export const whenWords = ({ begins, ends }: Pick<RecordingPlan, 'begins' | 'ends'>): string =>
  `${beginsWords(begins)}${begins === 'hand' ? ',' : ''} ${endsWords(ends)}`;

/** Whether sessions are recorded, for whom and until when, as students read it. */
export function recordingWords(plan: RecordingPlan | null): string {
  if (!plan) return 'Sessions are not recorded by themselves.';
  const { leavesOut = [], automatic, studentsWatch, studentsDownload, keepUntil } = plan;
  const without = leavesOut.length ? `, without ${leftOutWords(leavesOut)}` : '';
  const recorded =
    plan.begins === 'hand' ? 'A session is recorded when a teacher begins it' : 'Sessions are recorded';
  const made = `${automatic ? recorded : 'A session is recorded only when a teacher says so'}${without}${alsoWords(plan)}`;
  if (!studentsWatch) return `${made}, for those who teach alone, and kept until ${dayWords(keepUntil)}.`;
  const { watchAfterDays: after, watchForDays: during } = plan;
  const from = after ? ` from ${countWords(after, 'day')} after class` : '';
  const until = during ? `, for ${countWords(during, 'day')}` : ` until ${dayWords(keepUntil)}`;
  return `${made}. You can watch your own again${studentsDownload ? ', and download them,' : ''}${from}${until}.`;
}

/** What is said of one value, as one reads it in a history. */
export function recordingRuleWords(
  key: keyof RecordingPlan,
  value: boolean | string | number | readonly Leavable[] | OnlyFor,
): string {
  if (key === 'watchAfterDays')
    return value ? `watched from ${countWords(Number(value), 'day')} after class` : 'watched at once';
  if (key === 'watchForDays')
    return value ? `watched for ${countWords(Number(value), 'day')}` : 'watched as long as it is kept';
  if (key === 'onlyFor') return 'whom recordings are for';
  if (Array.isArray(value))
    return value.length ? `recorded without ${leftOutWords(value)}` : 'recorded whole';
  if (key === 'keepUntil') return `recordings kept until ${dayWords(String(value))}`;
  if (key === 'leavesOut') return '';
  if (key === 'begins') return `recorded ${beginsWords(value as Begins)}`;
  if (key === 'ends') return `recorded ${endsWords(value as Ends)}`;
  const words = {
    automatic: ['recorded by itself', 'not recorded by itself'],
    studentsCameras: ['recorded with students’ cameras', 'recorded without students’ cameras'],
    tables: ['recorded at tables too', 'not recorded at tables'],
    tellsAll: ['everybody is told of a recording', 'those who were absent are told of a recording'],
    studentsWatch: ['students may watch', 'students may not watch'],
    studentsDownload: ['students may download', 'students may not download'],
  }[key];
  return words[value ? 0 : 1]!;
}
