import { CAPABILITY_IDS, type Capability, type Permission } from '../limits/capabilities';
import type { LayerName } from '../settings/index';
import type { Actor } from './kernel/concern';
import { evolve } from './kernel/evolve';
import type { EventOf, RoomEvent, StoredEvent } from './kernel/messages';
import { newRoom } from './kernel/registry';
import type { RoomState } from './kernel/state';
import { exceptionEvents, type PersonalLimit } from './limits/exceptions';
import { classLimit, may } from './may';
import { cueEvents } from './runSheet/index';
import { refusalWords } from './words';

/** What one person may do of one thing: the state, the layer that says so, and the sentence that they read. */
export interface Proven {
  state: Permission;
  allowed: boolean;
  layer: LayerName | 'role' | 'floor';
  by: string | null;
  /** Otherwise than the class as a whole. */
  differs: boolean;
  words: string;
}

export interface ProofLine {
  member: string;
  name: string;
  may: Record<Capability, Proven>;
}

const OPEN_WORDS = 'Open to them.';

/** What these people may do in a room as it is: by the function that every way in is asked by. */
export function proofOf(
  room: RoomState,
  people: readonly (Actor & { name: string })[],
  nameOf: (member: string) => string | null,
): ProofLine[] {
  return people.map(({ name, ...actor }) => ({
    member: actor.member,
    name,
    may: Object.fromEntries(
      CAPABILITY_IDS.map((c): [Capability, Proven] => {
        const { allowed, state, because } = may(room, actor, c);
        const words = allowed ? OPEN_WORDS : refusalWords(room, actor, c, nameOf);
        const whole = classLimit(room, c).state;
        const differs = allowed !== (whole === 'open') || state !== whole;
        return [c, { state, allowed, layer: because.layer, by: because.by, differs, words }];
      }),
    ) as Record<Capability, Proven>,
  }));
}

/**
 * A class as it will be at a moment: rung in, at a part of its run sheet where it has one (null: at none), with the
 * exceptions that hold then.
 */
export function roomAhead(
  opened: EventOf<'opened'>,
  exceptions: readonly PersonalLimit[],
  { part, at }: { part: number | null; at: number },
): RoomState {
  let room = newRoom();
  const happen = (events: readonly RoomEvent[]) => {
    for (const event of events) room = evolve(room, { ...event, seq: room.seq + 1, at } as StoredEvent);
  };
  happen([opened, { type: 'rangIn', by: null }]);
  happen(exceptionEvents(room, exceptions, at));
  if (part !== null) happen(cueEvents(room, null, part));
  return room;
}
