import type { LetterTopic } from '@nimble-bell/core/api';
import { newId } from '../context';
import type { Db } from '../db/pool';
import { studentsOf } from '../courses/store';
import { insertLetters, invitedOf, newsWaiting, unlinkNews, updatesWaiting, withAddress } from './store';

export interface Queued {
  courseId: string;
  topic: LetterTopic;
  /** What causes the letter: the same cause writes to the same person once. */
  cause: string;
  members: readonly string[];
  /** Instant from which it may leave. */
  dueAt: number;
  /** What the letter is about, beside the plan. */
  about?: Record<string, string | number | boolean>;
}

const CHUNK = 1000;

/** Queues a letter for each person, in the caller's transaction. Its key makes asking twice harmless. Gives how many. */
export async function queueLetters(db: Db, queued: Queued): Promise<number> {
  const members = await withAddress(db, queued.members);
  let count = 0;
  for (let i = 0; i < members.length; i += CHUNK) {
    const jobs = members.slice(i, i + CHUNK).map((member) => jobFor(queued, member));
    count += (await insertLetters(db, jobs)).affectedRows;
  }
  return count;
}

function jobFor({ courseId, topic, cause, dueAt, about }: Queued, member: string): unknown[] {
  const key = `${topic}/${cause}/${member}`;
  return ['mail', topic, key, courseId, member, JSON.stringify(about ?? {}), dueAt, messageIdOf(key)];
}

/**
 * A Message-ID that nobody can guess: a delivery notice names the letter it is about by it, and is believed. It is kept
 * with the job, so that a repeated hand-over is the same message.
 */
export const messageIdOf = (key: string) => `<${key.replaceAll('/', '.')}.${newId()}@nimble-bell>`;

/** The news of a change: whom it is for. */
export interface News {
  courseId: string;
  changeId: string;
  members: readonly string[];
}

/**
 * Queues the news of changed plans. A letter says what is different from what the person's calendar holds when it is
 * composed, so one that waits already says this too: changes of a few minutes become one letter.
 */
export async function queueNews(db: Db, all: readonly News[], dueAt: number) {
  const members = all.flatMap((n) => n.members);
  if (!members.length) return;
  // The rows are read with locks: a letter that is being composed is waited for, and then no longer counts as waiting.
  const waiting = await updatesWaiting(db, members);
  const told = new Set(waiting.map((w) => w.member));
  const reached = new Set(await withAddress(db, members));
  const jobs = all.flatMap(({ courseId, changeId, members: own }) =>
    own
      .filter((m) => !told.has(m) && reached.has(m))
      .map((m) => jobFor({ courseId, topic: 'update', cause: changeId, members: [], dueAt }, m)),
  );
  for (let i = 0; i < jobs.length; i += CHUNK) await insertLetters(db, jobs.slice(i, i + CHUNK));
}

/** A change is taken back: letters that are not composed yet do not tell of it. Gives who would have had one. */
export async function forgetNews(db: Db, changeId: string): Promise<Set<string>> {
  const waiting = await newsWaiting(db, changeId);
  if (waiting.length)
    await unlinkNews(
      db,
      changeId,
      waiting.map((w) => w.job),
    );
  return new Set(waiting.map((w) => w.member));
}

/** Queues the first invitation of every student who has none. Gives how many. */
export async function inviteNew(db: Db, courseId: string, dueAt: number): Promise<number> {
  const students = await studentsOf(db, courseId);
  const invited = await invitedOf(db, courseId);
  const members = students.map((s) => s.id).filter((id) => !invited.has(id));
  return queueLetters(db, { courseId, topic: 'invitation', cause: 'first', members, dueAt });
}
