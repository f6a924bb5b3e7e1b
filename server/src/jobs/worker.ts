import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { transactionOnce } from '../db/pool';
import { anyDue, lockDue, noteDone, postponeJob, type Job } from './store';

export type { Job } from './store';

/** One kind of work: which jobs are due for it, how many are taken together, and by how many at once. */
export interface Lane {
  name: string;
  /** A plain condition on the rows of `jobs`. */
  where: string;
  /** Most jobs of one course that are taken together. */
  batch: number;
  width: number;
  /** Does the jobs, their rows locked by this connection. Gives those that are done with; the others stay queued. */
  work: (jobs: Job[], db: PoolConnection) => Promise<Job[]>;
}

const POLL_MS = 250;
const MAX_ATTEMPTS = 8;

/**
 * Takes due jobs with FOR UPDATE SKIP LOCKED and holds the rows locked while it works: a server that dies lets go of
 * its jobs at once, and no two servers do the same one. Failures come back with growing pauses.
 */
export class Worker {
  #stopped = false;
  #running: Promise<void> = Promise.resolve();

  constructor(
    readonly ctx: Context,
    readonly lanes: readonly Lane[],
  ) {}

  start() {
    this.#running = Promise.all(this.lanes.map((lane) => this.#run(lane))).then(() => {});
  }

  async stop() {
    this.#stopped = true;
    await this.#running;
  }

  /** While nothing is due, one question now and then; then as many at once as the lane is wide. */
  async #run(lane: Lane) {
    while (!this.#stopped) {
      if (await this.#isDue(lane))
        await Promise.all(Array.from({ length: lane.width }, () => this.#drain(lane)));
      else await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    }
  }

  async #drain(lane: Lane) {
    while (!this.#stopped && (await this.#take(lane).catch(this.#failed)));
  }

  async #isDue(lane: Lane): Promise<boolean> {
    return (await anyDue(this.ctx.db, lane.where, this.ctx.now()).catch(this.#failed)) !== null;
  }

  readonly #failed = (error: unknown) => {
    this.ctx.log.error(error, 'the jobs could not be read');
    return null;
  };

  async #take(lane: Lane): Promise<boolean> {
    try {
      return (await this.#attempt(lane, lane.batch)) > 0;
    } catch (error) {
      // One of many spoils it for all: alone, each can fail by itself.
      if (lane.batch === 1) throw error;
      return (await this.#attempt(lane, 1)) > 0;
    }
  }

  #attempt(lane: Lane, batch: number): Promise<number> {
    const { ctx } = this;
    return transactionOnce(ctx.db, async (db) => {
      const jobs = await lockDue(db, lane.where, batch, ctx.now());
      if (!jobs.length) return 0;
      try {
        const done = await lane.work(jobs, db);
        await noteDone(
          db,
          done.map((j) => j.id),
          ctx.now(),
        );
      } catch (error) {
        if (jobs.length > 1) throw error;
        await this.#postpone(db, jobs[0]!, error);
      }
      return jobs.length;
    });
  }

  async #postpone(db: PoolConnection, job: Job, error: unknown) {
    const attempts = job.attempts + 1;
    const state = attempts >= MAX_ATTEMPTS ? 'failed' : 'queued';
    const pause = Math.min(300_000, 500 * 2 ** attempts);
    this.ctx.log.warn({ job: job.key, attempts }, String(error));
    await postponeJob(db, job.id, {
      state,
      attempts,
      dueAt: this.ctx.now() + pause,
      fault: String(error).slice(0, 2000),
    });
  }
}
