import { createHash, randomBytes } from 'node:crypto';
import { json, one, rows, run, type Db } from '../db/pool';
import type { Came } from '@nimble-bell/core/door';
import {
  noPreferences,
  Preferences,
  type Capability,
  type MemberScope,
  type Role,
  type Unwanted,
} from '@nimble-bell/core/api';

export interface Person {
  id: string;
  name: string;
  email: string;
  zone: string;
  staff: number;
}

const SESSION_MS = 14 * 86_400_000;

export const hashed = (token: string) => createHash('sha256').update(token).digest('hex');

export const personByEmail = (db: Db, email: string) =>
  one<Person & { password_hash: string | null }>(
    db,
    'SELECT id, name, email, zone, staff, password_hash FROM people WHERE email = ?',
    [email],
  );

export async function openSession(db: Db, person: string, now: number): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await run(db, 'INSERT INTO auth_sessions (token_hash, person_id, expires_at) VALUES (?, ?, ?)', [
    hashed(token),
    person,
    now + SESSION_MS,
  ]);
  return token;
}

export const closeSession = (db: Db, token: string) =>
  run(db, 'DELETE FROM auth_sessions WHERE token_hash = ?', [hashed(token)]);

/** A person's own ways; those of today's names among what was kept. */
export async function preferencesOf(db: Db, person: string): Promise<Preferences> {
  const row = await one<{ preferences: unknown }>(db, 'SELECT preferences FROM people WHERE id = ?', [
    person,
  ]);
  const read = Preferences.safeParse(json(row?.preferences ?? {}));
  return read.success ? read.data : noPreferences();
}

export const keepPreferences = (db: Db, person: string, preferences: Preferences) =>
  run(db, 'UPDATE people SET preferences = ? WHERE id = ?', [JSON.stringify(preferences), person]);

export const personByToken = (db: Db, token: string, now: number) =>
  one<Person>(
    db,
    `SELECT p.id, p.name, p.email, p.zone, p.staff
       FROM auth_sessions s JOIN people p ON p.id = s.person_id
      WHERE s.token_hash = ? AND s.expires_at > ?`,
    [hashed(token), now],
  );

/** Those of these sign-ins that are still good, by the hash of their token. */
export const liveTokens = async (db: Db, hashes: readonly string[], now: number): Promise<Set<string>> =>
  new Set(
    (
      await rows<{ hash: string }>(
        db,
        'SELECT token_hash AS hash FROM auth_sessions WHERE token_hash IN (?) AND expires_at > ?',
        [hashes, now],
      )
    ).map((row) => row.hash),
  );

/** Who has a password, with their courses: for the entrance of the demo data. */
export const demoAccounts = (db: Db) =>
  rows<{ name: string; email: string; role: string; codes: string }>(
    db,
    `SELECT p.name, p.email, MIN(m.role) AS role, GROUP_CONCAT(c.code ORDER BY c.code SEPARATOR ', ') AS codes
         FROM people p JOIN members m ON m.person_id = p.id JOIN courses c ON c.id = m.course_id
        WHERE p.password_hash IS NOT NULL AND c.rehearsal = '' GROUP BY p.id ORDER BY MIN(m.role), p.name`,
  );

/** Some students with their links: for the entrance of the demo data. */
export const demoLinks = (db: Db) =>
  rows<{ name: string; code: string; link: string }>(
    db,
    `SELECT name, code, link FROM (
         SELECT p.name, c.code, m.link_code AS link, ROW_NUMBER() OVER (PARTITION BY c.id ORDER BY p.name) AS place
           FROM members m JOIN people p ON p.id = m.person_id JOIN courses c ON c.id = m.course_id
          WHERE m.role = 'student' AND c.rehearsal = '') s
        WHERE code IN ('NAV-210', 'LOG-120') AND place <= 12 ORDER BY code DESC, name`,
  );

export const noteSeenAt = (db: Db, now: number, members: readonly string[]) =>
  run(db, 'UPDATE enrolments SET last_seen = ? WHERE id IN (?)', [now, [...members]]);

