import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { standInClass, type Prompt, type Tried } from '@nimble-bell/core/rehearsal';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import { transaction } from '../db/pool';
import { Elsewhere } from '../room/lease';
import type { Rooms } from '../room/rooms';
import { groupsFor } from './begin';
import { deleteRehearsal, linksOf, rehearsals, type Rehearsal } from './store';
import type { OfClass, ToClass } from './standInClass';
import { Trials } from './trials';

const LOOK_MS = 1000;
/** A rehearsal is thrown away by itself so long after its beginning, ms. */
export const LONGEST_MS = 6 * 3_600_000;
/** And so long after it was dismissed: what was tried can be read until then. */
const READ_MS = 10 * 60_000;

interface Running {
  child: ChildProcess;
  says: OfClass;
}

/**
 * Keeps the rehearsals: wherever the room of one is held, its class runs; one that is over is thrown away with all that
 * is in it. What is to be done is read from what is stored, so it goes on after a restart.
 */
export class Rehearsals {
  readonly #running = new Map<string, Running>();
  /** When a class was seen to be dismissed. */
  readonly #dismissed = new Map<string, number>();
  readonly #trials: Trials;
  #timer: NodeJS.Timeout | null = null;
  #looking: Promise<void> | null = null;

  constructor(
    readonly ctx: Context,
    readonly rooms: Rooms,
    /** Where this server is reached. */
    readonly url: string,
  ) {
    this.#trials = new Trials(ctx.db);
  }

  start() {
    this.#timer = setInterval(() => {
      this.#looking ??= this.look()
        .catch((error: unknown) => this.ctx.log.warn({ why: String(error) }, 'the rehearsals'))
        .finally(() => (this.#looking = null));
    }, LOOK_MS);
  }

  stop() {
    if (this.#timer) clearInterval(this.#timer);
    for (const session of this.#running.keys()) this.#end(session);
  }

  /** What a class says of itself, where it runs here. */
  says(session: string): OfClass | null {
    return this.#running.get(session)?.says ?? null;
  }

  /** What was tried in a rehearsal so far. */
  tried(session: string): Promise<Tried[]> {
    return this.#trials.of(session);
  }

  prompt(session: string, what: Prompt): boolean {
    const running = this.#running.get(session);
    if (running) tell(running.child, { do: 'prompt', what });
    return running !== undefined;
  }

  async look(): Promise<void> {
    const all = await rehearsals(this.ctx.db);
    const now = this.ctx.now();
    for (const rehearsal of all) {
      const over = rehearsal.over || now - rehearsal.begunAt > LONGEST_MS || this.#isRead(rehearsal, now);
      // One in trouble holds up no other: it is seen to again at the next look.
      await (over ? this.#throwAway(rehearsal) : this.#follow(rehearsal)).catch((error: unknown) =>
        this.ctx.log.warn({ why: String(error), session: rehearsal.session }, 'a rehearsal'),
      );
    }
    const known = new Set(all.map((r) => r.session));
    for (const session of this.#running.keys()) if (!known.has(session)) this.#end(session);
  }

  /** Whether it was dismissed so long ago that nobody reads of it any more; after a restart it is counted anew. */
  #isRead({ session, held }: Rehearsal, now: number): boolean {
    if (!held) return false;
    const at = this.#dismissed.get(session) ?? now;
    this.#dismissed.set(session, at);
    return now - at > READ_MS;
  }

  /** A class runs where its room is held, until it is dismissed. */
  async #follow(rehearsal: Rehearsal) {
    const room = await this.rooms.held(rehearsal.session);
    const on = room !== null && room.state.bell.phase !== 'dismissed';
    if (on && !this.#running.has(rehearsal.session)) await this.#begin(rehearsal);
    if (!on) this.#end(rehearsal.session);
  }

  async #begin({ session, course, of, seed, size, begunAt }: Rehearsal) {
    const [links, rehearsed] = await Promise.all([
      linksOf(this.ctx.db, course),
      sessionById(this.ctx.db, of),
    ]);
    const groups = rehearsed ? await groupsFor(this.ctx.db, rehearsed) : [];
    const standIns = standInClass(seed, size, groups).flatMap((self, nr) => {
      const link = links.get(nr);
      return link ? [{ self, link }] : [];
    });
    const child = fork(fileURLToPath(new URL('./standInClass.js', import.meta.url)), {
      execArgv: [],
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    const running: Running = { child, says: { refused: 0 } };
    this.#running.set(session, running);
    child.on('message', (says: OfClass) => (running.says = says));
    // One that fails is begun anew at the next look.
    child.on('exit', () => {
      if (this.#running.get(session) === running) this.#running.delete(session);
    });
    child.on('error', (error) => this.ctx.log.warn({ why: String(error) }, 'a stand-in class'));
    const since = this.ctx.now() - begunAt;
    tell(child, { do: 'begin', url: this.url, session, seed, since, standIns });
  }

  #end(session: string) {
    const running = this.#running.get(session);
    this.#running.delete(session);
    running?.child.kill();
  }

  /** Those who are in it are dismissed first. A room that another server holds is that one's to end. */
  async #throwAway(rehearsal: Rehearsal) {
    const { session } = rehearsal;
    this.#end(session);
    try {
      const room = await this.rooms.room(session);
      await room.happen(({ bell: { phase } }) => (phase === 'live' ? [{ type: 'dismissed', by: null }] : []));
    } catch (error) {
      if (error instanceof Elsewhere) return;
      throw error;
    }
    this.rooms.forget(session);
    this.#dismissed.delete(session);
    this.#trials.forget(session);
    await transaction(this.ctx.db, (db) => deleteRehearsal(db, rehearsal));
  }
}

const tell = (child: ChildProcess, message: ToClass) => void child.send(message, () => {});
