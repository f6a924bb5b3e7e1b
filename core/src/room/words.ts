import { rowOf, type Capability } from '../limits/capabilities';
import type { Actor } from './kernel/concern';
import type { RoomState } from './kernel/state';
import { may } from './may';

export type PeopleKnown = Pick<RoomState, 'presence'>;

/** What somebody is called in the room. */
export const nameIn = ({ presence }: PeopleKnown, member: string, unknown = 'A teacher'): string =>
  presence.people[member]?.name ?? unknown;

const WHERE = {
  college: 'at this college',
  course: 'for this course',
  series: 'for this series',
  session: 'for this session',
  cue: 'in this part of the class',
  time: 'at this time',
  table: 'at the tables',
  person: 'for you',
} as Record<string, string>;

/** What is closed, by whom, and what one can do instead. */
export function refusalWords(
  room: Pick<RoomState, 'limits' | 'floor' | 'presence'>,
  actor: Actor,
  capability: Capability,
  nameOf: (member: string) => string | null = (m) => room.presence.people[m]?.name ?? null,
): string {
  const { doing, verb } = rowOf(capability);
  const verdict = may(room, actor, capability);
  const { layer, by } = verdict.because;
  const who = by ? nameOf(by) : null;
  if (layer === 'hush') return `${who ?? 'A teacher'} has hushed the room. It is lifted in a moment.`;
  if (actor.role === 'observer') return 'Observers watch and listen.';
  if (verdict.state === 'byHand')
    return `${doing} ${verb} by hand. Raise your hand and wait to be given the floor.`;
  const closed = `${doing} ${verb} closed ${WHERE[layer] ?? 'just now'}${who ? ` by ${who}` : ''}.`;
  return capability !== 'writeToTeachers' && may(room, actor, 'writeToTeachers').allowed
    ? `${closed} You can raise your hand or write to a teacher.`
    : `${closed} You can raise your hand.`;
}
