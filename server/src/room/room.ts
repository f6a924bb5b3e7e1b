import {
  consequencesOf,
  decide,
  dueBy,
  evolve,
  newRoom,
  nextDue,
  refuse,
  type Actor,
  type Refusal,
  type RoomCommand,
  type RoomEvent,
  type RoomState,
  type StoredEvent,
} from '@nimble-bell/core/room';
import type { Context } from '../context';
import { Connections } from './connections';
import { Rounds } from './effects/rounds';
import { eventRowsAfter, LeaseLost, storeEvents, type EventRow, type Lease } from './store';

export type CommandOutcome = { ok: true; seq: number } | { ok: false; refusal: Refusal };

/** What a room tells of itself: new events, after they are stored; and that another server has it now. */
export interface RoomListener {
  told: (room: Room, events: readonly StoredEvent[]) => void;
  lost: (room: Room) => void;
}

/** One thing to decide when its turn comes. */
interface Turn {
  id: string | null;
  decide: (room: RoomState) => { ok: true; events: readonly RoomEvent[] } | { ok: false; refusal: Refusal };
  answer: (outcome: CommandOutcome) => void;
}

/** What waits together is stored together, at most this many. */
const BATCH = 200;
/** How a room that cannot write tries on, and for how long before it says so. */
const PATIENCE = { pausesMs: [50, 100, 200, 400, 800], untilMs: 25_000 };
/** Events that a page that was away for a moment is given; who has been away longer gets the room as it is. */
const KEPT_EVENTS = 500;
const KEPT_COMMANDS = 20_000;
const LONGEST_TIMER_MS = 2 ** 30;

/**
 * One room in memory, made from its events and nothing else. What is asked is decided one after another, stored (all
 * that waits at once in one statement), then told. After any failure to store, the room reads what is stored before it
 * decides anything: an answer that was lost is found there, and nothing happens twice.
 */
export class Room {
  state: RoomState = newRoom();
  readonly connections = new Connections();
  #kept: StoredEvent[] = [];
  #waiting: Turn[] = [];
  readonly #rounds = new Rounds(() => this.#run());
  #stale = false;
  /** Commands that were decided, and the room's last event then. */
  readonly #commands = new Map<string, number>();
  #clock: NodeJS.Timeout | null = null;
  #over = false;

  constructor(
    readonly ctx: Context,
    readonly lease: Lease,
    readonly listener: RoomListener,
    readonly patience = PATIENCE,
  ) {}

  get session() {
    return this.lease.session;
  }

  async load(): Promise<void> {
    this.#take(await eventRowsAfter(this.ctx.db, this.session, 0));
    this.#setClock();
  }

  /** Decides a command. One that was decided before (same id) is answered as it was then. */
  command(actor: Actor, command: RoomCommand, id: string): Promise<CommandOutcome> {
    return this.#ask(id, (room) => decide(room, actor, command, this.ctx.now()));
  }

  /**
   * Appends what happened by itself: someone came or went, a time was up. `events` sees the state of its turn. What may
   * wait a moment (ms) is stored and told with whatever comes in that time: a class that comes in is told of together.
   */
  async happen(events: (room: RoomState) => readonly RoomEvent[], mayWait = 0): Promise<void> {
    const outcome = await this.#ask(null, (room) => ({ ok: true, events: events(room) }), mayWait);
    if (!outcome.ok) throw new Error(outcome.refusal.message);
  }

  /** When the last thing happened here, ms; null in a room where nothing has. */
  get lastAt(): number | null {
    return this.#kept.at(-1)?.at ?? null;
  }

  /** The events after a place, where they are few and still at hand. */
  since(seq: number): readonly StoredEvent[] | null {
    if (seq === this.state.seq) return [];
    const first = this.#kept[0]?.seq ?? Infinity;
    return seq > 0 && seq + 1 >= first ? this.#kept.filter((e) => e.seq > seq) : null;
  }

