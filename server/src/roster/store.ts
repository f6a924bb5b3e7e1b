import type { ListChangeInfo, MemberInfo, MemberScope, Reply, Role } from '@nimble-bell/core/api';
import type { KnownMember } from '@nimble-bell/core/roster';
import { newId, newLinkCode } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { AppError } from '../errors';
import { readReply, REPLY, type RawReply } from '../mail/store';

interface RawMember extends Omit<
  MemberInfo,
  'link' | 'invitation' | 'extra' | 'scope' | 'capabilities' | 'replies'
> {
  code: string;
  extra: unknown;
  scope: unknown;
  capabilities: unknown;
  jobState: string | null;
  bounced: number | null;
}

const MEMBERS = `SELECT m.id, m.name, p.preferred_name AS preferredName, p.email, m.zone, p.zone_own AS zoneOwn, m.role, m.group_name AS \`group\`,
                        m.extra, m.scope, m.capabilities, m.link_code AS code, m.pin, m.link_at AS linkAt, m.link_until AS linkUntil,
                        m.last_seen AS lastSeen, j.state AS jobState, j.bounced_at AS bounced
                   FROM members m JOIN people p ON p.id = m.person_id
                   LEFT JOIN jobs j ON j.id = (SELECT MAX(i.id) FROM jobs i
                     WHERE i.member_id = m.id AND i.kind = 'mail' AND i.topic IN ('invitation', 'link'))
                  WHERE m.course_id = ?
                  ORDER BY FIELD(m.role, 'teacher', 'assistant', 'student', 'guest', 'observer'), m.name`;

const invitationOf = (m: RawMember): MemberInfo['invitation'] => {
  if (m.bounced !== null) return 'bounced';
  if (m.jobState === 'done') return 'sent';
  if (m.jobState === null) return 'none';
  return m.jobState === 'failed' || m.jobState === 'void' ? m.jobState : 'queued';
};

/** Everyone on a class list, those who teach first. */
export async function membersOf(db: Db, course: string): Promise<MemberInfo[]> {
  const [found, replies] = await Promise.all([
    rows<RawMember>(db, MEMBERS, [course]),
    rows<RawReply & { member: string }>(
      db,
      `SELECT r.member_id AS member, ${REPLY}
         FROM replies r JOIN members m ON m.id = r.member_id WHERE m.course_id = ?`,
      [course],
    ),
  ]);
  const byMember = new Map<string, Reply[]>();
  for (const { member, ...reply } of replies)
    byMember.set(member, [...(byMember.get(member) ?? []), readReply(reply)]);
  return found.map((m) => {
    const { code, jobState, bounced, ...rest } = m;
    return {
      ...rest,
      zoneOwn: Boolean(m.zoneOwn),
      extra: json<Record<string, string>>(m.extra),
      scope: m.scope === null ? null : json<MemberScope>(m.scope),
      capabilities: m.capabilities === null ? [] : json<MemberInfo['capabilities']>(m.capabilities),
      link: `/in/${code}`,
      invitation: invitationOf(m),
      replies: byMember.get(m.id) ?? [],
    };
  });
}

/** A class list as an import is compared with it. */
export async function knownMembers(db: Db, course: string): Promise<KnownMember[]> {
  const found = await rows<Omit<KnownMember, 'extra' | 'zoneOwn'> & { extra: unknown; zoneOwn: number }>(
    db,
    `SELECT m.id, m.name, p.email, m.zone, p.zone_own AS zoneOwn, m.group_name AS \`group\`, m.extra, m.role
       FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ?`,
    [course],
  );
  return found.map((m) => ({ ...m, extra: json(m.extra), zoneOwn: Boolean(m.zoneOwn) }));
}

export interface NewPerson {
  name: string;
  email: string;
  zone: string;
  group: string | null;
  extra?: Record<string, string>;
  role?: Role;
  scope?: MemberScope | null;
  until?: number | null;
  capabilities?: readonly string[];
}

const CHUNK = 500;

const chunks = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / CHUNK) }, (_, i) => all.slice(i * CHUNK, (i + 1) * CHUNK));

/**
 * Puts people on a class list, and into the college's people where their address is new. Whoever was on it before
 * comes back as themselves, with their past and a new link. Gives their member ids, in the same order.
 */
