import type { MemberRow } from '../accounts/store';
import { tallyWithout } from '@nimble-bell/core/questions';
import type { EventOf } from '@nimble-bell/core/room';
import { nobodysAddress } from '@nimble-bell/core/roster';
import { newId, newLinkCode } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { forgetPictures } from '../recordings/cuts/store';
import { keepVocabulary, writtenIn } from '../watching/store';

/** Somebody who is or was on a class list. */
export const everOnList = (db: Db, member: string, courseId: string) =>
  one<{ id: string; name: string; account: number }>(
    db,
    `SELECT m.id, COALESCE(m.own_name, p.name) AS name, p.password_hash IS NOT NULL AS account
         FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id = ? AND m.course_id = ?`,
    [member, courseId],
  );

/** What stands in a letter that opens something: taken out of what is handed over. */
const WAYS_IN = /\/in\/[a-z0-9-]+|\/api\/feeds\/[a-z0-9-]+\.ics|\bPIN:? *[\d ]{8,}/gi;

/** What one course holds of a person: nothing of their other courses, and no way in. */
export async function dataOf(db: Db, member: string): Promise<Record<string, unknown>> {
  const ask = (sql: string) => rows<Record<string, unknown>>(db, sql, [member]);
  const [person, course, letters, replies, roll, presence, written, notes, files, pictures] =
    await Promise.all([
      ask(
        `SELECT COALESCE(m.own_name, p.name) AS name, p.preferred_name, p.pronouns, m.called_here, p.email, p.preferences, COALESCE(m.own_zone, p.zone) AS zone
         FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id = ?`,
      ),
      ask(
        `SELECT c.code, c.title, m.id AS member, m.role, m.group_name, m.extra, m.left_at, m.last_seen
         FROM enrolments m JOIN courses c ON c.id = m.course_id WHERE m.id = ?`,
      ),
      ask(
        `SELECT topic, subject, state, due_at, done_at, bounced_at, JSON_VALUE(letter, '$.text') AS text
         FROM jobs WHERE kind = 'mail' AND member_id = ? ORDER BY id`,
      ),
      ask('SELECT series_id, local_date, answer, at FROM replies WHERE member_id = ?'),
      ask(
        'SELECT session_id, arrived_at, left_at, minutes, late, left_early, stays FROM roll_lines WHERE member_id = ?',
      ),
      ask(
        `SELECT e.session_id, e.seq, e.at, e.body FROM enrolments m JOIN sessions s ON s.course_id = m.course_id
         JOIN room_events e ON e.session_id = s.id
        WHERE m.id = ? AND m.id IN (JSON_VALUE(e.body, '$.member'), JSON_VALUE(e.body, '$.from')) ORDER BY e.at`,
      ),
      ask('SELECT session_id, at, addressee, text FROM written WHERE member_id = ? ORDER BY at'),
      ask('SELECT recording_id, position_ms, kind, text, answer FROM recording_notes WHERE member_id = ?'),
      ask('SELECT session_id, at, name, bytes FROM attached WHERE member_id = ? ORDER BY at'),
      ask('SELECT recording_id, at_ms, length_ms FROM recording_pictures WHERE member_id = ? ORDER BY at_ms'),
    ]);
  return {
    'person.json': person[0],
    'course.json': course[0],
    'letters.json': letters.map((l) => ({
      ...l,
      text: typeof l.text === 'string' ? l.text.replace(WAYS_IN, '(taken out)') : l.text,
    })),
    'replies.json': replies,
    'roll.json': roll,
    'in-class.json': presence,
    'written.json': written,
    'notes-at-moments.json': notes,
    'files.json': files,
    'seen-in-recordings.json': pictures,
  };
}

const NOBODY = 'Somebody who left';

/**
 * A course forgets a person. Who has other courses stays who they are there: here the line becomes nobody's. Whoever has
 * none is forgotten by the college.
 */
export async function forget(db: Db, member: string, by: MemberRow, now: number) {
  const { personId, courseId } = (await one<{ personId: string; courseId: string }>(
    db,
    'SELECT person_id AS personId, course_id AS courseId FROM enrolments WHERE id = ? FOR UPDATE',
    [member],
  ))!;
  const elsewhere = await one(db, 'SELECT id FROM enrolments WHERE person_id = ? AND id <> ? LIMIT 1', [
    personId,
    member,
  ]);
  const nobody = elsewhere ? newId() : personId;
  const address = nobodysAddress('forgotten', nobody);
  if (elsewhere)
    await run(db, "INSERT INTO people (id, name, email, zone) VALUES (?, ?, ?, 'UTC')", [
      nobody,
      NOBODY,
      address,
    ]);
  else
    await run(
      db,
      "UPDATE people SET name = ?, preferred_name = NULL, pronouns = NULL, preferences = '{}', email = ?, zone = 'UTC' WHERE id = ?",
      [NOBODY, address, personId],
    );
  await run(
    db,
    `UPDATE enrolments SET person_id = ?, own_name = NULL, own_zone = NULL, called_here = NULL, called_by = NULL, always_in = FALSE, left_at = COALESCE(left_at, ?), link_code = ?,
       pin = NULL, extra = '{}', last_seen = NULL WHERE id = ?`,
    [nobody, now, newLinkCode(), member],
  );
  // What they asked of a recording stands in the letters to those who teach.
  await run(
    db,
    "DELETE j FROM jobs j JOIN recording_notes n ON j.job_key LIKE CONCAT('question/', n.id, '/%') WHERE n.member_id = ?",
    [member],
  );
  const written = await writtenIn(db, member);
  for (const table of [
    'replies',
    'calendar_copies',
    'recording_tracks',
    'exceptions',
    'roll_corrections',
    'watched',
    'recording_words',
    'recording_notes',
    'attached',
    'listening',
    'parts_taken',
    'thoughts_given',
    'asked_by_lot',
  ])
    await run(db, `DELETE FROM ${table} WHERE member_id = ?`, [member]);
  for (const recording of written) await keepVocabulary(db, recording);
  // After their tracks: what is being made of those meanwhile waits for this, or was laid before and goes now.
  await forgetPictures(db, member, now);
  // What they took along goes with its files.
  await run(db, "UPDATE recording_exports SET state = 'cancelled' WHERE member_id = ?", [member]);
  await run(db, "DELETE FROM jobs WHERE kind = 'mail' AND member_id = ?", [member]);
  await run(db, 'DELETE FROM feeds WHERE person_id = ? AND course_id = ?', [personId, courseId]);
  await forgetInClass(db, member, courseId);
  await forgetInHistory(db, member, courseId, by.name);
}

