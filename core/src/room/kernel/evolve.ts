import type { EventRule } from './concern';
import type { EventType, StoredEvent, StoredOf } from './messages';
import { CONCERNS, EVENTS, OWNER } from './registry';
import type { Parts, RoomState } from './state';

/** An event's rule as the kernel calls it. */
export const ruleOf = (event: StoredEvent) =>
  EVENTS[event.type] as unknown as EventRule<keyof Parts, EventType>;

type Heed = (part: unknown, event: StoredEvent, room: RoomState) => unknown;

/** For each type of event, who heeds it, in the concerns' order. */
const HEEDS = new Map<EventType, { name: keyof Parts; heed: Heed }[]>();
for (const { name, heeds } of CONCERNS)
  for (const [type, heed] of Object.entries(heeds ?? {}) as [EventType, Heed][])
    HEEDS.set(type, [...(HEEDS.get(type) ?? []), { name, heed }]);

/** The state after an event. Pure: the argument is left as it was. */
export function evolve(room: RoomState, event: StoredEvent): RoomState {
  const owner = OWNER[event.type];
  const rule = ruleOf(event);
  const placed = event as StoredOf<EventType>;
  let next: RoomState = {
    ...room,
    seq: event.seq,
    [owner]: rule.evolve(room[owner], placed, room),
  };
  for (const { name, heed } of HEEDS.get(event.type) ?? [])
    next = { ...next, [name]: heed(next[name], event, next) };
  const text = rule.notice?.(placed, next);
  if (!text) return next;
  const heard = rule.hears(placed, next);
  const place = heard.to === 'place' ? { place: heard.place } : {};
  return { ...next, notice: { seq: event.seq, text, ...place } };
}
