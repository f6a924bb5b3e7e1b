import {
  CLASS,
  frontOf,
  isHere,
  isOpen,
  may,
  ownPlace,
  placeOf,
  questionOn,
  roundOf,
  SIGNS,
} from '../room/index';
import type { AskedQuestion, RoomCommand, RoomState } from '../room/index';
import { randomFrom, shuffle } from '../shuffle';
import type { Answer } from '../questions/index';
import { AT_TABLES, GREETINGS, RUDE, SAID, SHORT_ANSWERS } from './words';
import type { StandIn } from './standIns';

/** What a stand-in knows of the room: no more than a student's page. */
export interface Sight {
  room: RoomState;
  me: { member: string; role: 'student' | 'guest' };
  /** An instant, ms. */
  now: number;
}

/** What a stand-in does: a command as a page sends it, or being away for a while. */
export type Act = { do: 'command'; command: RoomCommand } | { do: 'drop'; ms: number };

/** What whoever rehearses can let happen. */
export const PROMPTS = ['hands', 'chatter', 'unruly', 'lines', 'signs'] as const;
export type Prompt = (typeof PROMPTS)[number];

const command = (command: RoomCommand): Act => ({ do: 'command', command });
const S = 1000;
/** So many strokes does one draw on a board at most. */
const MOST_STROKES = 3;
const COLOURS = ['ink', 'pine', 'clay', 'tide'] as const;

/**
 * How a stand-in behaves: asked about once a second. The same stand-in, seed and room give the same behaviour; they know
 * what a student's page knows, and obey the limits but for those whose temper it is to try.
 */
export class Mind {
  readonly #random: () => number;
  /** What they mean to do, and when: by what it is about. */
  readonly #meant = new Map<string, number>();
  #prompted: Prompt | null = null;
  #greeted = false;
  /** How often they drew, by the board. */
  readonly #drew = new Map<string, number>();

  constructor(
    readonly self: StandIn,
    seed: number,
  ) {
    this.#random = randomFrom(seed);
  }

  prompt(what: Prompt) {
    this.#prompted = what;
  }