export async function enrolAll(db: Db, courseId: string, people: readonly NewPerson[]): Promise<string[]> {
  const ids: string[] = [];
  for (const some of chunks(people)) ids.push(...(await enrolSome(db, courseId, some)));
  return ids;
}

async function enrolSome(db: Db, courseId: string, people: readonly NewPerson[]): Promise<string[]> {
  const emails = people.map((p) => p.email);
  const findPeople = () =>
    rows<{ id: string; email: string }>(db, 'SELECT id, email FROM people WHERE email IN (?)', [emails]);
  const known = new Set((await findPeople()).map((p) => p.email));
  const fresh = people.filter((p) => !known.has(p.email));
  if (fresh.length)
    await run(db, 'INSERT IGNORE INTO people (id, name, email, zone) VALUES ?', [
      fresh.map((p) => [newId(), p.name, p.email, p.zone]),
    ]);
  const personIds = new Map((await findPeople()).map((p) => [p.email, p.id]));
  await run(
    db,
    `INSERT INTO enrolments (id, course_id, person_id, role, group_name, link_code, extra, scope, capabilities, link_until, own_name, own_zone, calendar_secret)
     VALUES ? ON DUPLICATE KEY UPDATE left_at = NULL, role = VALUES(role), group_name = VALUES(group_name),
       link_code = VALUES(link_code), link_at = NULL, pin = NULL, extra = VALUES(extra), scope = VALUES(scope),
       capabilities = VALUES(capabilities), link_until = VALUES(link_until),
       own_name = VALUES(own_name), own_zone = VALUES(own_zone), came = NULL, always_in = FALSE, called_here = NULL,
       called_by = NULL`,
    [
      people.map((p) => [
        newId(),
        courseId,
        personIds.get(p.email),
        p.role ?? 'student',
        p.group,
        newLinkCode(),
        JSON.stringify(p.extra ?? {}),
        p.scope ? JSON.stringify(p.scope) : null,
        p.capabilities?.length ? JSON.stringify(p.capabilities) : null,
        p.until ?? null,
        p.name,
        p.zone,
        newId(),
      ]),
    ],
  );
  const members = await rows<{ id: string; personId: string }>(
    db,
    'SELECT id, person_id AS personId FROM members WHERE course_id = ? AND person_id IN (?)',
    [courseId, [...personIds.values()]],
  );
  const byPerson = new Map(members.map((m) => [m.personId, m.id]));
  return people.map((p) => byPerson.get(personIds.get(p.email)!)!);
}

/** Whether the person of this address is on the course's list now. */
export const memberByAddress = (db: Db, course: string, email: string) =>
  one<{ id: string; role: Role }>(
    db,
    'SELECT m.id, m.role FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND p.email = ?',
    [course, email],
  );

/** Those of a course's list, all of whom must be on it. */
export async function ownMembers(db: Db, courseId: string, ids: readonly string[]) {
  const members = await rows<{ id: string; name: string }>(
    db,
    'SELECT m.id, m.name FROM members m WHERE m.course_id = ? AND m.id IN (?)',
    [courseId, [...ids]],
  );
  if (members.length < new Set(ids).size)
    throw new AppError('not-found', 'There is no such person on the class list.');
  return members;
}

export const withoutPin = (db: Db, courseId: string) =>
  rows<{ id: string }>(
    db,
    `SELECT m.id FROM members m JOIN courses c ON c.id = m.course_id
      WHERE m.course_id = ? AND m.pin IS NULL AND c.telephone IS NOT NULL`,
    [courseId],
  );

export const teachingNames = (db: Db, courseId: string) =>
  rows<{ id: string; name: string; called: string }>(
    db,
    "SELECT id, name, called FROM members WHERE course_id = ? AND role IN ('teacher', 'assistant')",
    [courseId],
  );

export const setPin = (db: Db, pin: string, member: string) =>
  run(db, 'UPDATE enrolments SET pin = ? WHERE id = ?', [pin, member]);

export const holderOfPin = (db: Db, pin: string) => one(db, 'SELECT id FROM enrolments WHERE pin = ?', [pin]);
export const setExtra = (db: Db, extra: unknown, member: string) =>
  run(db, 'UPDATE enrolments SET extra = ? WHERE id = ?', [JSON.stringify(extra), member]);

