import { createHash } from 'node:crypto';
import type { Context } from '../context';
import {
  databaseUpMs,
  farewell,
  heartbeat,
  holderOf,
  LeaseLost,
  takeFirst,
  takeOver,
  type Lease,
} from './store';

const BEAT_MS = 1000;
/** A server that has said nothing for this long is dead, and its rooms are free. */
export const SILENT_MS = 3000;

/** The room is held by another server that lives. */
export class Elsewhere extends Error {
  constructor(readonly address: string | null) {
    super('This room is held by another server.');
  }
}

/**
 * This server's word that it lives, and the rooms it takes. Its id belongs to its address: whoever answers there next is
 * the same server come back, and takes its rooms again at once.
 */
export class Leases {
  readonly id: string;
  #timer: NodeJS.Timeout | null = null;

  constructor(
    readonly ctx: Context,
    readonly address: string,
  ) {
    this.id = createHash('sha256').update(address).digest('hex').slice(0, 12);
  }

  async start() {
    await heartbeat(this.ctx.db, this.id, this.address);
    this.#timer = setInterval(
      () =>
        void heartbeat(this.ctx.db, this.id, this.address).catch((error: unknown) =>
          this.ctx.log.warn({ why: String(error) }, 'the heartbeat was not written'),
        ),
      BEAT_MS,
    );
  }

  async stop() {
    if (this.#timer) clearInterval(this.#timer);
    await farewell(this.ctx.db, this.id).catch(() => {});
  }

  /**
   * Takes a room for this server: one that nobody holds, one of its own from before, or one whose holder is dead. Gives
   * the lease, and since when nobody has held the room (ms, in the time in force), where somebody did.
   */
  async take(session: string): Promise<{ lease: Lease; silentSince: number | null }> {
    const { db } = this.ctx;
    for (;;) {
      const holder = await holderOf(db, session);
      if (!holder) {
        if (await takeFirst(db, session, this.id))
          return { lease: { session, owner: this.id, epoch: 1 }, silentSince: null };
        continue;
      }
      if (holder.owner !== this.id && !(await this.#isDead(holder.silentMs)))
        throw new Elsewhere(holder.address);
      if (!(await takeOver(db, holder, this.id))) continue;
      const silentSince = holder.silentMs === null ? null : this.ctx.now() - Number(holder.silentMs);
      return { lease: { session, owner: this.id, epoch: holder.epoch + 1 }, silentSince };
    }
  }

  /** Where a room is held, if another server that lives holds it. */
  async elsewhere(session: string): Promise<string | null> {
    const holder = await holderOf(this.ctx.db, session);
    if (!holder || holder.owner === this.id || (await this.#isDead(holder.silentMs))) return null;
    return holder.address;
  }

  /** What the database has forgotten by being restarted is no silence: the living speak again within a second. */
  async #isDead(silentMs: number | null): Promise<boolean> {
    if (silentMs !== null) return Number(silentMs) > SILENT_MS;
    return (await databaseUpMs(this.ctx.db)) > SILENT_MS + BEAT_MS;
  }
}

export { LeaseLost };
