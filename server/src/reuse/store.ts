import { one, rows, run, type Db } from '../db/pool';

export const templatesOf = (db: Db, person: string) =>
  rows<{ id: string; name: string; body: unknown; at: number }>(
    db,
    'SELECT id, name, body, at FROM templates WHERE person_id = ? ORDER BY name',
    [person],
  );

export const keepTemplate = (
  db: Db,
  { id, person, name, body, now }: { id: string; person: string; name: string; body: unknown; now: number },
) =>
  run(
    db,
    `INSERT INTO templates (id, person_id, name, body, at) VALUES (?, ?, ?, ?, ?)
         ON DUPLICATE KEY UPDATE body = VALUES(body), at = VALUES(at)`,
    [id, person, name, JSON.stringify(body), now],
  );

export const dropTemplate = (db: Db, id: string, person: string) =>
  run(db, 'DELETE FROM templates WHERE id = ? AND person_id = ?', [id, person]);

export const templateById = (db: Db, id: string, person: string) =>
  one<{ body: unknown; name: string }>(
    db,
    'SELECT name, body FROM templates WHERE id = ? AND person_id = ?',
    [id, person],
  );

export const setYoungPupils = (db: Db, youngPupils: boolean, courseId: string) =>
  run(db, 'UPDATE courses SET young_pupils = ? WHERE id = ?', [youngPupils, courseId]);

export const sessionOn = (db: Db, seriesId: string, date: null | string) =>
  one<{ id: string }>(db, 'SELECT id FROM sessions WHERE series_id = ? AND local_date = ?', [seriesId, date]);
