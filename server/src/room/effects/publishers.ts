import type { Way } from '@nimble-bell/core/door';
import {
  CLASS,
  isWithheld,
  placeOf,
  sends,
  speaksBy,
  type Place,
  type RoomState,
} from '@nimble-bell/core/room';
import type { Logger } from 'pino';
import { Rounds } from './rounds';
import type { MediaRelay, TrackKind } from '../../media/relay';

/** The part of a recording that is open in each place of a room. */
type OpenParts = ReadonlyMap<Place, string>;

/** What the room needs of recordings: the parts that are open, and a row for each publisher's files in them. */
export interface Reels {
  partsOf(session: string): Promise<OpenParts>;
  /** Notes that a member's tracks go into files of their own; gives how their names begin. */
  begin(part: string, member: string): Promise<string>;
}

/** A member's page and their telephone are publishers of their own: both may be there. */
export const publisherOf = (member: string, way: Way): string =>
  way === 'page' ? member : `${member}.${way}`;
export const memberOf = (publisher: string): string => publisher.split('.')[0]!;

/** The part that tracks go into, and whether what is seen does. */
interface Written {
  part: string;
  pictures: boolean;
}

export interface Publisher {
  /** Its id at the relay. */
  id: string;
  member: string;
  way: Way;
  /** What it sends. */
  kinds: readonly TrackKind[];
  /** Which publishing of this member it is. */
  number: number;
  /** Its connection stands: before, the relay knows nothing of it that could be watched. */
  up: boolean;
  /** What the relay has confirmed of each track. A new publisher's are closed; null where it is not known. */
  confirmed: Record<TrackKind, boolean | null>;
  /** What its tracks are written into; undefined where that is not known. */
  reel: Written | null | undefined;
  failures: number;
  /** Told of each kind that is passed on from now on. */
  passed: (kind: TrackKind) => void;
}

const NOTHING: OpenParts = new Map();
const RETRY_MS = [100, 300, 800, 2000];
/** A track that cannot be closed after so many tries is closed by taking its publisher off. */
const TRIES = 4;

export interface RoomAtRelay {
  readonly session: string;
  readonly state: RoomState;
}

/**
 * Makes a room's publishers at the relay what the room's state wants them to be: which tracks go on, and what is
 * written. Wanted and confirmed are kept apart. What fails is asked again; a track that cannot be closed is closed by
 * taking its publisher off.
 */
export class Publishers {
  readonly all = new Map<string, Publisher>();
  readonly #rounds = new Rounds(() => this.#round());
  #retry: NodeJS.Timeout | null = null;
  /** Publishers that must go, and have not been confirmed gone. */
  readonly #going = new Set<string>();

  constructor(
    readonly room: RoomAtRelay,
    readonly relay: MediaRelay,
    readonly reels: Reels,
    readonly log: Logger,
    /** After every round: what is confirmed may be another. */
    readonly settled: () => void = () => {},
  ) {}

  /** Looks at what is wanted and asks for what is not confirmed. Resolves when nothing more can be asked just now. */
  settle(): Promise<void> {
    return this.#rounds.run();
  }

  /** Takes a publisher off, for good: asked until the relay confirms it. */
  async remove(id: string): Promise<void> {
    this.all.delete(id);
    this.#going.add(id);
    await this.settle();
  }

  /** The relay has forgotten everything. */
  forget() {
    this.all.clear();
    this.#going.clear();
  }

  stop() {
    if (this.#retry) clearTimeout(this.#retry);
    this.forget();
  }

  async #round() {
    if (!this.relay.available) return;
    const failed = await this.#closeAndOpen();
    if (failed) this.#tryLater(failed);
    this.settled();
  }

