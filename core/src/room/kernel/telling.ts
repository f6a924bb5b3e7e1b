import { ruleOf } from './evolve';
import type { EventType, StoredEvent, StoredOf } from './messages';
import type { RoomState } from './state';

/** What a member is called, by what the events say of them. */
export type NameOf = (member: string) => string;

/** The latest name of everyone whom these events know; of others, what is said of them elsewhere. */
export function namesIn(events: readonly StoredEvent[], otherwise: NameOf = () => 'Somebody'): NameOf {
  const names = new Map<string, string>();
  for (const e of events)
    if (e.type === 'entered' || e.type === 'known' || e.type === 'knocked' || e.type === 'renamed')
      names.set(e.member, e.name);
  return (member) => names.get(member) ?? otherwise(member);
}

/** The chapter of a recording that an event begins, if any. */
export const chapterOf = (event: StoredEvent, nameOf: NameOf): string | null =>
  ruleOf(event).chapter?.(event as StoredOf<EventType>, nameOf) ?? null;

/** The one line of what changed that everyone reads who hears of an event, if any; the room is as it is after it. */
export const noticeOf = (event: StoredEvent, room: RoomState): string | null =>
  ruleOf(event).notice?.(event as StoredOf<EventType>, room) ?? null;

/** The session's log: what happened, for those who teach, in order. */
export const logOf = (
  events: readonly StoredEvent[],
  nameOf: NameOf = namesIn(events),
): { at: number; text: string }[] =>
  events.flatMap((event) => {
    const text = ruleOf(event).log?.(event as StoredOf<EventType>, nameOf);
    return text ? [{ at: event.at, text }] : [];
  });