export interface MemberRow {
  id: string;
  courseId: string;
  personId: string;
  role: Role;
  group: string | null;
  /** What they are called: their own choice before the list's. */
  name: string;
  email: string;
  zone: string;
  link: string;
  /** Their PIN on the course's telephone line. */
  pin: string | null;
  /** The series and sessions they are here for; all of the course where there is none. */
  scope: MemberScope | null;
  capabilities: Capability[];
  /** When their link ends, instant; null where it lasts as long as the course. */
  linkUntil: number | null;
  /** They can sign in with a password of their own. */
  hasAccount: boolean;
  /** What only their own calendar entries say. */
  calendarSecret: string | null;
  /** How they came to be here, where they are neither on the list nor invited. */
  came: Came | null;
  /** They walk straight in where others knock. */
  alwaysIn: boolean;
  pronouns: string | null;
  /** The kinds of letters that they do not want. */
  quiet: Unwanted[];
}

const MEMBER = `SELECT m.id, m.course_id AS courseId, m.person_id AS personId, m.role, m.group_name AS \`group\`,
                       m.called AS name, p.email, m.zone, m.link_code AS link, m.pin, m.scope, m.capabilities,
                       m.last_seen AS lastSeen, m.link_until AS linkUntil, m.calendar_secret AS calendarSecret, m.quiet,
                       m.came, m.always_in AS alwaysIn, m.pronouns,
                       p.password_hash IS NOT NULL AS hasAccount
                  FROM members m JOIN people p ON p.id = m.person_id`;

type RawMember = Omit<MemberRow, 'quiet'> & {
  scope: unknown;
  capabilities: unknown;
  lastSeen: number | null;
  quiet: string;
};

const readMember = ({ lastSeen, ...m }: RawMember): MemberRow => ({
  ...m,
  hasAccount: Boolean(m.hasAccount),
  alwaysIn: Boolean(m.alwaysIn),
  quiet: m.quiet ? (m.quiet.split(',') as Unwanted[]) : [],
  scope: m.scope === null ? null : json(m.scope),
  capabilities: m.capabilities === null ? [] : json(m.capabilities),
});

/** Members by a plain condition, as rows of theirs. */
export const membersWhere = async (db: Db, where: string, values: readonly (string | readonly string[])[]) =>
  (await rows<RawMember>(db, `${MEMBER} WHERE ${where} ORDER BY m.name`, values)).map(readMember);

/** The member whose link this is and who may still use it, and when they were last here. */
export async function memberByCode(
  db: Db,
  code: string,
  now: number,
): Promise<{ member: MemberRow; lastSeen: number | null } | null> {
  const row = await one<RawMember>(
    db,
    `${MEMBER} WHERE m.link_code = ? AND (m.link_until IS NULL OR m.link_until > ?)`,
    [code, now],
  );
  return row && { member: readMember(row), lastSeen: row.lastSeen };
}

/** Whose link a dead one was: of which course, whether they left its list, and who teaches it. */
export const deadLink = (db: Db, code: string) =>
  one<{ code: string; title: string; left: number; teacher: string | null }>(
    db,
    `SELECT c.code, c.title, m.left_at IS NOT NULL AS \`left\`,
            (SELECT t.name FROM members t WHERE t.course_id = c.id AND t.role = 'teacher'
              ORDER BY t.scope IS NULL DESC, t.name LIMIT 1) AS teacher
       FROM enrolments m JOIN courses c ON c.id = m.course_id WHERE m.link_code = ?`,
    [code],
  );

/** What somebody is called who is, or was, on a class list. */
export const nameOfMember = async (db: Db, id: string): Promise<string | null> =>
  (
    await one<{ name: string }>(
      db,
      'SELECT COALESCE(m.called_here, p.preferred_name, m.own_name, p.name) AS name FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id = ?',
      [id],
    )
  )?.name ?? null;