async function forgetInClass(db: Db, member: string, courseId: string) {
  const inRooms = (set: string, type: string, of: string, values: string[]) =>
    run(
      db,
      `UPDATE room_events e JOIN sessions s ON s.id = e.session_id SET e.body = JSON_SET(e.body, ${set}, ?)
        WHERE s.course_id = ? AND JSON_VALUE(e.body, '$.type') IN (${type}) AND JSON_VALUE(e.body, ${of}) = ?`,
      values,
    );
  const named = "'entered', 'known', 'knocked', 'renamed'";
  await inRooms("'$.name'", named, "'$.member'", [NOBODY, courseId, member]);
  await run(
    db,
    `UPDATE room_events e JOIN sessions s ON s.id = e.session_id SET e.body = JSON_REMOVE(e.body, '$.pronouns')
      WHERE s.course_id = ? AND JSON_VALUE(e.body, '$.member') = ? AND JSON_VALUE(e.body, '$.pronouns') IS NOT NULL`,
    [courseId, member],
  );
  for (const table of ['room_documents', 'room_document_hands', 'room_document_moved'])
    await run(db, `UPDATE ${table} SET member_id = NULL WHERE member_id = ?`, [member]);
  await run(db, "UPDATE written SET text = '(taken away)' WHERE member_id = ?", [member]);
  await inRooms("'$.text'", "'said'", "'$.from'", ['(taken away)', courseId, member]);
  await forgetAnswers(db, member, courseId);
}

/** What somebody answered goes, and out of what was shown of the answers what was in their own words. */
async function forgetAnswers(db: Db, member: string, courseId: string) {
  const ofCourse = `FROM room_events e JOIN sessions s ON s.id = e.session_id
    WHERE s.course_id = ? AND JSON_VALUE(e.body, '$.type')`;
  const answered = await rows<{ session: string; seq: number; body: unknown }>(
    db,
    `SELECT e.session_id AS session, e.seq, e.body ${ofCourse} = 'answered' AND JSON_VALUE(e.body, '$.member') = ?`,
    [courseId, member],
  );
  const own = new Map<string, string[]>();
  for (const { session, body } of answered) {
    const { answer } = json<EventOf<'answered'>>(body);
    if (typeof answer === 'string') own.set(session, [...(own.get(session) ?? []), answer]);
  }
  for (const [session, words] of own) {
    const shown = await rows<{ seq: number; body: unknown }>(
      db,
      `SELECT seq, body FROM room_events WHERE session_id = ? AND JSON_VALUE(body, '$.type') IN ('answersShown', 'tallied')`,
      [session],
    );
    for (const { seq, body } of shown) {
      const event = json<EventOf<'answersShown'>>(body);
      const tally = tallyWithout(event.tally, words);
      await run(db, 'UPDATE room_events SET body = ? WHERE session_id = ? AND seq = ?', [
        JSON.stringify({ ...event, tally }),
        session,
        seq,
      ]);
    }
    await run(
      db,
      `UPDATE room_events SET body = JSON_SET(body, '$.answer', '(taken away)')
        WHERE session_id = ? AND JSON_VALUE(body, '$.type') = 'answered' AND JSON_VALUE(body, '$.member') = ?
          AND JSON_TYPE(JSON_EXTRACT(body, '$.answer')) = 'STRING'`,
      [session, member],
    );
  }
}

/** The histories hold names and addresses too: of this person they go. */
async function forgetInHistory(db: Db, member: string, courseId: string, by: string) {
  const changes = await rows<{ id: string; body: unknown }>(
    db,
    'SELECT id, body FROM list_changes WHERE course_id = ?',
    [courseId],
  );
  for (const change of changes) {
    const body = json<{ after: { id: string } }[]>(change.body);
    const rest = body.filter((row) => row.after.id !== member);
    if (rest.length < body.length)
      await run(db, 'UPDATE list_changes SET body = ?, words = ? WHERE id = ?', [
        JSON.stringify(rest),
        `A change of the list (${by} had somebody forgotten since)`,
        change.id,
      ]);
  }
  // An entry of the plan names one whom it alone put into another group.
  await run(
    db,
    `UPDATE plan_changes SET words = IF(undoing, ?, ?)
      WHERE course_id = ? AND JSON_LENGTH(body, '$.series') = 0 AND JSON_LENGTH(body, '$.sessions') = 0
        AND JSON_LENGTH(body, '$.groups') = 1 AND JSON_VALUE(body, '$.groups[0].member') = ?`,
    [`Undone: ${NOBODY} moved to another group`, `${NOBODY} moved to another group`, courseId, member],
  );
}
