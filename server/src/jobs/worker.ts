import type { Context } from '../context';
import { json, one, rows, run, transaction } from '../db/pool';

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
const POLL_MS = 250;
const MAX_ATTEMPTS = 8;

/**
 * Takes due jobs with FOR UPDATE SKIP LOCKED and holds the row locked while it works: a server that dies lets go of
 * its jobs at once, and no two servers do the same one. Failures come back with growing pauses.
 */
export class Worker {
  #stopped = false;
  #running: Promise<void> = Promise.resolve();

  constructor(
    readonly ctx: Context,
    readonly handlers: Handlers,
  ) {}

  start() {
    this.#running = Promise.all((Object.keys(LANES) as Job['kind'][]).map((kind) => this.#run(kind))).then(
      () => {},
    );
  }

  async stop() {
    this.#stopped = true;
    await this.#running;
  }

  /** While nothing is due, one question now and then; then all lanes of the kind until nothing is left. */
  async #run(kind: Job['kind']) {
    while (!this.#stopped) {
      if (await this.#isDue(kind))
        await Promise.all(Array.from({ length: LANES[kind] }, () => this.#drain(kind)));
      else await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    }
  }

  async #drain(kind: Job['kind']) {
    while (!this.#stopped && (await this.#take(kind).catch(this.#failed)));
  }

  async #isDue(kind: Job['kind']): Promise<boolean> {
    const sql = "SELECT id FROM jobs WHERE state = 'queued' AND kind = ? AND due_at <= ? LIMIT 1";
    return (await one(this.ctx.db, sql, [kind, this.ctx.now()]).catch(this.#failed)) !== null;
  }

  readonly #failed = (error: unknown) => {
    this.ctx.log.error(error, 'the jobs could not be read');
    return null;
  };

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
