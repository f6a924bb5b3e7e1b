import { randomUUID } from 'node:crypto';
import { doorFor, doorRules, doorWords } from '@nimble-bell/core/door';
import { isOn, type StoredEvent } from '@nimble-bell/core/room';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import {
  keyed,
  LINE_WORDS,
  PIN_DIGITS,
  pressed,
  toldOf,
  welcomeWords,
  type TelephoneKey,
} from '@nimble-bell/core/telephone';
import { byLink } from '../accounts/principal';
import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { sessionsOfCourse } from '../courses/store';
import { AppError } from '../errors';
import type { MediaRelay } from '../media/relay';
import type { Media } from '../room/effects/media';
import { admit } from '../room/entrance/admit';
import { NO_LONGER, type Attendance } from '../room/entrance/attendance';
import type { Device, Visit } from '../room/entrance/visits';
import { Elsewhere } from '../room/lease';
import type { Room } from '../room/room';
import { Turns } from '../turns';
import type { IncomingCall } from './gateway';
import { whoseCall } from './pins';
import { isLine, memberByPin } from './store';
import type { Voice } from './voice';

/** A caller at a door that opens within this long holds the line, ms. */
const HOLDS_MS = 30 * 60_000;
/** Whether it is open by now is asked this often, ms. */
const ASKS_MS = 1000;
const TRIES = 3;

export interface CallerParts {
  ctx: Context;
  attendance: Attendance;
  media: Media;
  relay: MediaRelay;
}

/** Where a caller is: keying the PIN, holding before a door, knocking at it, in the room, or gone. */
type At = 'pin' | 'holds' | 'knocks' | 'in' | 'gone';

/** One caller, from the ring to the end: their PIN, the door, and the class by ear and keys. */
export class Caller implements Device {
  readonly way = 'telephone';
  readonly #turns = new Turns();
  #at: At = 'pin';
  #pin = '';
  #wrong = 0;
  #session: string | null = null;
  /** The PIN that was right. */
  #known = '';
  #visit: Visit | null = null;
  #since = 0;
  #timer: NodeJS.Timeout | null = null;
  #sounding = false;

  constructor(
    readonly call: IncomingCall,
    readonly parts: CallerParts,
    readonly voice: Voice,
  ) {}

  get id() {
    return this.call.id;
  }
  get room(): Room | null {
    return this.#visit?.room ?? null;
  }

  /** Answers the call. */
  async begin() {
    const { relay, ctx } = this.parts;
    this.call.onKey((key) => void this.#inTurn(() => this.#key(key)));
    this.call.onEnd(() => void this.#inTurn(() => this.#gone()));
    await this.#inTurn(async () => {
      await this.call.hears((offer) => relay.openLine(this.id, offer));
      if (!(await isLine(ctx.db, this.call.dialled))) return this.#end(LINE_WORDS.noLine);
      void this.voice.say(LINE_WORDS.greeting);
    });
  }

