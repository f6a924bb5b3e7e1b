import type { LetterTopic } from '@nimble-bell/core/api';
import { json, one, rows, run, type Db } from '../db/pool';

export interface Job {
  id: number;
  key: string;
  topic: LetterTopic | null;
  courseId: string | null;
  memberId: string | null;
  payload: Record<string, unknown>;
  /** A letter as it was composed; null until it is. */
  letter: unknown;
  messageId: string | null;
  attempts: number;
}

const COLUMNS =
  'id, job_key AS `key`, topic, course_id AS courseId, member_id AS memberId, payload, letter, message_id AS messageId, attempts';

const due = (where: string) => `state = 'queued' AND due_at <= ? AND ${where}`;

/** Whether a job is due of those that a plain condition on the rows of `jobs` names. */
export const anyDue = (db: Db, where: string, now: number) =>
  one(db, `SELECT id FROM jobs WHERE ${due(where)} LIMIT 1`, [now]);

/** The next job that is due and up to `batch` of its course, their rows locked; what others hold is passed over. */
export async function lockDue(db: Db, where: string, batch: number, now: number): Promise<Job[]> {
  const first = await rows<Job>(
    db,
    `SELECT ${COLUMNS} FROM jobs WHERE ${due(where)} ORDER BY due_at, id LIMIT 1 FOR UPDATE SKIP LOCKED`,
    [now],
  );
  const more =
    first[0] && batch > 1
      ? await rows<Job>(
          db,
          `SELECT ${COLUMNS} FROM jobs WHERE ${due(where)} AND course_id = ? AND id <> ? ORDER BY due_at, id LIMIT ${batch - 1}
            FOR UPDATE SKIP LOCKED`,
          [now, first[0].courseId, first[0].id],
        )
      : [];
  return [...first, ...more].map((job) => ({
    ...job,
    payload: json(job.payload),
    letter: job.letter === null ? null : json(job.letter),
  }));
}

export async function noteDone(db: Db, jobs: readonly number[], now: number) {
  if (jobs.length)
    await run(db, "UPDATE jobs SET state = 'done', done_at = ?, fault = NULL WHERE id IN (?)", [now, jobs]);
}

/** Back into the queue for later, or given up. */
export const postponeJob = (
  db: Db,
  job: number,
  next: { state: 'queued' | 'failed'; attempts: number; dueAt: number; fault: string },
) =>
  run(db, 'UPDATE jobs SET state = ?, attempts = ?, due_at = ?, fault = ? WHERE id = ?', [
    next.state,
    next.attempts,
    next.dueAt,
    next.fault,
    job,
  ]);
