import { one, rows, run, type Db } from '../db/pool';

export const feedCode = (db: Db, personId: string, courseId: string) =>
  one<{ code: string }>(db, 'SELECT code FROM feeds WHERE person_id = ? AND course_id = ?', [
    personId,
    courseId,
  ]);

/** A calendar's address dies with the link that opened it. */
export const dropFeedsOfOlderLinks = (db: Db, personId: string, courseId: string, link: string) =>
  run(
    db,
    'DELETE FROM feeds WHERE person_id = ? AND course_id = ? AND link_code IS NOT NULL AND link_code <> ?',
    [personId, courseId, link],
  );

/** A new address, unless there is one. */
export const keepFeed = (
  db: Db,
  {
    code,
    personId,
    courseId,
    now,
    link,
  }: { code: string; personId: string; courseId: string; now: number; link: null | string },
) =>
  run(
    db,
    'INSERT IGNORE INTO feeds (code, person_id, course_id, made_at, link_code) VALUES (?, ?, ?, ?, ?)',
    [code, personId, courseId, now, link],
  );

/** Another address in place of the one there is: of several asked for at once, one stands. */
export const renewFeed = (
  db: Db,
  feed: { code: string; personId: string; courseId: string; now: number; link: string | null },
) =>
  run(
    db,
    `INSERT INTO feeds (code, person_id, course_id, made_at, link_code) VALUES (?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE code = VALUES(code), made_at = VALUES(made_at), link_code = VALUES(link_code)`,
    [feed.code, feed.personId, feed.courseId, feed.now, feed.link],
  );

export const feedByCode = (db: Db, code: string) =>
  one<Feed>(
    db,
    'SELECT person_id AS personId, course_id AS courseId, link_code AS link FROM feeds WHERE code = ?',
    [code],
  );

export interface Feed {
  /** The link that it was opened by; null for an account's. */
  link: string | null;
  personId: string;
  courseId: string;
}

/** The highest SEQUENCE that each entry of these people was sent with, by member and key. */
export async function sequencesSent(db: Db, members: readonly string[]): Promise<Map<string, number>> {
  if (!members.length) return new Map();
  const sent = await rows<{ member: string; key: string; sequence: string }>(
    db,
    "SELECT member_id AS member, entry_key AS `key`, JSON_VALUE(body, '$.sequence') AS sequence FROM calendar_copies WHERE member_id IN (?)",
    [[...members]],
  );
  return new Map(sent.map((c) => [`${c.member} ${c.key}`, Number(c.sequence)]));
}
