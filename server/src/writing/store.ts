import type { WrittenInfo } from '@nimble-bell/core/api';
import type { Addressee } from '@nimble-bell/core/room';
import { one, rows, run, type Db } from '../db/pool';

/** Who reads: whoever teaches reads all; others what is to the class, to them, or from them. */
export interface Reader {
  id: string;
  teaching: boolean;
}

interface RawWritten extends Omit<WrittenInfo, 'addressee'> {
  addressee: Addressee['to'];
  toMember: string | null;
}

const WRITTEN = `SELECT w.id, w.session_id AS session, w.at, w.member_id AS \`from\`, w.addressee, w.to_member AS toMember, w.text,
       COALESCE(m.called_here, p.preferred_name, m.own_name, p.name) AS name, m.role,
       COALESCE(t.called_here, q.preferred_name, t.own_name, q.name) AS toName
  FROM written w JOIN enrolments m ON m.id = w.member_id JOIN people p ON p.id = m.person_id
       LEFT JOIN enrolments t ON t.id = w.to_member LEFT JOIN people q ON q.id = t.person_id`;
const FOR_READER = "(? OR w.addressee = 'class' OR w.member_id = ? OR w.to_member = ?)";

const read = ({ addressee: to, toMember, ...written }: RawWritten): WrittenInfo => ({
  ...written,
  addressee: to === 'member' ? { to, member: toMember ?? '' } : { to },
});

/** So many of the latest are shown. */
const MOST = 300;

export const writtenOn = async (db: Db, session: string, { id, teaching }: Reader): Promise<WrittenInfo[]> =>
  (
    await rows<RawWritten>(
      db,
      `${WRITTEN} WHERE w.session_id = ? AND ${FOR_READER} ORDER BY w.at DESC, w.id DESC LIMIT ${MOST}`,
      [session, teaching, id, id],
    )
  )
    .map(read)
    .reverse();

/** The latest of a whole course, for those who teach it. */
export const latestWritten = async (
  db: Db,
  sessions: readonly string[],
  most: number,
): Promise<WrittenInfo[]> =>
  sessions.length
    ? (
        await rows<RawWritten>(
          db,
          `${WRITTEN} WHERE w.session_id IN (?) ORDER BY w.at DESC, w.id DESC LIMIT ?`,
          [[...sessions], most],
        )
      ).map(read)
    : [];

/** How much there is for somebody to read, by session. */
export const countsFor = async (db: Db, sessions: readonly string[], { id, teaching }: Reader) =>
  new Map(
    sessions.length
      ? (
          await rows<{ session: string; count: number }>(
            db,
            `SELECT w.session_id AS session, COUNT(*) AS count FROM written w
              WHERE w.session_id IN (?) AND ${FOR_READER} GROUP BY w.session_id`,
            [[...sessions], teaching, id, id],
          )
        ).map((c) => [c.session, c.count])
      : [],
  );

/** One writes after the other of one's own: held before anything is read, so that what is counted is all. */
export const holdWriter = (db: Db, member: string) =>
  one(db, 'SELECT id FROM enrolments WHERE id = ? FOR UPDATE', [member]);

/** How often somebody wrote since an instant, anywhere. */
export const writtenSince = async (db: Db, member: string, since: number): Promise<number> =>
  (await one<{ count: number }>(db, 'SELECT COUNT(*) AS count FROM written WHERE member_id = ? AND at > ?', [
    member,
    since,
  ]))!.count;

export const insertWritten = (
  db: Db,
  one: { id: string; session: string; at: number; from: string; addressee: Addressee; text: string },
) =>
  run(
    db,
    'INSERT INTO written (id, session_id, at, member_id, addressee, to_member, text) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [
      ...[one.id, one.session, one.at, one.from, one.addressee.to],
      ...[one.addressee.to === 'member' ? one.addressee.member : null, one.text],
    ],
  );
