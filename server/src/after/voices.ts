import { afterRules } from '@nimble-bell/core/after';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import type { MediaRelay } from '../media/relay';
import { memberOf } from '../room/effects/publishers';
import { addSpoken } from './store';

/** Whoever goes on speaking is counted so often, ms: of what a server that dies had not counted, no more is lost. */
const COUNTED_MS = 10_000;

/** How long each is heard, by the relay that hears them: no page is asked. */
export class Voices {
  /** Since when somebody is heard, and not counted: by `session/publisher`. */
  readonly #since = new Map<string, number>();
  readonly #timer: NodeJS.Timeout;
  #work: Promise<unknown> = Promise.resolve();

  constructor(
    readonly ctx: Context,
    relay: Pick<MediaRelay, 'onVoice'>,
    readonly now: () => number = () => performance.now(),
  ) {
    relay.onVoice((session, publisher, heard) => this.#heed(`${session}/${publisher}`, heard));
    this.#timer = setInterval(() => this.#countAll(), COUNTED_MS);
  }

  /** What is being said now is counted as far as it is; resolves when it is stored. */
  async stop(): Promise<void> {
    clearInterval(this.#timer);
    this.#countAll();
    await this.#work;
  }

  #heed(key: string, heard: boolean) {
    this.#count(key);
    if (heard) this.#since.set(key, this.now());
    else this.#since.delete(key);
  }

  #countAll() {
    for (const key of this.#since.keys()) {
      this.#count(key);
      this.#since.set(key, this.now());
    }
  }

  #count(key: string) {
    const since = this.#since.get(key);
    if (since === undefined) return;
    const [session, publisher] = key.split('/') as [string, string];
    const ms = this.now() - since;
    this.#work = this.#work
      .then(() => this.#keep(session, memberOf(publisher), ms))
      .catch((error: unknown) =>
        this.ctx.log.warn({ why: String(error), session }, 'a voice was not counted'),
      );
  }

  /** Whether it is counted is asked each time. */
  async #keep(session: string, member: string, ms: number) {
    const found = await sessionById(this.ctx.db, session);
    if (found && afterRules(found.layers).participation) await addSpoken(this.ctx.db, session, member, ms);
  }
}
