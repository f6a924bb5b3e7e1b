import ICAL from 'ical.js';

export interface ShownSession {
  startsAt: number;
  minutes: number;
  summary: string;
}

interface Whole {
  sequence: number;
  /** What a single session is known by. */
  sessions: Map<string, ShownSession>;
}
interface Single {
  sequence: number;
  session: ShownSession | null;
}

/**
 * A calendar program as RFC 5546 asks for one: for each UID the whole entry with the highest SEQUENCE, and over it each
 * single session that came with a higher one. Reading is by ical.js alone.
 */
export class CalendarClient {
  readonly #whole = new Map<string, Whole>();
  readonly #singles = new Map<string, Map<string, Single>>();

  receive(text: string) {
    const root = new ICAL.Component(ICAL.parse(text) as unknown[] as never);
    const method = String(root.getFirstPropertyValue('method'));
    ICAL.TimezoneService.reset();
    for (const zone of root.getAllSubcomponents('vtimezone'))
      ICAL.TimezoneService.register(new ICAL.Timezone(zone));
    const events = root.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
    const masters = events.filter((e) => !e.isRecurrenceException());
    for (const master of masters) this.#take(master, events, method);
    if (!masters.length) for (const event of events) this.#takeSingle(event, method);
  }

  #take(master: ICAL.Event, events: ICAL.Event[], method: string) {
    const { uid, sequence } = master;
    if ((this.#whole.get(uid)?.sequence ?? -1) > sequence) return;
    const sessions = new Map<string, ShownSession>();
    if (method !== 'CANCEL') {
      for (const other of events)
        if (other.isRecurrenceException() && other.uid === uid) master.relateException(other);
      const iterator = master.isRecurring() ? master.iterator() : null;
      if (!iterator) sessions.set(keyOf(master.startDate), shown(master));
      for (let next = iterator?.next(); next && sessions.size < 600; next = iterator?.next()) {
        const { item, startDate } = master.getOccurrenceDetails(next);
        sessions.set(keyOf(next), { ...shown(item), startsAt: instantOf(startDate) });
      }
    }
    this.#whole.set(uid, { sequence, sessions });
  }

  #takeSingle(event: ICAL.Event, method: string) {
    const singles = this.#singles.get(event.uid) ?? new Map<string, Single>();
    this.#singles.set(event.uid, singles);
    const key = keyOf(event.recurrenceId as ICAL.Time);
    if ((singles.get(key)?.sequence ?? -1) > event.sequence) return;
    singles.set(key, { sequence: event.sequence, session: method === 'CANCEL' ? null : shown(event) });
  }

  /** What the calendar shows, in the order of time. */
  sessions(): ShownSession[] {
    const all: ShownSession[] = [];
    for (const [uid, whole] of this.#whole) {
      const now = new Map<string, ShownSession | null>(whole.sessions);
      for (const [key, { sequence, session }] of this.#singles.get(uid) ?? [])
        if (sequence > whole.sequence) now.set(key, session);
      for (const session of now.values()) if (session) all.push(session);
    }
    return all.sort((a, b) => a.startsAt - b.startsAt || (a.summary < b.summary ? -1 : 1));
  }
}

const instantOf = (time: ICAL.Time) => time.toJSDate().getTime();
const keyOf = (time: ICAL.Time) => `${time.toString().slice(0, 16)}`;
/** Hours and minutes of a DURATION are exact (RFC 5545 §3.3.6): by end times a clock change would shorten what ends in it. */
const shown = (event: ICAL.Event): ShownSession => ({
  startsAt: instantOf(event.startDate),
  minutes: event.duration.toSeconds() / 60,
  summary: event.summary,
});