  /** The room is no longer this server's: nothing more is decided here. */
  close() {
    this.#over = true;
    if (this.#clock) clearTimeout(this.#clock);
    for (const turn of this.#waiting.splice(0)) turn.answer({ ok: false, refusal: refuse('elsewhere') });
  }

  #ask(id: string | null, decideIt: Turn['decide'], mayWait = 0): Promise<CommandOutcome> {
    if (this.#over) return Promise.resolve({ ok: false, refusal: refuse('elsewhere') });
    return new Promise((answer) => {
      this.#waiting.push({ id, decide: decideIt, answer });
      if (mayWait) setTimeout(() => void this.#rounds.run(), mayWait);
      else void this.#rounds.run();
    });
  }

  async #run() {
    // What comes in the same moment is taken together.
    await null;
    while (this.#waiting.length) await this.#settle(this.#waiting.splice(0, BATCH));
    this.#setClock();
  }

  /** Decides and stores, and tries on for a while where that does not work. */
  async #settle(batch: Turn[]) {
    const { pausesMs, untilMs } = this.patience;
    const until = Date.now() + untilMs;
    for (let attempt = 0; ; attempt++) {
      try {
        return await this.#attempt(batch);
      } catch (error) {
        if (error instanceof LeaseLost) return this.#loseTo(batch);
        this.#stale = true;
        this.ctx.log.warn({ room: this.session, attempt }, String(error));
        if (Date.now() > until || this.#over) {
          for (const turn of batch) turn.answer({ ok: false, refusal: refuse('away') });
          return;
        }
        await pause(pausesMs[Math.min(attempt, pausesMs.length - 1)]!);
      }
    }
  }

  async #attempt(batch: Turn[]) {
    if (this.#stale) await this.#catchUp();
    const at = this.ctx.now();
    let state = this.state;
    const added: EventRow[] = [];
    const answers: [Turn, CommandOutcome][] = [];
    const decided = new Map<string, number>();
    for (const turn of batch) {
      const before = turn.id === null ? undefined : (this.#commands.get(turn.id) ?? decided.get(turn.id));
      if (before !== undefined) {
        answers.push([turn, { ok: true, seq: before }]);
        continue;
      }
      const decision = turn.decide(state);
      if (decision.ok)
        for (const [i, event] of decision.events.entries()) {
          const stored = { ...event, seq: state.seq + 1, at } as StoredEvent;
          // A command's id stands on the last of its events: with it, all of them are there.
          added.push({ event: stored, command: i === decision.events.length - 1 ? turn.id : null });
          state = evolve(state, stored);
        }
      if (decision.ok && turn.id && decision.events.length) decided.set(turn.id, state.seq);
      answers.push([turn, decision.ok ? { ok: true, seq: state.seq } : decision]);
    }
    if (added.length) {
      const events = added.map((row) => row.event);
      await storeEvents(this.ctx.db, this.lease, added, consequencesOf(this.state, events), at);
      this.#take(added, state);
      this.listener.told(this, events);
    }
    for (const [turn, outcome] of answers) turn.answer(outcome);
  }

  /** Reads what is stored and not known here, and tells it: it happened. */
  async #catchUp() {
    const missed = await eventRowsAfter(this.ctx.db, this.session, this.state.seq);
    this.#take(missed);
    this.#stale = false;
    if (missed.length)
      this.listener.told(
        this,
        missed.map((row) => row.event),
      );
  }

  #take(rows: readonly EventRow[], state?: RoomState) {
    this.state = state ?? rows.reduce((room, row) => evolve(room, row.event), this.state);
    for (const { event, command } of rows) {
      this.#kept.push(event);
      if (command) this.#commands.set(command, event.seq);
    }
    if (this.#kept.length > 2 * KEPT_EVENTS) this.#kept = this.#kept.slice(-KEPT_EVENTS);
    while (this.#commands.size > KEPT_COMMANDS) this.#commands.delete(this.#commands.keys().next().value!);
  }

  #loseTo(batch: readonly Turn[]) {
    this.ctx.log.warn({ room: this.session }, 'another server has this room now');
    for (const turn of batch) turn.answer({ ok: false, refusal: refuse('elsewhere') });
    this.giveUp();
  }

  /** Nothing more is decided here, and its pages are told to look elsewhere. */
  giveUp() {
    this.close();
    this.listener.lost(this);
  }

  /** One clock for all that happens by itself. */
  #setClock() {
    if (this.#clock) clearTimeout(this.#clock);
    const due = this.#over ? null : nextDue(this.state);
    if (!due) return;
    const wait = Math.min(Math.max(0, due.at - this.ctx.now()), LONGEST_TIMER_MS);
    this.#clock = setTimeout(() => {
      void this.happen((room) => dueBy(room, this.ctx.now()))
        .catch((error: unknown) => this.ctx.log.error(error, 'what was due in a room'))
        .finally(() => this.#setClock());
    }, wait).unref();
  }
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
