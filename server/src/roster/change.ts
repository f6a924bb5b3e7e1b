import type { LetterTopic, ListOutcome } from '@nimble-bell/core/api';
import { countWords, listWords, zoneWords } from '@nimble-bell/core/calendar';
import { newId } from '../context';
import { sessionsOfCourse } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { queueLetters } from '../mail/queue';
import { mayWatch } from '@nimble-bell/core/recording';
import { recordingsWhere } from '../recordings/store';
import { givePins } from './pins';
import { isFor, ownValue, targetOf } from '@nimble-bell/core/roster';
import { invitedOf } from '../mail/store';
import { keepEntry } from '../history/store';
import { emptyCalendars, leaveList, listSnapshot, writeSome, type ListRecord } from './store';

export interface ListChangeRow {
  before: ListRecord | null;
  after: ListRecord;
}

export interface ListChange {
  courseId: string;
  by: string;
  now: number;
  /** Whether those who are new get their invitation at once; `again`: only those who had one before. */
  invite: boolean | 'again';
  /** The history's latest entry before it. */
  on?: string;
  /** Does the change and gives it in words. */
  make: () => Promise<string>;
  /** Whether nothing changed is no refusal. */
  mayBeEmpty?: boolean;
  /** It takes another one back. */
  undoing?: boolean;
}

/**
 * Does a change of a class list in the caller's transaction and tells what came of it: what it is for each person, and
 * who is written to. It is kept in the history with the rows before and after. Rolled back, it was a preview.
 */
export async function changeList(db: Db, change: ListChange): Promise<ListOutcome> {
  const { courseId, by, now, invite, on = '', undoing = false } = change;
  const before = await listSnapshot(db, courseId);
  const words = await change.make();
  await givePins(db, courseId);
  const after = await listSnapshot(db, courseId);
  const diff: ListChangeRow[] = [...after.values()]
    .map((record) => ({ before: before.get(record.id) ?? null, after: record }))
    .filter((c) => JSON.stringify(c.before) !== JSON.stringify(c.after));
  if (!diff.length) {
    if (change.mayBeEmpty) return { changeId: null, on, words, people: [], mail: [] };
    throw new AppError('no-change');
  }
  const changeId = newId();
  await keepEntry(db, 'list_changes', { id: changeId, courseId, at: now, by, words, body: diff, undoing });
  const reach = await reachIn(db, courseId, now);
  const mail = await queueFor(db, { courseId, changeId, now, invite }, diff);
  return {
    changeId,
    on,
    words,
    people: diff.map((c) => ({ member: c.after.id, name: c.after.name, words: rowWords(c, reach) })),
    mail,
  };
}

const isOn = (record: ListRecord | null): boolean => record !== null && record.leftAt === null;

/** What is written to somebody whose line changed; nothing to those who were never invited. */
function topicOf(c: ListChangeRow, invited: boolean, invite: ListChange['invite']): LetterTopic | null {
  const { before, after } = c;
  const comes = invite === 'again' ? invited : invite;
  if (!isOn(before)) return isOn(after) && comes ? 'invitation' : null;
  if (!invited) return null;
  if (!isOn(after)) return 'goodbye';
  if (before!.email !== after.email) return 'invitation';
  if (before!.link !== after.link) return 'link';
  const differs =
    before!.group !== after.group || JSON.stringify(before!.scope) !== JSON.stringify(after.scope);
  return differs ? 'update' : null;
}

async function queueFor(
  db: Db,
  {
    courseId,
    changeId,
    now,
    invite,
  }: { courseId: string; changeId: string; now: number; invite: ListChange['invite'] },
  diff: readonly ListChangeRow[],
): Promise<ListOutcome['mail']> {
  const invited = await invitedOf(db, courseId);
  const topics = new Map<LetterTopic, ListRecord[]>();
  for (const c of diff) {
    const topic = topicOf(c, invited.has(c.after.id), invite);
    if (topic) topics.set(topic, [...(topics.get(topic) ?? []), c.after]);
  }
  // A new address has an empty calendar. Who comes back holds what their letters left there.
  const back = diff.filter((c) => c.before && c.before.email !== c.after.email).map((c) => c.after.id);
  if (back.length) await emptyCalendars(db, back);
  for (const [topic, people] of topics)
    await queueLetters(db, {
      courseId,
      topic,
      cause: changeId,
      members: people.map((p) => p.id),
      dueAt: now,
    });
  return [...topics].map(([topic, people]) => ({
    topic,
    count: people.length,
    names: people.map((p) => p.name),
  }));
}

const FIELD_WORDS: { field: keyof ListRecord; label: string; say: (value: ListRecord) => string }[] = [
  { field: 'name', label: 'name', say: (r) => r.name },
  { field: 'email', label: 'address', say: (r) => r.email },
  { field: 'zone', label: 'zone', say: (r) => zoneWords(r.zone) },
  { field: 'role', label: 'role', say: (r) => r.role },
  { field: 'group', label: 'group', say: (r) => r.group ?? 'none' },
];

/** What of a course a person reaches, in words. */
type Reach = (record: ListRecord) => string;

