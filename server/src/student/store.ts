import { one, rows, run, type Db } from '../db/pool';
import { readReply, REPLY, type RawReply } from '../mail/store';

export const repliesOf = async (db: Db, member: string) =>
  (await rows<RawReply>(db, `SELECT ${REPLY} FROM replies r WHERE r.member_id = ?`, [member])).map(readReply);

export const preferredNameOf = (db: Db, person: string) =>
  one<{ name: string | null }>(db, 'SELECT preferred_name AS name FROM people WHERE id = ?', [person]);

export const setOwnZone = (db: Db, zone: string, person: string) =>
  run(db, 'UPDATE people SET zone = ?, zone_own = TRUE WHERE id = ?', [zone, person]);

export const setPreferredName = (db: Db, name: null | string, person: string) =>
  run(db, 'UPDATE people SET preferred_name = ? WHERE id = ?', [name, person]);

export const setPronouns = (db: Db, pronouns: string | null, person: string) =>
  run(db, 'UPDATE people SET pronouns = ? WHERE id = ?', [pronouns, person]);

export const setQuiet = (db: Db, topics: readonly string[], member: string) =>
  run(db, 'UPDATE enrolments SET quiet = ? WHERE id = ?', [topics.join(','), member]);