  /** What closes goes first. Gives the most failures in a row of any publisher, 0 where nothing failed. */
  async #closeAndOpen(): Promise<number> {
    const gone = await Promise.all([...this.#going].map((id) => this.#takeOff(id)));
    const { state, kept } = this.room.state.recording;
    const parts = state === 'on' && kept !== 'nothing' ? await this.#parts() : NOTHING;
    const failures = await Promise.all([...this.all.values()].map((p) => this.#makeSo(p, parts)));
    return Math.max(0, ...failures, gone.every(Boolean) ? 0 : 1);
  }

  async #takeOff(id: string): Promise<boolean> {
    if (this.all.has(id)) return this.#going.delete(id) || true;
    try {
      await this.relay.unpublish(this.room.session, id);
      this.#going.delete(id);
      return true;
    } catch (error) {
      this.log.warn({ publisher: id }, `not taken off: ${String(error)}`);
      return false;
    }
  }

  async #makeSo(publisher: Publisher, parts: OpenParts | undefined): Promise<number> {
    const { id, member, confirmed, kinds } = publisher;
    const wanted = (kind: TrackKind) => this.#wanted(publisher, kind);
    const differs = kinds.filter((kind) => confirmed[kind] !== wanted(kind));
    const closing = differs.filter((kind) => !wanted(kind));
    try {
      await Promise.all(closing.map((kind) => this.#moderate(publisher, kind, false)));
      // Asked again of the room as it is by now: what has been closed meanwhile is not opened.
      const opening = differs.filter((kind) => !closing.includes(kind) && wanted(kind));
      await Promise.all(opening.map((kind) => this.#moderate(publisher, kind, true)));
      await this.#write(publisher, parts && this.#keptIn(member, parts));
      publisher.failures = 0;
    } catch (error) {
      this.log.warn({ member, failures: ++publisher.failures }, String(error));
      const unclosed = kinds.some((kind) => confirmed[kind] !== false && !wanted(kind));
      if (unclosed && publisher.failures >= TRIES && this.all.get(id) === publisher) {
        this.all.delete(id);
        this.#going.add(id);
        void this.settle();
        return 0;
      }
    }
    return publisher.failures;
  }

  /**
   * The part that somebody belongs in: of the place where they are. Whoever does not agree to be recorded is not written,
   * not even to be taken out later.
   */
  #keptIn = (member: string, parts: OpenParts): Written | null => {
    const place = placeOf(this.room.state, member);
    const part = isWithheld(this.room.state, member) ? undefined : parts.get(place);
    // Of tables what is said is kept, and nothing that is seen.
    return part ? { part, pictures: place === CLASS && this.room.state.recording.kept === 'all' } : null;
  };

  /** Sound goes out by one way of a member at a time. */
  #wanted({ member, way }: Publisher, kind: TrackKind): boolean {
    const { state } = this.room;
    return sends(state, member, kind) && (kind !== 'sound' || speaksBy(state, member) === way);
  }

  async #moderate(publisher: Publisher, kind: TrackKind, open: boolean) {
    publisher.confirmed[kind] = null;
    await this.relay.moderate(this.room.session, publisher.id, kind, open);
    publisher.confirmed[kind] = open;
    if (open && this.all.get(publisher.id) === publisher) publisher.passed(kind);
  }

  /** A publisher's tracks go into files of their own for each part, whose headers say when they began. */
  async #write(publisher: Publisher, written: Written | null | undefined) {
    if (written === undefined) return;
    const { reel } = publisher;
    const same =
      written && reel ? reel.part === written.part && reel.pictures === written.pictures : reel === written;
    if (same) return;
    publisher.reel = undefined;
    const files = written && {
      base: await this.reels.begin(written.part, publisher.member),
      pictures: written.pictures,
    };
    await this.relay.record(this.room.session, publisher.id, files);
    publisher.reel = written;
  }

  /** The parts that are open; undefined where that cannot be read now. */
  async #parts(): Promise<OpenParts | undefined> {
    try {
      return await this.reels.partsOf(this.room.session);
    } catch (error) {
      this.log.warn({ why: String(error) }, 'the open parts could not be read');
      this.#tryLater(1);
      return undefined;
    }
  }

  #tryLater(failures: number) {
    if (this.#retry) clearTimeout(this.#retry);
    const wait = RETRY_MS[Math.min(failures, RETRY_MS.length) - 1]!;
    this.#retry = setTimeout(() => void this.settle().catch((e: unknown) => this.log.error(e)), wait).unref();
  }
}