export const listChangesOf = (db: Db, courseId: string) =>
  rows<Omit<ListChangeInfo, 'undoable' | 'spent'>>(
    db,
    `SELECT id, at, made_by AS \`by\`, words, JSON_LENGTH(body) AS people, undone_at AS undoneAt
         FROM list_changes WHERE course_id = ? ORDER BY place DESC LIMIT 50`,
    [courseId],
  );

export const personBehind = (db: Db, member: string) =>
  one<{ personId: string; account: number }>(
    db,
    `SELECT m.person_id AS personId, p.password_hash IS NOT NULL AS account
       FROM members m JOIN people p ON p.id = m.person_id WHERE m.id = ?`,
    [member],
  );

/**
 * What these people's calendars held is no longer so: they get their entries anew, under higher numbers than any that was
 * sent (RFC 5545 §3.8.7.4): a calendar program heeds the highest it has seen.
 */
export const emptyCalendars = (db: Db, members: readonly string[]) =>
  run(
    db,
    `UPDATE calendar_copies SET body = JSON_SET(body, '$.sessions', JSON_ARRAY(), '$.listed', JSON_ARRAY())
      WHERE member_id IN (?)`,
    [[...members]],
  );

export const personOf = (db: Db, email: string) =>
  one<{ id: string }>(db, 'SELECT id FROM people WHERE email = ?', [email]);

export const setPerson = (db: Db, person: string, member: string) =>
  run(db, 'UPDATE enrolments SET person_id = ? WHERE id = ?', [person, member]);

export const setAddress = (db: Db, email: string, person: string) =>
  run(db, 'UPDATE people SET email = ? WHERE id = ?', [email, person]);

export const writeClassLink = (db: Db, code: null | string, passcode: null | string, courseId: string) =>
  run(db, 'UPDATE courses SET class_link = ?, class_passcode = ? WHERE id = ?', [code, passcode, courseId]);

export const onOtherList = (db: Db, person: string, courseId: string) =>
  one(
    db,
    'SELECT id FROM enrolments WHERE person_id = ? AND course_id <> ? AND course_id NOT IN (SELECT course_id FROM rehearsals) LIMIT 1',
    [person, courseId],
  );

export const teacherOfAll = (db: Db, courseId: string) =>
  one(db, "SELECT id FROM members WHERE course_id = ? AND role = 'teacher' AND scope IS NULL LIMIT 1", [
    courseId,
  ]);

export const replaceLink = (db: Db, link: string, now: number, member: string) =>
  run(db, 'UPDATE enrolments SET link_code = ?, link_at = ?, pin = NULL WHERE id = ?', [link, now, member]);

export const leaveList = (db: Db, now: number, members: readonly string[]) =>
  run(db, 'UPDATE enrolments SET left_at = ? WHERE id IN (?)', [now, [...members]]);

/** One line of a class list as its rows, those of the person among them. */
export interface ListRecord {
  id: string;
  personId: string;
  name: string;
  /** What the course itself calls them, where it does; likewise where it takes them to be. */
  ownName?: string | null;
  email: string;
  zone: string;
  ownZone?: string | null;
  role: Role;
  group: string | null;
  link: string;
  linkAt: number | null;
  linkUntil: number | null;
  pin?: string | null;
  leftAt: number | null;
  extra: Record<string, string>;
  scope: MemberScope | null;
}

/** Everyone who is or was on a class list. Whoever changes it has the course's turn. */
export async function listSnapshot(db: Db, course: string): Promise<Map<string, ListRecord>> {
  const found = await rows<ListRecord & { extra: unknown; scope: unknown }>(
    db,
    `SELECT m.id, m.person_id AS personId, COALESCE(m.own_name, p.name) AS name, p.email,
            COALESCE(m.own_zone, p.zone) AS zone, m.own_name AS ownName, m.own_zone AS ownZone, m.role,
            m.group_name AS \`group\`, m.link_code AS link, m.link_at AS linkAt, m.link_until AS linkUntil, m.pin, m.left_at AS leftAt, m.extra, m.scope
       FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.course_id = ?`,
    [course],
  );
  return new Map(
    found.map((m) => [m.id, { ...m, extra: json(m.extra), scope: m.scope === null ? null : json(m.scope) }]),
  );
}

