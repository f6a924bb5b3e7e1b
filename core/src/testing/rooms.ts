import fc from 'fast-check';
import type { SeriesKind } from '../calendar/seriesKind';
import { CAPABILITY_IDS } from '../limits/capabilities';
import { Permission, type SomeLimits } from '../limits/schema';
import type { Role } from '../roster/role';
import {
  CLASS,
  decide,
  evolve,
  newRoom,
  type Actor,
  type EventOf,
  type PlannedTimes,
  type Refusal,
  type RoomCommand,
  type RoomEvent,
  type RoomState,
  type StoredEvent,
} from '../room/index';
import { noSettings, withValues, type Layer } from '../settings/index';
import { headOfJpeg } from './jpeg';

/** A picture for a board. */
export const pictured = {
  jpeg: headOfJpeg(640, 480),
  words: 'The harbour at low water',
  ...{ from: [0.3, 0.3] as [number, number], to: [0.7, 0.7] as [number, number] },
};

export const maren: Actor = { member: 'maren', role: 'teacher' };
export const ana: Actor = { member: 'ana', role: 'student' };
export const ben: Actor = { member: 'ben', role: 'student' };
const NAMES: Record<string, string> = { maren: 'Maren Oduya', ana: 'Ana Lanyon', ben: 'Ben Garrow' };

/** Somebody walks in. */
export const entry = (member: string, name = NAMES[member] ?? member, role: Role = 'student') =>
  ({ type: 'entered', member, name, role, place: CLASS }) satisfies RoomEvent;

/** The times of an evening lecture of 80 minutes with 10 to linger, by the clock of a test room. */
export const LECTURE: PlannedTimes = { startsAt: 0, endsAt: 80 * 60_000, lingerMinutes: 10 };

/** A course's own layer that sets some limits, by Maren. */
export const courseLimits = (limits: SomeLimits): Layer => ({
  name: 'course',
  settings: withValues(noSettings(), 'limits', limits, 'maren', 1),
});

/** What a room begins with. */
export const opening = (
  layers: readonly Layer[] = [],
  { kind = 'class' as SeriesKind, times = LECTURE } = {},
): EventOf<'opened'> => ({ type: 'opened', kind, times, layers: [...layers] });

/** A room that takes commands as the server does: decided, numbered, evolved; a second for each event. */
export class TestRoom {
  state: RoomState = newRoom();
  readonly events: StoredEvent[] = [];
  /** Added to the time of the next event, ms. */
  later = 0;

  happen(...events: RoomEvent[]): this {
    for (const event of events) {
      const stored = { ...event, seq: this.state.seq + 1, at: this.now } as StoredEvent;
      this.events.push(stored);
      this.state = evolve(this.state, stored);
    }
    return this;
  }
  get now() {
    return 1000 * (this.state.seq + 1) + this.later;
  }
  do(actor: Actor, command: RoomCommand) {
    const decision = decide(this.state, actor, command, this.now);
    if (decision.ok) this.happen(...decision.events);
    return decision;
  }
  refusal(actor: Actor, command: RoomCommand): Refusal | null {
    const decision = decide(this.state, actor, command, this.now);
    return decision.ok ? null : decision.refusal;
  }
}

/** A lecture that Maren has rung in, with Ana and Ben in it, under these limits of the course. */
export function lecture(limits: SomeLimits = {}): TestRoom {
  const room = new TestRoom().happen(
    opening([courseLimits(limits)]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana'),
    entry('ben'),
  );
  room.do(maren, { type: 'ringIn' });
  return room;
}

const anyMember = fc.constantFrom('ana', 'ben');
/** Commands that leave the class on. */
export const anyCommand: fc.Arbitrary<RoomCommand> = fc.oneof(
  fc.record({
    type: fc.constant('setLimit' as const),
    capability: fc.constantFrom(...CAPABILITY_IDS),
    state: fc.constantFrom(...Permission.options),
  }),
  fc.record({
    type: fc.constantFrom('microphone' as const, 'camera' as const, 'present' as const),
    on: fc.boolean(),
  }),
  fc.record({
    type: fc.constantFrom('mute' as const, 'giveFloor' as const, 'lowerHand' as const),
    member: anyMember,
  }),
  fc.record({
    type: fc.constant('openFor' as const),
    capability: fc.constantFrom(...CAPABILITY_IDS),
    seconds: fc.integer({ min: 5, max: 600 }),
  }),
  fc.record({
    type: fc.constantFrom(
      'raiseHand' as const,
      'takeFloor' as const,
      'muteAll' as const,
      'closeAgain' as const,
    ),
  }),
  fc.record({
    type: fc.constant('say' as const),
    addressee: fc.oneof(
      fc.constant({ to: 'class' as const }),
      fc.constant({ to: 'teachers' as const }),
      anyMember.map((member) => ({ to: 'member' as const, member })),
    ),
    text: fc.constantFrom('Is it springs?', 'I am lost', 'Thank you'),
  }),
  fc.record({
    type: fc.constant('ask' as const),
    question: fc.record({
      text: fc.constantFrom('', 'Which way?'),
      kind: fc.constantFrom('yesNo' as const, 'trueFalse' as const, 'words' as const),
      options: fc.constant<string[]>([]),
      right: fc.constant(null),
      anonymous: fc.boolean(),
    }),
    live: fc.boolean(),
  }),
  fc.record({
    type: fc.constant('answer' as const),
    question: fc.integer({ min: 4, max: 20 }),
    answer: fc.constantFrom<number | string>(0, 1, 'ebb'),
  }),
  fc.record({
    type: fc.constantFrom(
      'closeAnswers' as const,
      'askAgain' as const,
      'putAway' as const,
      'pick' as const,
      'passOn' as const,
      'stopTimer' as const,
    ),
  }),
  fc.record({ type: fc.constant('showAnswers' as const), right: fc.boolean() }),
  fc.record({ type: fc.constant('startTimer' as const), seconds: fc.constantFrom(null, 60) }),
  fc.constantFrom<RoomCommand>(
    { type: 'draw', stroke: { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' } },
    { type: 'draw', stroke: { points: [0.8, 0.1, 0.2, 0.9], colour: 'clay' }, at: 'own-ana' },
    { type: 'putShape', shape: { shape: 'box', from: [0.2, 0.2], to: [0.4, 0.9], colour: 'pine' } },
    { type: 'putPicture', picture: pictured, at: 'own-ana' },
    { type: 'putPicture', picture: pictured },
    { type: 'takeOff', marks: [5, 6, 7, 8] },
    { type: 'takeOff', marks: [9, 10, 11, 12], at: 'own-ana' },
    { type: 'putBack', marks: [5, 6, 7, 8] },
    { type: 'shift', marks: [5, 6, 7, 8, 9], x: 0.3, y: -0.3 },
    { type: 'clearBoard' },
    { type: 'undoClearing' },
    { type: 'turnBoard', side: 1 },
    { type: 'turnBoard', side: 2 },
    { type: 'giveBoards', given: true },
    { type: 'giveBoards', given: false },
    { type: 'showWork', place: 'own-ana', named: false },
  ),
);
/** Somebody of the lecture gives a command. */
export const anyStep = fc.tuple(fc.constantFrom(maren, ana, ben), anyCommand);
