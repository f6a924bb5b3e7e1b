import type { Context } from '../context';
import { json, rows, run, transaction } from '../db/pool';

export interface Job {
  id: number;
  kind: 'mail' | 'prepare';
  key: string;
  courseId: string | null;
  memberId: string | null;
  payload: Record<string, unknown>;
  attempts: number;
}

export type Handlers = Record<Job['kind'], (job: Job) => Promise<void>>;

const LANES: Record<Job['kind'], number> = { mail: 4, prepare: 1 };
const POLL_MS = 200;
const MAX_ATTEMPTS = 8;

/**
 * Takes due jobs with FOR UPDATE SKIP LOCKED and holds the row locked while it works: a server that dies lets go of
 * its jobs at once, and no two servers do the same one. Failures come back with growing pauses.
 */
export class Worker {
  #stopped = false;
  #lanes: Promise<void>[] = [];

  constructor(
    readonly ctx: Context,
    readonly handlers: Handlers,
  ) {}

  start() {
    for (const kind of Object.keys(LANES) as Job['kind'][])
      for (let lane = 0; lane < LANES[kind]; lane++) this.#lanes.push(this.#run(kind));
  }

  async stop() {
    this.#stopped = true;
    await Promise.all(this.#lanes);
  }

  async #run(kind: Job['kind']) {
    while (!this.#stopped) {
      const worked = await this.#take(kind).catch((error: unknown) => {
        this.ctx.log.error(error, 'a job could not be taken');
        return false;
      });
      if (!worked) await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    }
  }

  #take(kind: Job['kind']): Promise<boolean> {
    const { ctx } = this;
    return transaction(ctx.db, async (db) => {
      const [job] = await rows<Job>(
        db,
        `SELECT id, kind, job_key AS \`key\`, course_id AS courseId, member_id AS memberId, payload, attempts
           FROM jobs WHERE state = 'queued' AND kind = ? AND due_at <= ? ORDER BY due_at, id LIMIT 1
            FOR UPDATE SKIP LOCKED`,
        [kind, ctx.now()],
      );
      if (!job) return false;
      try {
        await this.handlers[kind]({ ...job, payload: json(job.payload) });
        await run(db, "UPDATE jobs SET state = 'done', done_at = ?, fault = NULL WHERE id = ?", [
          ctx.now(),
          job.id,
        ]);
      } catch (error) {
        const attempts = job.attempts + 1;
        const state = attempts >= MAX_ATTEMPTS ? 'failed' : 'queued';
        const pause = Math.min(300_000, 500 * 2 ** attempts);
        ctx.log.warn({ job: job.key, attempts }, String(error));
        await run(db, 'UPDATE jobs SET state = ?, attempts = ?, due_at = ?, fault = ? WHERE id = ?', [
          state,
          attempts,
          ctx.now() + pause,
          String(error).slice(0, 2000),
          job.id,
        ]);
      }
      return true;
    });
  }
}
