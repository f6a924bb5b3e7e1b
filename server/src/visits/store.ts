import type { Came } from '@nimble-bell/core/door';
import { newId } from '../context';
import type { ListedSession } from '@nimble-bell/core/api';
import { one, rows, run, type Db } from '../db/pool';

export const listedSessions = (db: Db, now: number) =>
  rows<ListedSession & { id: string }>(
    db,
    `SELECT s.id, CONCAT(c.code, ' ', c.title) AS course, COALESCE(s.title, '') AS title, r.title AS series,
              s.starts_at AS startsAt, s.ends_at AS endsAt, JSON_VALUE(t.body, '$.zone') AS zone,
              (SELECT GROUP_CONCAT(m.name ORDER BY m.name SEPARATOR ', ') FROM members m
                WHERE m.course_id = c.id AND m.role = 'teacher') AS teachers
         FROM sessions s JOIN series r ON r.id = s.series_id JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = c.term_id
        WHERE COALESCE(s.listed, r.listed) AND r.published_at IS NOT NULL AND s.state IN ('planned', 'moved', 'live') AND s.ends_at > ?
          AND r.kind NOT IN ('open', 'capture')
        ORDER BY s.starts_at LIMIT 300`,
    [now],
  );

export const courseByClassLink = (db: Db, code: string) =>
  one<{ id: string; code: string; title: string; passcode: string }>(
    db,
    'SELECT id, code, title, class_passcode AS passcode FROM courses WHERE class_link = ?',
    [code],
  );

export const visitorsNow = (db: Db, courseId: string, now: number) =>
  one<{ n: number }>(
    db,
    "SELECT COUNT(*) AS n FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND p.email LIKE 'visitor-%' AND m.link_until > ?",
    [courseId, now],
  );

export const insertVisitor = (db: Db, person: string, name: string, address: string) =>
  run(db, 'INSERT INTO people (id, name, email, zone) VALUES (?, ?, ?, ?)', [person, name, address, 'UTC']);

export const enrolVisitor = (
  db: Db,
  {
    member,
    courseId,
    person,
    link,
    now,
    scope,
    until,
    came,
  }: {
    member: string;
    courseId: string;
    person: string;
    link: string;
    now: number;
    scope: { series: never[]; sessions: string[] };
    until: number;
    came: Came;
  },
) =>
  run(
    db,
    `INSERT INTO enrolments (id, course_id, person_id, role, link_code, link_at, scope, link_until, calendar_secret, came)
       VALUES (?, ?, ?, 'guest', ?, ?, ?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE role = 'guest', left_at = NULL, link_code = VALUES(link_code), link_at = VALUES(link_at),
         capabilities = NULL, scope = VALUES(scope), link_until = VALUES(link_until), came = VALUES(came)`,
    [member, courseId, person, link, now, JSON.stringify(scope), until, newId(), came],
  );
