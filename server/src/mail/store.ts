import type { Delivery, LetterTopic, Reply, Role, Told } from '@nimble-bell/core/api';
import type { MemberRow } from '../accounts/store';
import { PLAIN, type Style } from '@nimble-bell/core/calendar';
import { NOBODYS } from '@nimble-bell/core/roster';
import { json, one, rows, run, type Db } from '../db/pool';

/** Teachers of these courses by name, those of the whole course first. */
export const teachersNames = (db: Db, courses: readonly string[]) =>
  rows<{ course: string; name: string }>(
    db,
    `SELECT m.course_id AS course, m.name FROM members m JOIN people p ON p.id = m.person_id
        WHERE m.course_id IN (?) AND m.role = 'teacher' ORDER BY m.scope IS NULL DESC, m.name`,
    [[...courses]],
  );

export const writeTelephone = (db: Db, number: null | string, courseId: string) =>
  run(db, 'UPDATE courses SET telephone = ? WHERE id = ?', [number, courseId]);

export const mailedNotices = (db: Db, courses: readonly string[]) =>
  rows<{ course: string; id: string; title: string; body: unknown }>(
    db,
    'SELECT course_id AS course, id, title, body FROM notices WHERE course_id IN (?) AND mailed_at IS NOT NULL',
    [[...courses]],
  );

