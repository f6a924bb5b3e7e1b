import type { StoredEvent } from '@nimble-bell/core/api';
import { newId, type Context } from '../context';
import { courseById, sessionById } from '../courses/store';
import { run, transaction } from '../db/pool';
import type { MediaRelay } from '../media/relay';
import type { RoomMedia } from '../media/roomMedia';
import type { Room } from '../room/room';
import { recordsItself } from './plan';
import { addTrack, closeParts, openPart, openRecording, recordingOf } from './store';

/** Records by the plan: begins at ring-in, keeps a part for each stretch, and hands over at dismissal. */
export class Recorder {
  /** The part being recorded, by session. */
  readonly #parts = new Map<string, string>();
  #work: Promise<unknown> = Promise.resolve();

  constructor(
    readonly ctx: Context,
    readonly relay: MediaRelay,
    readonly media: RoomMedia,
  ) {
    media.onPublished((room, member) => this.#track(room, member));
  }

  heed(room: Room, events: readonly StoredEvent[]): Promise<void> {
    const turn = this.#work.then(async () => {
      for (const event of events) await this.#take(room, event);
    });
    this.#work = turn.catch((error: unknown) => this.ctx.log.error(error, 'recorder'));
    return turn;
  }

  async #take(room: Room, event: StoredEvent) {
    switch (event.type) {
      case 'rangIn': {
        const session = await sessionById(this.ctx.db, room.session);
        const course = session && (await courseById(this.ctx.db, session.courseId));
        if (session && recordsItself(session, course?.recordingPlan ?? null))
          await room.happen((state) =>
            state.recording === 'off' && state.phase === 'live'
              ? [{ type: 'recordingStarted', by: null }]
              : [],
          );
        return;
      }
      case 'recordingStarted':
      case 'recordingResumed':
        return this.#begin(room, event.at);
      case 'recordingPaused':
        return this.#pause(room, event.at);
      case 'interrupted':
        return this.#afterInterruption(room, event);
      case 'dismissed':
        return this.#finish(room, event.at);
    }
  }

  async #begin(room: Room, at: number) {
    const known = await recordingOf(this.ctx.db, room.session);
    const recording = known?.id ?? (await openRecording(this.ctx.db, room.session));
    await closeParts(this.ctx.db, recording, at);
    this.#parts.set(room.session, await openPart(this.ctx.db, recording, at));
    for (const member of this.media.publishersOf(room.session)) await this.#track(room, member);
  }

  /** A publisher's tracks go into files of their own, whose headers say when they began. */
  async #track(room: Room, member: string) {
    const part = this.#parts.get(room.session);
    if (!part || !this.relay.available) return;
    const base = `${part}-${newId()}`;
    await addTrack(this.ctx.db, part, member, base);
    await this.relay
      .record(room.session, member, base)
      .catch((error: unknown) => this.ctx.log.warn(String(error)));
  }

  async #pause(room: Room, at: number) {
    this.#parts.delete(room.session);
    if (this.relay.available)
      for (const member of this.media.publishersOf(room.session))
        await this.relay
          .record(room.session, member, null)
          .catch((error: unknown) => this.ctx.log.warn(String(error)));
    const recording = await recordingOf(this.ctx.db, room.session);
    if (recording) await closeParts(this.ctx.db, recording.id, at);
  }

  async #afterInterruption(room: Room, event: Extract<StoredEvent, { type: 'interrupted' }>) {
    const recording = await recordingOf(this.ctx.db, room.session);
    if (recording) await closeParts(this.ctx.db, recording.id, event.from);
    if (recording && room.state.recording === 'on') await this.#begin(room, event.at);
  }

  async #finish(room: Room, at: number) {
    await this.#pause(room, at);
    await this.media.close(room);
    const recording = await recordingOf(this.ctx.db, room.session);
    if (!recording) return;
    await transaction(this.ctx.db, async (db) => {
      await run(db, "UPDATE recordings SET state = 'preparing' WHERE id = ?", [recording.id]);
      await run(db, "INSERT IGNORE INTO jobs (kind, job_key, payload, due_at) VALUES ('prepare', ?, ?, ?)", [
        `prepare/${recording.id}`,
        JSON.stringify({ recording: recording.id }),
        this.ctx.now(),
      ]);
    });
  }
}