async function reachIn(db: Db, courseId: string, now: number): Promise<Reach> {
  const [sessions, recordings] = await Promise.all([
    sessionsOfCourse(db, courseId),
    recordingsWhere(db, 's.course_id', courseId),
  ]);
  const ahead = sessions.filter((s) => s.endsAt > now && s.state !== 'cancelled');
  const ready = recordings.filter((r) => r.state === 'ready');
  const known = new Map<string, string>();
  return (record) => {
    const key = JSON.stringify([record.role, record.group, record.scope]);
    if (!known.has(key)) {
      const attends = ahead.filter((s) => isFor(targetOf(s), record)).length;
      const watches = ready.filter((r) => mayWatch(r, { ...record, id: '' }, now)).length;
      const words = `${countWords(attends, 'session')} ahead`;
      known.set(key, watches ? `${words} and ${countWords(watches, 'recording')} to watch` : words);
    }
    return known.get(key)!;
  };
}

function rowWords({ before, after }: ListChangeRow, reach: Reach): string {
  if (!isOn(before))
    return isOn(after)
      ? `${before ? 'is back on the list' : 'is new'}, with ${reach(after)}`
      : 'stays off the list';
  if (!isOn(after)) return 'leaves: the link, later sessions, recordings and files are shut at once';
  const parts = FIELD_WORDS.filter(({ field }) => before![field] !== after[field]).map(
    ({ label, say }) => `${label} ${say(after)} instead of ${say(before!)}`,
  );
  if (before!.link !== after.link) parts.push('has a new link; the old one is dead');
  if (JSON.stringify(before!.scope) !== JSON.stringify(after.scope)) parts.push('is here for other sessions');
  if (reach(before!) !== reach(after)) parts.push(`has ${reach(after)} instead of ${reach(before!)}`);
  const headings = Object.keys({ ...before!.extra, ...after.extra });
  for (const heading of headings.filter((h) => ownValue(before!.extra, h) !== ownValue(after.extra, h)))
    parts.push(`${heading} ${ownValue(after.extra, heading) ?? 'empty'}`);
  return parts.join(', ') || 'stays as it was';
}

/** What of a change stands otherwise by now, and is left as it is. */
export interface Left {
  name: string;
  fields: string[];
}

/**
 * Takes a change back: of each line the fields that it changed, where they still are as it left them. Who was new then
 * leaves again. Gives what is left, because somebody changed it since.
 */
export async function undoRows(db: Db, courseId: string, diff: readonly ListChangeRow[], now: number) {
  const current = await listSnapshot(db, courseId);
  const left: Left[] = [];
  for (const { before, after } of diff) {
    const line = current.get(after.id);
    if (!line) continue;
    if (!before) {
      if (line.leftAt === null) await leaveList(db, now, [after.id]);
      continue;
    }
    const { back, kept } = backOf(before, after, line);
    if (Object.keys(back).length) await writeSome(db, after.id, back);
    if (kept.length) left.push({ name: line.name, fields: kept });
  }
  return left;
}

/** Whether nothing is left of a change to take back. */
export const isSpent = (diff: readonly ListChangeRow[], current: ReadonlyMap<string, ListRecord>): boolean =>
  diff.every(({ before, after }) => {
    const line = current.get(after.id);
    if (!line) return true;
    return before ? !Object.keys(backOf(before, after, line).back).length : line.leftAt !== null;
  });

type Field = keyof ListRecord;
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** A person's address belongs to the person: both change together. A link and its PIN do too. */
const TOGETHER: Field[][] = [
  ['personId', 'email'],
  ['link', 'linkAt', 'pin'],
  ['name', 'ownName'],
  ['zone', 'ownZone'],
];
const together = (field: Field) => TOGETHER.find((t) => t.includes(field)) ?? [field];

/** Of what a change did to a line: what is put back, and what stands otherwise by now. */
export function backOf(before: ListRecord, after: ListRecord, now: ListRecord) {
  const back: Partial<ListRecord> = {};
  const kept: string[] = [];
  // Changes from before PINs were kept in the history say nothing of them.
  const fields = (Object.keys(before) as Field[]).filter((f) => f in after && !same(before[f], after[f]));
  for (const field of fields) {
    const whole = together(field).filter((f) => f in before && f in after);
    if (whole.every((f) => same(now[f], after[f]))) Object.assign(back, { [field]: before[field] });
    else if (field in WORDS_OF_FIELD) kept.push(WORDS_OF_FIELD[field]!);
  }
  // What the course itself says is put back as it was, also where that was nothing.
  if ('ownName' in before) delete back.name;
  if ('ownZone' in before) delete back.zone;
  // Where the line becomes another person's again, that person's address is its own.
  if (back.personId !== undefined && back.personId !== now.personId) delete back.email;
  return { back, kept };
}

const WORDS_OF_FIELD: { [K in Field]?: string } = {
  name: 'name',
  email: 'address',
  zone: 'zone',
  role: 'role',
  group: 'group',
  link: 'link',
  scope: 'sessions',
  extra: 'other columns',
  leftAt: 'place on the list',
};

/** What an undoing left as it was, in words; nothing where it put everything back. */
export const leftWords = (left: readonly Left[]): string =>
  left.length
    ? `; as it was changed since stays ${listWords(left.map((l) => `the ${listWords(l.fields)} of ${l.name}`))}`
    : '';
