import type { Reply } from '@nimble-bell/core/api';
import { one, rows, run, type Db } from '../db/pool';

export const repliesOf = (db: Db, member: string) =>
  rows<Reply>(
    db,
    "SELECT series_id AS seriesId, NULLIF(local_date, '') AS date, answer, at FROM replies WHERE member_id = ?",
    [member],
  );

export const preferredNameOf = (db: Db, person: string) =>
  one<{ name: string | null }>(db, 'SELECT preferred_name AS name FROM people WHERE id = ?', [person]);

export const setOwnZone = (db: Db, zone: string, person: string) =>
  run(db, 'UPDATE people SET zone = ?, zone_own = TRUE WHERE id = ?', [zone, person]);

export const setPreferredName = (db: Db, name: null | string, person: string) =>
  run(db, 'UPDATE people SET preferred_name = ? WHERE id = ?', [name, person]);
