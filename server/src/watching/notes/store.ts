import { one, rows, run, type Db } from '../../db/pool';

export interface NoteRow {
  id: string;
  member: string;
  name: string;
  position: number;
  kind: 'note' | 'question';
  text: string;
  answer: string | null;
}

const NOTE = `SELECT n.id, n.member_id AS member, m.called AS name, n.position_ms AS position, n.kind, n.text, n.answer
                FROM recording_notes n JOIN members m ON m.id = n.member_id`;
const read = (row: NoteRow): NoteRow => ({ ...row, position: Number(row.position) });

/** Somebody's own of a recording; with everyone's questions, for those who teach. In their order in time. */
export const notesOf = async (db: Db, recording: string, member: string, questions: boolean) =>
  (
    await rows<NoteRow>(
      db,
      `${NOTE} WHERE n.recording_id = ? AND (n.member_id = ? OR (? AND n.kind = 'question')) ORDER BY n.position_ms, n.written_at`,
      [recording, member, questions ? 1 : 0],
    )
  ).map(read);

export async function noteById(db: Db, recording: string, id: string): Promise<NoteRow | null> {
  const row = await one<NoteRow>(db, `${NOTE} WHERE n.recording_id = ? AND n.id = ?`, [recording, id]);
  return row && read(row);
}

export const insertNote = (
  db: Db,
  note: {
    id: string;
    recording: string;
    member: string;
    position: number;
    kind: string;
    text: string;
    at: number;
  },
) =>
  run(
    db,
    'INSERT INTO recording_notes (id, recording_id, member_id, position_ms, kind, text, written_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [note.id, note.recording, note.member, Math.round(note.position), note.kind, note.text, note.at],
  );

export const countNotes = async (db: Db, recording: string, member: string): Promise<number> =>
  Number(
    (
      await one<{ n: number }>(
        db,
        'SELECT COUNT(*) AS n FROM recording_notes WHERE recording_id = ? AND member_id = ?',
        [recording, member],
      )
    )?.n ?? 0,
  );

export const removeNote = (db: Db, id: string) => run(db, 'DELETE FROM recording_notes WHERE id = ?', [id]);

export const answerNote = (db: Db, id: string, answer: string, by: string) =>
  run(db, 'UPDATE recording_notes SET answer = ?, answered_by = ? WHERE id = ?', [answer || null, by, id]);
