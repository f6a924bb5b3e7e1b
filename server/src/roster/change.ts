import type { LetterTopic, ListOutcome, MemberScope, Role } from '@nimble-bell/core/api';
import { countWords, zoneWords } from '@nimble-bell/core/calendar';
import { newId } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { json, rows, run, type Db } from '../db/pool';
import { AppError } from '../errors';
import { invitedOf, queueLetters } from '../mail/queue';
import { mayWatch } from '@nimble-bell/core/recording';
import { recordingsWhere } from '../recordings/store';
import { givePins } from './pins';
import { isFor, targetOf } from '@nimble-bell/core/roster';

/** One line of a class list as its rows, those of the person among them. */
export interface ListRecord {
  id: string;
  personId: string;
  name: string;
  email: string;
  zone: string;
  role: Role;
  group: string | null;
  link: string;
  linkAt: number | null;
  linkUntil: number | null;
  leftAt: number | null;
  extra: Record<string, string>;
  scope: MemberScope | null;
}

export interface ListChangeRow {
  before: ListRecord | null;
  after: ListRecord;
}

/** Everyone who is or was on a class list, the rows locked until the transaction ends. */
export async function listSnapshot(db: Db, course: string): Promise<Map<string, ListRecord>> {
  const found = await rows<ListRecord & { extra: unknown; scope: unknown }>(
    db,
    `SELECT m.id, m.person_id AS personId, COALESCE(m.own_name, p.name) AS name, p.email,
            COALESCE(m.own_zone, p.zone) AS zone, m.role, m.group_name AS \`group\`, m.link_code AS link,
            m.link_at AS linkAt, m.link_until AS linkUntil, m.left_at AS leftAt, m.extra, m.scope
       FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? FOR UPDATE`,
    [course],
  );
  return new Map(
    found.map((m) => [m.id, { ...m, extra: json(m.extra), scope: m.scope === null ? null : json(m.scope) }]),
  );
}

export interface ListChange {
  courseId: string;
  by: string;
  now: number;
  /** Whether those who are new get their invitation at once; `again`: only those who had one before. */
  invite: boolean | 'again';
  /** Does the change and gives it in words. */
  make: () => Promise<string>;
}

/**
 * Does a change of a class list in the caller's transaction and tells what came of it: what it is for each person, and
 * who is written to. It is kept in the history with the rows before and after. Rolled back, it was a preview.
 */
export async function changeList(db: Db, change: ListChange): Promise<ListOutcome> {
  const { courseId, by, now, invite } = change;
  const before = await listSnapshot(db, courseId);
  const words = await change.make();
  await givePins(db, courseId);
  const after = await listSnapshot(db, courseId);
  const diff: ListChangeRow[] = [...after.values()]
    .map((record) => ({ before: before.get(record.id) ?? null, after: record }))
    .filter((c) => JSON.stringify(c.before) !== JSON.stringify(c.after));
  if (!diff.length) throw new AppError('no-change');
  const changeId = newId();
  await run(
    db,
    'INSERT INTO list_changes (id, course_id, at, made_by, words, body) VALUES (?, ?, ?, ?, ?, ?)',
    [changeId, courseId, now, by, words.slice(0, 255), JSON.stringify(diff)],
  );
  const reach = await reachIn(db, courseId, now);
  const mail = await queueFor(db, { courseId, changeId, now, invite }, diff);
  return {
    changeId,
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
  // A new address has an empty calendar; so has somebody who comes back.
  const anew = diff
    .filter((c) => !isOn(c.before) || c.before!.email !== c.after.email)
    .map((c) => c.after.id);
  const back = anew.filter((id) => diff.some((c) => c.after.id === id && c.before));
  if (back.length) await run(db, 'DELETE FROM calendar_copies WHERE member_id IN (?)', [back]);
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
      const watches = ready.filter((r) => mayWatch(r, record)).length;
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
  for (const heading of headings.filter((h) => before!.extra[h] !== after.extra[h]))
    parts.push(`${heading} ${after.extra[heading] ?? 'empty'}`);
  return parts.join(', ') || 'stays as it was';
}

/** Writes a record's fields; the address, which is the person's own, only where it was corrected for the same person. */
export async function writeRecord(db: Db, record: ListRecord, samePerson: boolean) {
  await run(
    db,
    `UPDATE enrolments SET person_id = ?, role = ?, group_name = ?, link_code = ?, link_at = ?, link_until = ?, left_at = ?,
       extra = ?, scope = ?, own_name = ?, own_zone = ? WHERE id = ?`,
    [
      record.personId,
      record.role,
      record.group,
      record.link,
      record.linkAt,
      record.linkUntil,
      record.leftAt,
      JSON.stringify(record.extra),
      record.scope ? JSON.stringify(record.scope) : null,
      record.name,
      record.zone,
      record.id,
    ],
  );
  if (samePerson) await run(db, 'UPDATE people SET email = ? WHERE id = ?', [record.email, record.personId]);
}

/** Goes back to the rows before a change. Who was new then leaves again. */
export async function undoRows(db: Db, diff: readonly ListChangeRow[], now: number) {
  for (const { before, after } of diff)
    if (before) await writeRecord(db, before, before.personId === after.personId);
    else await run(db, 'UPDATE enrolments SET left_at = ? WHERE id = ?', [now, after.id]);
}
