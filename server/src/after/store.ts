import type { TakenPart, Thought } from '@nimble-bell/core/after';
import { one, rows, run, type Db } from '../db/pool';

/** Adds to how long somebody was heard in a session; whoever is not of its course is not counted. */
export const addSpoken = (db: Db, session: string, member: string, ms: number) =>
  run(
    db,
    `INSERT INTO parts_taken (session_id, member_id, spoken_ms)
       SELECT s.id, m.id, ? FROM sessions s JOIN enrolments m ON m.course_id = s.course_id WHERE s.id = ? AND m.id = ?
       ON DUPLICATE KEY UPDATE spoken_ms = parts_taken.spoken_ms + VALUES(spoken_ms)`,
    [Math.round(ms), session, member],
  );

/** What somebody wrote, how often they raised a hand and answered, in place of what was kept. */
export const keepPart = (
  db: Db,
  session: string,
  member: string,
  { written, hands, answers }: Omit<TakenPart, 'spokenMs'>,
) =>
  run(
    db,
    `INSERT INTO parts_taken (session_id, member_id, written, hands, answers)
       SELECT s.id, m.id, ?, ?, ? FROM sessions s JOIN enrolments m ON m.course_id = s.course_id WHERE s.id = ? AND m.id = ?
       ON DUPLICATE KEY UPDATE written = VALUES(written), hands = VALUES(hands), answers = VALUES(answers)`,
    [written, hands, answers, session, member],
  );

/** How often somebody was asked by lot in a session, in place of what was kept. */
export const keepPicks = (db: Db, session: string, member: string, times: number) =>
  run(
    db,
    `INSERT INTO asked_by_lot (session_id, member_id, times)
       SELECT s.id, m.id, ? FROM sessions s JOIN enrolments m ON m.course_id = s.course_id WHERE s.id = ? AND m.id = ?
       ON DUPLICATE KEY UPDATE times = VALUES(times)`,
    [times, session, member],
  );

/** How often each was asked by lot in the sessions of this session's course. */
export const askedByLot = async (db: Db, session: string): Promise<Record<string, number>> =>
  Object.fromEntries(
    (
      await rows<{ member: string; times: number }>(
        db,
        `SELECT a.member_id AS member, SUM(a.times) AS times FROM asked_by_lot a JOIN sessions s ON s.id = a.session_id
          WHERE s.course_id = (SELECT course_id FROM sessions WHERE id = ?) GROUP BY a.member_id`,
        [session],
      )
    ).map((a) => [a.member, Number(a.times)]),
  );

/** Who took what part in these sessions; one member's alone where it is given. */
export const partsTaken = async (db: Db, sessions: readonly string[], member: string | null) =>
  sessions.length
    ? (
        await rows<TakenPart & { session: string; member: string }>(
          db,
          `SELECT session_id AS session, member_id AS member, spoken_ms AS spokenMs, written, hands, answers
             FROM parts_taken WHERE session_id IN (?) AND (? IS NULL OR member_id = ?)`,
          [[...sessions], member, member],
        )
      ).map((p) => ({ ...p, spokenMs: Number(p.spokenMs) }))
    : [];

/** Notes that somebody said what they thought; gives whether it is the first time. */
export const noteGiven = async (db: Db, session: string, member: string): Promise<boolean> =>
  (
    await run(db, 'INSERT IGNORE INTO thoughts_given (session_id, member_id) VALUES (?, ?)', [
      session,
      member,
    ])
  ).affectedRows > 0;

export const hasGiven = async (db: Db, session: string, member: string): Promise<boolean> =>
  (await one(db, 'SELECT session_id FROM thoughts_given WHERE session_id = ? AND member_id = ?', [
    session,
    member,
  ])) !== null;

export const keepThought = (db: Db, session: string, { stars, words }: Thought) =>
  run(db, 'INSERT INTO thoughts (session_id, stars, words) VALUES (?, ?, ?)', [session, stars, words]);

/** What was thought of sessions, in the order in which it was said; by nobody. */
export const thoughtsOf = (db: Db, sessions: readonly string[]) =>
  sessions.length
    ? rows<Thought & { session: string }>(
        db,
        'SELECT session_id AS session, stars, words FROM thoughts WHERE session_id IN (?) ORDER BY id',
        [[...sessions]],
      )
    : [];

/** Whether somebody was in a session's class. */
export const wasIn = async (db: Db, session: string, member: string): Promise<boolean> =>
  (await one(
    db,
    'SELECT member_id FROM roll_lines WHERE session_id = ? AND member_id = ? AND arrived_at IS NOT NULL',
    [session, member],
  )) !== null;

/** Which sessions can be watched, and who watched of them. */
export async function watchedIn(db: Db, sessions: readonly string[]) {
  if (!sessions.length) return { recorded: new Set<string>(), watched: new Set<string>() };
  const [recorded, watched] = await Promise.all([
    rows<{ session: string }>(
      db,
      "SELECT session_id AS session FROM recordings WHERE session_id IN (?) AND state = 'ready'",
      [[...sessions]],
    ),
    rows<{ session: string; member: string }>(
      db,
      `SELECT r.session_id AS session, w.member_id AS member FROM watched w JOIN recordings r ON r.id = w.recording_id
        WHERE r.session_id IN (?)`,
      [[...sessions]],
    ),
  ]);
  return {
    recorded: new Set(recorded.map((r) => r.session)),
    watched: new Set(watched.map((w) => `${w.session}/${w.member}`)),
  };
}