/** Members who have left the list, as rows of theirs. */
export const membersGone = (db: Db, ids: readonly string[]) =>
  rows<MemberRow>(
    db,
    `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`,
              COALESCE(m.own_name, p.name) AS name, p.email, COALESCE(m.own_zone, p.zone) AS zone,
              m.link_code AS link, m.pin FROM enrolments m JOIN people p ON p.id = m.person_id
        WHERE m.id IN (?) AND m.left_at IS NOT NULL`,
    [[...ids]],
  );

/** Somebody who was invited, with what decides what they are told. */
export interface InvitedPerson extends Told {
  role: Role;
  scope: unknown;
}

/** Those of a course, its teachers aside, who were invited. */
export const invitedPeople = async (db: Db, courseId: string): Promise<InvitedPerson[]> =>
  (await invitedIn(db, [courseId])).get(courseId) ?? [];

/** The same of several courses, by course. */
export async function invitedIn(db: Db, courses: readonly string[]): Promise<Map<string, InvitedPerson[]>> {
  if (!courses.length) return new Map();
  const found = await rows<InvitedPerson & { course: string }>(
    db,
    `SELECT m.id AS member, m.course_id AS course, m.name, m.role, m.scope FROM members m JOIN people p ON p.id = m.person_id
      WHERE m.course_id IN (?) AND m.role <> 'teacher'
        AND EXISTS (SELECT 1 FROM jobs j WHERE j.member_id = m.id AND j.kind = 'mail' AND j.topic IN ('invitation', 'link'))
      ORDER BY m.name`,
    [[...courses]],
  );
  const byCourse = new Map<string, InvitedPerson[]>();
  for (const { course, ...person } of found) {
    const own = byCourse.get(course);
    if (own) own.push(person);
    else byCourse.set(course, [person]);
  }
  return byCourse;
}

/** Queues letters, each by its key: asking twice is harmless. */
/** Of these members those who can be written to, in their order. Of a rehearsal nobody is written to. */
export async function withAddress(db: Db, members: readonly string[]): Promise<string[]> {
  if (!members.length) return [];
  const without = await rows<{ id: string }>(
    db,
    'SELECT m.id FROM members m JOIN people p ON p.id = m.person_id WHERE m.id IN (?) AND (p.email LIKE ? OR m.course_id IN (SELECT course_id FROM rehearsals))',
    [[...members], `%${NOBODYS}`],
  );
  const nobody = new Set(without.map((m) => m.id));
  return members.filter((m) => !nobody.has(m));
}

export const insertLetters = (db: Db, jobs: readonly unknown[]) =>
  run(
    db,
    'INSERT IGNORE INTO jobs (kind, topic, job_key, course_id, member_id, payload, due_at, message_id) VALUES ?',
    [jobs],
  );

/** Courses with reminders or an invitation before each session, and sessions within that time. */
export const coursesWithTimed = (db: Db, now: number, until: number) =>
  rows<{ id: string }>(
    db,
    `SELECT DISTINCT c.id FROM courses c JOIN sessions s ON s.course_id = c.id
      WHERE (c.reminders <> '[]' OR c.invite_before IS NOT NULL) AND s.state IN ('planned', 'moved')
        AND s.starts_at > ? AND s.starts_at < ?`,
    [now, until],
  );

/** Letters to these people that wait to be composed. */
export const lettersWaiting = (db: Db, members: readonly string[]) =>
  rows<Waiting>(
    db,
    `SELECT topic, course_id AS course, member_id AS member, payload, due_at AS dueAt FROM jobs
      WHERE member_id IN (?) AND kind = 'mail' AND state = 'queued' AND letter IS NULL
        AND topic IN ('invitation', 'update', 'goodbye', 'link') ORDER BY id`,
    [[...members]],
  );

/** The columns of an answer, for a query of `replies r`. */
export const REPLY = `r.series_id AS seriesId, NULLIF(r.local_date, '') AS date, r.take, r.answer, r.at, r.outdated, r.verified`;
export type RawReply = Omit<Reply, 'outdated' | 'verified'> & { outdated: number; verified: number };
export const readReply = (raw: RawReply): Reply => ({
  ...raw,
  outdated: Boolean(raw.outdated),
  verified: Boolean(raw.verified),
});

/** Where an answer stands: to which series, or to which session of it; the empty date is the series. */
export interface ReplyPlace {
  member: string;
  series: string;
  date: string;
  take: number;
}

export const latestReply = (db: Db, { member, series, date, take }: ReplyPlace) =>
  one<{ sequence: number; stamp: number }>(
    db,
    'SELECT sequence, stamp FROM replies WHERE member_id = ? AND series_id = ? AND local_date = ? AND take = ?',
    [member, series, date, take],
  );

/** What these people's answers to a series, or to these dates of it, were given to is no more. */
export const outdateReplies = (
  db: Db,
  {
    members,
    series,
    dates,
    take,
  }: { members: readonly string[]; series: string; dates: readonly string[]; take: number },
) =>
  run(
    db,
    `UPDATE replies SET outdated = TRUE
      WHERE member_id IN (?) AND series_id = ? AND (local_date = '' OR (local_date IN (?) AND take = ?))`,
    [[...members], series, [...dates], take],
  );

export const keepReplyRow = (
  db: Db,
  { member, series, date, take }: ReplyPlace,
  given: {
    answer: string;
    sequence: number;
    stamp: number;
    verified: boolean;
    outdated: boolean;
    at: number;
  },
) =>
  run(db, 'REPLACE INTO replies SET ?', [
    { member_id: member, series_id: series, local_date: date, take, ...given },
  ]);

/** Whose news waits to be composed. Read with locks: a letter that is being composed is waited for, and then no longer counts as waiting. */
export const updatesWaiting = (db: Db, members: readonly string[]) =>
  rows<{ member: string }>(
    db,
    `SELECT member_id AS member FROM jobs
      WHERE member_id IN (?) AND waiting AND topic IN ('update', 'invitation', 'link') FOR UPDATE`,
    [[...members]],
  );

/** Which waiting letters carry the news of changes, one a course. */
export const linkNews = (db: Db, changes: readonly string[], members: readonly string[]) =>
  run(
    db,
    `INSERT INTO news (change_id, job_id) SELECT c.id, j.id FROM plan_changes c JOIN jobs j ON j.course_id = c.course_id
      WHERE c.id IN (?) AND j.member_id IN (?) AND j.waiting AND j.topic IN ('update', 'invitation', 'link')`,
    [[...changes], [...members]],
  );

/** The letters not composed yet that carry the news of a change; read with locks, as above. */
export const newsWaiting = (db: Db, change: string) =>
  rows<{ job: number; member: string }>(
    db,
    `SELECT j.id AS job, j.member_id AS member FROM news n JOIN jobs j ON j.id = n.job_id
      WHERE n.change_id = ? AND j.waiting FOR UPDATE`,
    [change],
  );

export const unlinkNews = (db: Db, change: string, jobs: readonly number[]) =>
  run(db, 'DELETE FROM news WHERE change_id = ? AND job_id IN (?)', [change, [...jobs]]);

export const writeCopies = (db: Db, copies: readonly unknown[]) =>
  run(
    db,
    'INSERT INTO calendar_copies (member_id, entry_key, body) VALUES ? ON DUPLICATE KEY UPDATE body = VALUES(body)',
    [copies],
  );

export const wasSeen = (db: Db, uidl: string) =>
  one(db, 'SELECT uidl FROM inbox_seen WHERE uidl = ? FOR UPDATE', [uidl]);

export const noteInboxSeen = (db: Db, uidl: string, now: number, outcome: string) =>
  run(db, 'INSERT INTO inbox_seen (uidl, at, outcome) VALUES (?, ?, ?)', [uidl, now, outcome]);

export const writeInvitation = (db: Db, template: null | string, courseId: string) =>
  run(db, 'UPDATE courses SET invitation = ? WHERE id = ?', [template, courseId]);

export const noteBounced = (db: Db, now: number, bounce: string, messageId: string) =>
  run(
    db,
    "UPDATE jobs SET bounced_at = ?, bounce = ? WHERE message_id = ? AND kind = 'mail' AND bounced_at IS NULL",
    [now, bounce, messageId],
  );

export const writeInviteBefore = (db: Db, rule: null | string, courseId: string) =>
  run(db, 'UPDATE courses SET invite_before = ? WHERE id = ?', [rule, courseId]);

export const writeReminders = (db: Db, minutes: readonly number[], courseId: string) =>
  run(db, 'UPDATE courses SET reminders = ? WHERE id = ?', [JSON.stringify(minutes), courseId]);

export const deliveriesOf = (db: Db, courseId: string) =>
  rows<Omit<Delivery, 'state'> & { state: string; bounced: number | null; bounce: string | null }>(
    db,
    `SELECT j.id, j.member_id AS member, COALESCE(m.own_name, p.name) AS name, p.email, j.topic, COALESCE(j.subject, '') AS subject, j.state,
              COALESCE(j.bounced_at, j.done_at, j.due_at) AS at, j.fault, j.bounced_at AS bounced, j.bounce,
              IF(j.topic IN ('invitation', 'update', 'link'), (SELECT r.answer FROM replies r
                WHERE r.member_id = j.member_id AND r.at >= j.due_at ORDER BY r.at DESC LIMIT 1), NULL) AS answer
         FROM jobs j JOIN enrolments m ON m.id = j.member_id JOIN people p ON p.id = m.person_id
        WHERE j.course_id = ? AND j.kind = 'mail' ORDER BY j.id DESC LIMIT 5000`,
    [courseId],
  );

export const lettersForUpdate = (db: Db, courseId: string, letters: readonly (string | number)[]) =>
  rows<{ id: number; topic: LetterTopic; member: string; payload: unknown }>(
    db,
    `SELECT j.id, j.topic, j.member_id AS member, j.payload FROM jobs j JOIN members m ON m.id = j.member_id
          WHERE j.course_id = ? AND j.kind = 'mail' AND j.id IN (?) FOR UPDATE`,
    [courseId, [...letters]],
  );

export const queueAgain = (
  db: Db,
  {
    topic,
    key,
    courseId,
    member,
    payload,
    now,
    messageId,
  }: {
    topic: string;
    key: string;
    courseId: string;
    member: string;
    payload: string;
    now: number;
    messageId: string;
  },
) =>
  run(
    db,
    `INSERT IGNORE INTO jobs (kind, topic, job_key, course_id, member_id, payload, due_at, message_id)
           VALUES ('mail', ?, ?, ?, ?, ?, ?, ?)`,
    [topic, key, courseId, member, payload, now, messageId],
  );

interface Waiting {
  topic: LetterTopic;
  course: string;
  member: string;
  payload: unknown;
  dueAt: number;
}

/** Notes that a letter could not be dealt with; gives whether it has been set aside by now. */
export async function noteFault(
  db: Db,
  uidl: string,
  fault: string,
  raw: string,
  most: number,
  now: number,
): Promise<boolean> {
  await run(
    db,
    `INSERT INTO inbox_faults (uidl, tries, at, fault) VALUES (?, 1, ?, ?)
       ON DUPLICATE KEY UPDATE tries = tries + 1, at = VALUES(at), fault = VALUES(fault)`,
    [uidl, now, fault.slice(0, 500)],
  );
  const noted = await one<{ tries: number }>(db, 'SELECT tries FROM inbox_faults WHERE uidl = ?', [uidl]);
  if (!noted || noted.tries < most) return false;
  await run(db, 'UPDATE inbox_faults SET set_aside = TRUE, raw = ? WHERE uidl = ?', [raw, uidl]);
  return true;
}

/** The letters that were set aside, newest first. */
export const setAside = (db: Db) =>
  rows<{ at: number; fault: string; subject: string | null }>(
    db,
    `SELECT at, fault, NULLIF(REGEXP_SUBSTR(raw, '(?mi)(?<=^subject: ).*'), '') AS subject
       FROM inbox_faults WHERE set_aside ORDER BY at DESC LIMIT 50`,
  );

/** Those of a course who were written to with their link, by member id. */
export async function invitedOf(db: Db, courseId: string): Promise<Set<string>> {
  const found = await rows<{ member: string }>(
    db,
    `SELECT DISTINCT member_id AS member FROM jobs
      WHERE course_id = ? AND kind = 'mail' AND topic IN ('invitation', 'link')`,
    [courseId],
  );
  return new Set(found.map((f) => f.member));
}

/** What the calendars of these people hold by the letters they had; with `lock`, their rows until the transaction ends. */
export const copiesOf = (db: Db, members: readonly string[], lock: boolean) =>
  rows<{ member: string; key: string; body: unknown }>(
    db,
    `SELECT member_id AS member, entry_key AS \`key\`, body FROM calendar_copies WHERE member_id IN (?)${lock ? ' FOR UPDATE' : ''}`,
    [members],
  );

/** A queued letter as it was composed, or null where there was nothing to say. */
export interface ComposedJob {
  id: number;
  composed: { subject: string; letter: string } | null;
}

export async function writeLetters(db: Db, jobs: readonly ComposedJob[], now: number) {
  for (const { id, composed } of jobs)
    if (composed)
      await run(db, 'UPDATE jobs SET subject = ?, letter = ?, attempts = 0 WHERE id = ?', [
        composed.subject,
        composed.letter,
        id,
      ]);
    else await run(db, "UPDATE jobs SET state = 'void', done_at = ? WHERE id = ?", [now, id]);
}

/** How people of these courses chose to have days and hours written, by person; those who chose. */
export async function stylesOf(db: Db, courses: readonly string[]): Promise<Map<string, Style>> {
  const found = await rows<{ person: string; style: unknown }>(
    db,
    `SELECT DISTINCT p.id AS person, JSON_QUERY(p.preferences, '$.style') AS style
       FROM people p JOIN enrolments m ON m.person_id = p.id
      WHERE m.course_id IN (?) AND p.preferences <> '{}'`,
    [[...courses]],
  );
  return new Map(
    found.map(({ person, style }) => [person, { ...PLAIN, ...json<Partial<Style> | null>(style) }]),
  );
}