  #inTurn(work: () => Promise<void>): Promise<void> {
    return this.#turns.take('call', work).catch((error: unknown) => {
      this.parts.ctx.log.error(error, 'a call');
      return this.#end('Something went wrong here. Please call again.');
    });
  }

  async #key(key: TelephoneKey) {
    if (this.#at === 'pin') return this.#keyPin(key);
    if (this.#at !== 'in' || !this.#visit) return;
    const { room, member } = this.#visit;
    const actor = { member: member.id, role: member.role };
    const act = pressed(room.state, actor, key);
    if (!act) return;
    this.voice.interrupt();
    if ('say' in act) return void this.voice.say(act.say);
    const outcome = await room.command(actor, act.command, randomUUID());
    if (!outcome.ok) void this.voice.say(outcome.refusal.message);
  }

  async #keyPin(key: TelephoneKey) {
    this.#pin = keyed(this.#pin, key);
    if (this.#pin.length < PIN_DIGITS) return;
    const pin = this.#pin;
    this.#pin = '';
    this.voice.interrupt();
    const whose = await whoseCall(this.parts.ctx, this.call.dialled, this.call.caller, pin);
    if (whose === 'tooOften') return this.#end(LINE_WORDS.tooOften);
    if (whose !== 'wrong') {
      return this.#findSession(byLink(whose), pin);
    }
    if (++this.#wrong >= TRIES) return this.#end(LINE_WORDS.tooOften);
    void this.voice.say(LINE_WORDS.wrong);
  }

  /** The class that is on, or the next. */
  async #findSession(member: MemberRow, pin: string) {
    const { ctx } = this.parts;
    const ahead = (await sessionsOfCourse(ctx.db, member.courseId)).filter(
      (s) =>
        s.published &&
        s.state !== 'held' &&
        s.state !== 'cancelled' &&
        isFor(targetOf(s), member) &&
        (s.state === 'live' || s.endsAt + s.lingerMinutes * 60_000 > ctx.now()),
    );
    const next = ahead.find((s) => s.state === 'live') ?? ahead.sort((a, b) => a.startsAt - b.startsAt)[0];
    if (!next) return this.#end(LINE_WORDS.noClass);
    this.#session = next.id;
    this.#known = pin;
    this.#since = ctx.now();
    await this.#enter(pin);
  }

  async #enter(pin: string) {
    if (this.#at === 'gone' || this.#at === 'in') return;
    const { attendance, ctx } = this.parts;
    try {
      // Whose PIN it is is asked anew, however long they held the line.
      const whose = await memberByPin(ctx.db, this.call.dialled, pin, ctx.now());
      if (!whose) return this.#end(`${NO_LONGER.pin} ${LINE_WORDS.goodbye}`);
      const member = byLink(whose);
      if (await this.#holds(pin, member)) return;
      const { about, member: now } = await admit(
        ctx,
        attendance.facts,
        { kind: 'link', member },
        this.#session!,
      );
      const arrival = { member: now, credential: { kind: 'pin', pin, line: this.call.dialled } as const };
      this.#retry = () => void this.#inTurn(() => this.#enter(pin));
      const stands = await attendance.enter(this, this.#session!, arrival, () => {});
      if (!stands.in) return this.#wait();
      this.#at = 'in';
      await this.#talk();
      void this.voice.say(welcomeWords(about.course));
    } catch (error) {
      if (error instanceof Elsewhere) return this.#again();
      if (error instanceof AppError) return this.#end(`${error.message} ${LINE_WORDS.goodbye}`);
      throw error;
    }
  }
  #retry: () => void = () => {};

  /** Before a door that opens soon one holds the line; at any other shut door, one is told when it opens. */
  async #holds(pin: string, member: MemberRow): Promise<boolean> {
    const { attendance, ctx } = this.parts;
    const { row } = await attendance.facts.of(this.#session!);
    const door = doorFor(row, doorRules(row.layers, row.kind), member.role, ctx.now());
    if (door.open) return false;
    const soon =
      door.because === 'teacher' || (door.because === 'early' && door.opensAt - ctx.now() < HOLDS_MS);
    if (!soon) {
      await this.#end(`${doorWords(door, member.zone)} ${LINE_WORDS.goodbye}`);
      return true;
    }
    if (ctx.now() - this.#since > HOLDS_MS) {
      await this.#end(LINE_WORDS.late);
      return true;
    }
    if (this.#at !== 'holds') void this.voice.say(`${doorWords(door, member.zone)} ${LINE_WORDS.holds}`);
    this.#at = 'holds';
    this.#timer = setTimeout(() => void this.#inTurn(() => this.#enter(pin)), ASKS_MS).unref();
    return true;
  }

  async #wait() {
    if (this.#at !== 'knocks') void this.voice.say(LINE_WORDS.knocks);
    this.#at = 'knocks';
  }

  /** What they say goes to the room, what the room says to them. */
  async #talk() {
    const { media, relay } = this.parts;
    const { room, member } = this.#visit!;
    if (!relay.available) return void this.voice.say(LINE_WORDS.relayAway);
    await this.call.says((offer) => media.publish(room, member.id, offer, 'telephone'));
    // Put out in the meantime, one hears nothing of it.
    if (this.#visit) media.listen(room, this.id, member.id);
  }

  /** What happened in the room, as far as a caller is told of it. */
  hear(room: Room, events: readonly StoredEvent[]) {
    if (!this.#visit || this.#visit.room !== room) return;
    const { member } = this.#visit;
    const actor = { member: member.id, role: member.role };
    if (events.some((e) => e.type === 'dismissed'))
      return void this.#inTurn(() => this.#end('The class is over. Goodbye.'));
    const told = events.flatMap((e) => toldOf(e, room.state, actor) ?? []);
    const sounds = isOn(room.state, member.id, 'sound');
    const own = events.some(
      (e) => (e.type === 'microphone' || e.type === 'muted') && (e.member === member.id || e.member === null),
    );
    if (this.#sounding && !sounds && !own) told.push('Your microphone is off.');
    this.#sounding = sounds;
    for (const words of new Set(told)) void this.voice.say(words);
  }

  join(visit: Visit) {
    this.#visit = visit;
  }
  leave() {
    if (this.#visit) this.parts.media.unlisten(this.#visit.room, this.id);
    this.#visit = null;
  }
  door = () => this.#retry();
  word = (text: string) => void this.voice.say(`The teachers say: ${text}`);
  you = () => {};
  putOut = (message: string) => void this.#inTurn(() => this.#end(`${message} ${LINE_WORDS.goodbye}`));
  moved = () => this.#again();
  #again = () => this.call.again(this.#session!, this.#known);
  close = () => {};

  /** Says a last word and hangs up. */
  async #end(words: string) {
    if (this.#at === 'gone') return;
    this.#at = 'gone';
    this.voice.interrupt();
    await this.parts.attendance.goAway(this.id, 0);
    await Promise.race([
      this.voice.say(words),
      new Promise((resolve) => setTimeout(resolve, 15_000).unref()),
    ]);
    this.call.hangUp();
    await this.#closeLine();
  }

  async #gone() {
    if (this.#timer) clearTimeout(this.#timer);
    this.#at = 'gone';
    this.voice.interrupt();
    await this.parts.attendance.goAway(this.id, 0);
    await this.#closeLine();
  }

  #closeLine = () => this.parts.relay.closeLine(this.id).catch(() => {});
}
