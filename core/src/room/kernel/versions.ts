import type { EventRule } from './concern';
import { EVENT_SCHEMAS, type EventType, type RoomEvent, type StoredEvent } from './messages';
import { EVENTS } from './registry';
import type { Parts } from './state';

const rule = (type: EventType) => EVENTS[type] as unknown as EventRule<keyof Parts, EventType>;

/** The version in which an event of this type is stored today. */
export const versionOf = (type: EventType): number => rule(type).version;

/** A stored event as it stands in its row: the body with its type, in the version of its day. */
export interface StoredRow {
  seq: number;
  at: number;
  version: number;
  body: unknown;
}

/** Brings a stored body up to date, step by step, and checks it. A row that holds no event is a fault, and is said. */
export function readEvent({ seq, at, version, body }: StoredRow): StoredEvent {
  let current = body as { type: EventType } & Record<string, unknown>;
  if (!Object.hasOwn(EVENT_SCHEMAS, current.type))
    throw new Error(`There is no event of type ${current.type}.`);
  const { version: today, upcast = [] } = rule(current.type);
  if (version > today)
    throw new Error(`The event ${current.type} is of a later version (${version}) than this program.`);
  for (let v = version; v < today; v++) current = upcast[v - 1]!(current) as typeof current;
  const event = EVENT_SCHEMAS[current.type].parse(current) as RoomEvent;
  return { ...event, seq, at };
}
