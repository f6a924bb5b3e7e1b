import { rows, run, type Db } from '../../db/pool';
import type { Said } from '../store';

/** What could be past its time: what is kept, and what is said of how long. */
export const expirable = (db: Db) =>
  rows<{ id: string; file: string | null; takenAt: number | null; term: unknown } & Said>(
    db,
    `SELECT r.id, r.file, r.taken_at AS takenAt, t.body AS term, (SELECT CAST(settings AS CHAR) FROM college) AS ofCollege,
            CAST(c.settings AS CHAR) AS ofCourse, CAST(q.settings AS CHAR) AS ofSeries, CAST(s.settings AS CHAR) AS ofSession
       FROM recordings r JOIN sessions s ON s.id = r.session_id JOIN series q ON q.id = s.series_id
       JOIN courses c ON c.id = s.course_id
       JOIN terms t ON t.id = c.term_id WHERE r.state IN ('ready', 'failed')`,
  );

const OF_WATCHING = [
  'recording_words',
  'recording_vocabulary',
  'watched',
  'recording_notes',
  'recording_shares',
  'recording_pictures',
  'recording_tables',
  'recording_cuts',
];

/** Of what is gone nothing is found any more, and who watched it is nobody's to know. */
export async function noteExpired(db: Db, id: string) {
  await run(db, "UPDATE recording_exports SET state = 'cancelled' WHERE recording_id = ?", [id]);
  for (const table of OF_WATCHING) await run(db, `DELETE FROM ${table} WHERE recording_id = ?`, [id]);
  await run(db, "UPDATE recordings SET state = 'expired', file = NULL, bytes = 0, cut = NULL WHERE id = ?", [
    id,
  ]);
}