  beat(sight: Sight): Act[] {
    const { room, me } = sight;
    if (!isHere(room, me.member) || room.bell.phase === 'dismissed') return [];
    const prompted = this.#prompted;
    this.#prompted = null;
    return [
      ...this.#speaks(sight),
      ...this.#shows(sight),
      ...this.#answers(sight),
      ...this.#raises(sight, prompted === 'hands'),
      ...this.#writes(sight, prompted === 'chatter'),
      ...this.#signs(sight, prompted === 'signs'),
      ...this.#draws(sight),
      ...this.#chooses(sight),
      ...this.#tries(sight, prompted === 'unruly'),
      ...(this.#often(this.self.temper.drops / 150) || prompted === 'lines'
        ? [{ do: 'drop' as const, ms: this.#between(2 * S, 15 * S) }]
        : []),
    ];
  }

  #often(chance: number): boolean {
    return this.#random() < chance;
  }
  #between(from: number, to: number): number {
    return Math.round(from + this.#random() * (to - from));
  }
  #of<T>(some: readonly T[]): T {
    return some[Math.floor(this.#random() * some.length)]!;
  }
  /** Whether the time has come for something that is done a while after its cause. */
  #after(what: string, now: number, from: number, to: number): boolean {
    const at = this.#meant.get(what) ?? now + this.#between(from, to);
    this.#meant.set(what, at);
    return now >= at;
  }

  /** Who has the floor, or is asked to, speaks for a while. */
  #speaks({ room, me, now }: Sight): Act[] {
    const on = Boolean(room.desk.microphone[me.member]);
    const called = room.floor.holder === me.member || me.member in room.desk.asked;
    if (on) {
      if (!this.#after('silent', now, 8 * S, 20 * S)) return [];
      this.#meant.delete('silent');
      this.#meant.delete('speaks');
      return [command({ type: 'microphone', on: false })];
    }
    if (!called) {
      this.#meant.delete('speaks');
      return [];
    }
    if (!may(room, me, 'speak').allowed || !this.#after('speaks', now, 1 * S, 4 * S)) return [];
    return [command({ type: 'microphone', on: true })];
  }

  /** Who has a camera shows themselves where they may. */
  #shows({ room, me, now }: Sight): Act[] {
    if (!this.self.seen || room.desk.camera[me.member] || !may(room, me, 'camera').allowed) return [];
    if (room.bell.phase !== 'live' || !this.#after('shows', now, 3 * S, 10 * S)) return [];
    this.#meant.delete('shows');
    return [command({ type: 'camera', on: true })];
  }

  #answers({ room, me, now }: Sight): Act[] {
    const asked = questionOn(room);
    if (!asked || !isOpen(asked)) return [];
    const round = `answer/${asked.id}/${asked.rounds.length}`;
    if (roundOf(asked).answers[me.member] || this.#meant.get(round) === Infinity) return [];
    // Some think long: a few are over their time.
    if (!this.#after(round, now, 2 * S, 18 * S)) return [];
    this.#meant.set(round, Infinity);
    return [command({ type: 'answer', question: asked.id, answer: this.#answerTo(asked) })];
  }

  /** No student's page knows what is right: half of them agree on something, the others are spread. */
  #answerTo({ id, question: { kind, options } }: AskedQuestion): Answer {
    const agrees = this.#often(0.5);
    if (kind === 'words') return agrees ? SHORT_ANSWERS[id % SHORT_ANSWERS.length]! : this.#of(SHORT_ANSWERS);
    if (kind === 'number') return agrees ? (id % 9) + 1 : this.#between(1, 100) / 5;
    if (kind === 'point') {
      const around = (centre: number) =>
        agrees ? centre + this.#between(-60, 60) / 1000 : this.#between(20, 980) / 1000;
      return { x: around(0.2 + (id % 7) / 12), y: around(0.3 + (id % 5) / 12) };
    }
    const count = options.length || 2;
    const places = Array.from({ length: count }, (_, i) => i);
    if (kind === 'order') return agrees ? places : shuffle(places, this.#random);
    if (kind === 'several') {
      const some = places.filter((i) => i === id % count || this.#often(0.3));
      return some.length ? some : [id % count];
    }
    return agrees ? id % count : this.#of(places);
  }

  #raises({ room, me, now }: Sight, prompted: boolean): Act[] {
    const up = room.floor.hands.some((h) => h.member === me.member);
    if (up) {
      if (!this.#after('lowers', now, 60 * S, 150 * S)) return [];
      this.#meant.delete('lowers');
      return [command({ type: 'lowerHand', member: me.member })];
    }
    this.#meant.delete('lowers');
    if (room.bell.phase !== 'live' || room.limits.hush) return [];
    const wishes = prompted ? this.#often(0.7) : this.#often(this.self.temper.asks / 120);
    return wishes ? [command({ type: 'raiseHand' })] : [];
  }

  #writes({ room, me }: Sight, prompted: boolean): Act[] {
    const toClass = may(room, me, 'writeToClass').allowed;
    const { talks, rude } = this.self.temper;
    if (!this.#greeted && toClass && this.#often(talks / 4)) {
      this.#greeted = true;
      return [say('class', this.#of(GREETINGS))];
    }
    const wishes = prompted ? this.#often(0.6) : this.#often(talks / 50);
    if (!wishes) return [];
    if (placeOf(room, me.member) !== CLASS) return toClass ? [say('class', this.#of(AT_TABLES))] : [];
    const text = this.#often(rude) ? this.#of(RUDE) : this.#of(SAID);
    if (toClass) return [say('class', text)];
    return may(room, me, 'writeToTeachers').allowed ? [say('teachers', text)] : [];
  }

  #signs({ room, me }: Sight, prompted: boolean): Act[] {
    if (room.bell.phase !== 'live' || !may(room, me, 'react').allowed) return [];
    const wishes = prompted ? this.#often(0.8) : this.#often(this.self.temper.signs / 90);
    return wishes ? [command({ type: 'giveSign', sign: this.#of(SIGNS.filter((s) => s !== 'away')) })] : [];
  }

  /** On a board of their own each draws; on one that is before them, or at a table, some do where they may. */
  #draws({ room, me, now }: Sight): Act[] {
    const place = placeOf(room, me.member);
    const own = room.board.given && place === CLASS;
    const on = own ? ownPlace(me.member) : place;
    const drew = this.#drew.get(on) ?? 0;
    if (room.bell.phase !== 'live' || drew >= MOST_STROKES) return [];
    if (own) {
      if (!this.#after(`draw/${drew}`, now, 2 * S, 20 * S)) return [];
    } else {
      const before = place !== CLASS || frontOf(room, place) === 'board';
      if (!before || !may(room, me, 'draw').allowed || !this.#often(1 / 40)) return [];
    }
    this.#drew.set(on, drew + 1);
    return [command({ type: 'draw', stroke: this.#wave(), ...(own && { at: on }) })];
  }

  /** A line that rises and falls as tides do, somewhere on the board. */
  #wave() {
    const [x, y] = [this.#between(5, 60) / 100, this.#between(20, 80) / 100];
    const [long, high] = [this.#between(10, 35) / 100, this.#between(2, 15) / 100];
    const points = Array.from({ length: 40 }, (_, i) => {
      const along = i / 39;
      return [x + long * along, y + high * Math.sin(along * 2 * Math.PI)].map(
        (n) => Math.round(n * 1e4) / 1e4,
      );
    }).flat();
    return { points, colour: this.#of(COLOURS) };
  }

  /** A table is chosen where everybody chooses; at one, some call for help. */
  #chooses({ room, me, now }: Sight): Act[] {
    const { laid } = room.tables;
    if (!laid) return [];
    const at = laid.tables.find((t) => t.members.includes(me.member));
    if (!at)
      return laid.choose && this.#after(`choose/${laid.from}`, now, 1 * S, 12 * S)
        ? [command({ type: 'goTo', place: this.#of(laid.tables).place })]
        : [];
    return this.#often(1 / 400) && !laid.calls.some((c) => c.place === at.place)
      ? [command({ type: 'callHelp', on: true })]
      : [];
  }

  /** What is closed is tried: the room refuses it. */
  #tries({ room, me }: Sight, prompted: boolean): Act[] {
    const wishes = prompted ? this.#often(0.5) : this.#often(this.self.temper.tries / 60);
    if (!wishes || room.bell.phase !== 'live') return [];
    const closed: Act[] = [];
    if (!may(room, me, 'speak').allowed) closed.push(command({ type: 'microphone', on: true }));
    if (!may(room, me, 'camera').allowed) closed.push(command({ type: 'camera', on: true }));
    if (!may(room, me, 'draw').allowed)
      closed.push(command({ type: 'draw', stroke: { points: [0.2, 0.2, 0.4, 0.3], colour: 'clay' } }));
    if (!may(room, me, 'writeToClass').allowed) closed.push(say('class', this.#of(RUDE)));
    return closed.length ? [this.#of(closed)] : [];
  }
}

const say = (to: 'class' | 'teachers', text: string): Act =>
  command({ type: 'say', addressee: { to }, text });