/** The column of each field of a record, and how it is written. */
const COLUMNS: {
  [K in keyof ListRecord]?: [column: string, write: (value: never) => string | number | null];
} = {
  personId: ['person_id', (v: string) => v],
  name: ['own_name', (v: string) => v],
  ownName: ['own_name', (v: string | null) => v],
  zone: ['own_zone', (v: string) => v],
  ownZone: ['own_zone', (v: string | null) => v],
  role: ['role', (v: string) => v],
  group: ['group_name', (v: string | null) => v],
  link: ['link_code', (v: string) => v],
  linkAt: ['link_at', (v: number | null) => v],
  linkUntil: ['link_until', (v: number | null) => v],
  pin: ['pin', (v: string | null) => v],
  leftAt: ['left_at', (v: number | null) => v],
  extra: ['extra', (v: object) => JSON.stringify(v)],
  scope: ['scope', (v: object | null) => (v ? JSON.stringify(v) : null)],
};

/** Writes some of a record's fields; the address is the person's own. */
export async function writeSome(db: Db, id: string, fields: Partial<ListRecord>) {
  const { email, ...own } = fields;
  const set = Object.entries(own).flatMap(([field, value]) => {
    const column = COLUMNS[field as keyof ListRecord];
    return column ? [[column[0], column[1](value as never)] as const] : [];
  });
  if (set.length)
    await run(db, `UPDATE enrolments SET ${set.map(([c]) => `${c} = ?`).join(', ')} WHERE id = ?`, [
      ...set.map(([, v]) => v),
      id,
    ]);
  if (email !== undefined)
    await run(db, 'UPDATE people SET email = ? WHERE id = (SELECT person_id FROM enrolments WHERE id = ?)', [
      email,
      id,
    ]);
}

/** The line becomes somebody else's: of this address, known to the college from now on. */
export async function asNewPerson(db: Db, member: string, email: string) {
  const id = newId();
  await run(
    db,
    `INSERT INTO people (id, name, email, zone)
     SELECT ?, COALESCE(m.own_name, p.name), ?, COALESCE(m.own_zone, p.zone)
       FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id = ?`,
    [id, email, member],
  );
  await run(db, 'UPDATE enrolments SET person_id = ? WHERE id = ?', [id, member]);
}

/** Writes what of a line on the class list is said, and leaves the rest as it is. */
export async function writeFields(
  db: Db,
  member: string,
  fields: { [K in 'name' | 'zone' | 'group' | 'role' | 'scope']?: ListRecord[K] | undefined },
) {
  const { name, zone, group, role, scope } = fields;
  const set = {
    own_name: name,
    own_zone: zone,
    group_name: group,
    role,
    scope: scope && JSON.stringify(scope),
  };
  for (const [column, value] of Object.entries(set))
    if (value !== undefined)
      await run(db, `UPDATE enrolments SET ${column} = ? WHERE id = ?`, [value, member]);
}

/** Those of these series or sessions that are the course's. */
export const ofCourse = (db: Db, table: 'series' | 'sessions', courseId: string, ids: readonly string[]) =>
  rows<{ id: string }>(db, `SELECT id FROM ${table} WHERE course_id = ? AND id IN (?)`, [courseId, ids]);

/** What somebody is called in a course, whatever its list says, or they themselves do elsewhere. */
export const callHere = (db: Db, { member, name, by }: { member: string; name: string; by: string }) =>
  run(db, 'UPDATE enrolments SET called_here = ?, called_by = ? WHERE id = ?', [name, by, member]);

/** What somebody called themselves in class gives way to what they say of themselves elsewhere. */
export const forgetOwnCall = (db: Db, person: string) =>
  run(
    db,
    'UPDATE enrolments SET called_here = NULL, called_by = NULL WHERE person_id = ? AND called_by = id',
    [person],
  );

/** Whether these walk straight in where others knock. */
export const letInAlways = (db: Db, members: readonly string[], always: boolean) =>
  run(db, 'UPDATE enrolments SET always_in = ? WHERE id IN (?)', [always, [...members]]);
