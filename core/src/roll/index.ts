import type { StoredEvent } from '../room/index';
import type { Mark } from './marks';

export * from './book';
export * from './marks';
import type { Role } from '../roster/role';
import { allInForce, type Layer } from '../settings/index';

export interface RollPerson {
  member: string;
  name: string;
  role: Role;
}

export interface RollLine extends RollPerson {
  state: 'present' | 'absent';
  /** First arrival and last departure, instants; null for the absent, and `until` for those still there. */
  from: number | null;
  until: number | null;
  /** Whole minutes in the room while the class was on. */
  minutes: number;
  late: boolean;
  leftEarly: boolean;
  /** There for fewer minutes than the course asks for. */
  short: boolean;
  /** By telephone at some time. */
  telephone: boolean;
  stays: { from: number; until: number }[];
  /** What a teacher says in place of the rules; the reason for those who teach. */
  corrected: Correction | null;
}

export interface Correction {
  mark: Mark;
  reason: string;
  /** A name. */
  by: string;
  at: number;
}

export interface RollRules {
  /** Arriving later than this many minutes after ring-in or the planned start, whichever is later, is late. */
  lateAfterMinutes: number;
  /** Leaving more than this many minutes before the class ended is early. */
  earlyBeforeMinutes: number;
  /** Fewer minutes than this are no presence. */
  enoughMinutes: number;
  /** An absence no longer than this is a lost connection, not a departure. Seconds. */
  graceSeconds: number;
}

export const COLLEGE_ROLL: RollRules = {
  lateAfterMinutes: 5,
  earlyBeforeMinutes: 10,
  enoughMinutes: 0,
  graceSeconds: 90,
};

/** The rules under these layers: what is counted late, early, and enough. */
export function rollRules(layers: readonly Layer[]): RollRules {
  const { graceSeconds, ...own } = COLLEGE_ROLL;
  return { ...allInForce(layers, 'roll', own), graceSeconds };
}

const MINUTE = 60_000;

/** The roll of a session from its room's events, in the order of the class list. */
export function rollOf(
  events: readonly StoredEvent[],
  people: readonly RollPerson[],
  planned: { startsAt: number; endsAt: number },
  now: number,
  rules: RollRules = COLLEGE_ROLL,
): RollLine[] {
  const rangIn = events.find((e) => e.type === 'rangIn')?.at ?? null;
  const dismissed = events.find((e) => e.type === 'dismissed')?.at ?? null;
  const end = dismissed ?? now;
  // Who goes when the class is over does not leave early, whoever stays for a question.
  const last = events.findLast((e) => e.type === 'letGo');
  const over = last?.on ? last.at : end;
  const stays = staysOf(events, end, rules.graceSeconds * 1000);
  const called = new Set(events.flatMap((e) => (e.type === 'calledIn' ? [e.member] : [])));
  return people.map((person) => {
    const own = rangIn === null ? [] : clipped(stays.get(person.member) ?? [], rangIn, end);
    if (own.length === 0) return { ...person, ...ABSENT };
    const until = own.at(-1)!.until;
    return {
      ...person,
      ...judged(
        own,
        { from: Math.max(rangIn!, planned.startsAt), until: Math.min(end, over, planned.endsAt) },
        rules,
      ),
      state: 'present',
      from: own[0]!.from,
      until: dismissed === null && until >= end ? null : until,
      telephone: called.has(person.member),
      stays: own,
      corrected: null,
    };
  });
}

const ABSENT = {
  ...{ state: 'absent', from: null, until: null, minutes: 0 },
  ...{ late: false, leftEarly: false, short: false, telephone: false, stays: [], corrected: null },
} satisfies Omit<RollLine, keyof RollPerson>;

/** What the rules make of when somebody was there, beside when the class was due: its beginning and its end. */
export function judged(
  stays: RollLine['stays'],
  due: { from: number; until: number },
  rules: RollRules,
): Pick<RollLine, 'minutes' | 'late' | 'leftEarly' | 'short'> {
  const minutes = Math.round(stays.reduce((sum, s) => sum + s.until - s.from, 0) / MINUTE);
  return {
    minutes,
    late: stays[0]!.from > due.from + rules.lateAfterMinutes * MINUTE,
    leftEarly: stays.at(-1)!.until < due.until - rules.earlyBeforeMinutes * MINUTE,
    short: minutes < rules.enoughMinutes,
  };
}

/**
 * When each member was in the room; gaps within the grace (ms) are closed. Those still there stay until `end`. While the
 * server was away nobody is known to have been there.
 */
export function staysOf(events: readonly StoredEvent[], end: number, grace: number) {
  const stays = new Map<string, { from: number; until: number }[]>();
  const inside = new Map<string, number>();
  const depart = (member: string, at: number) => {
    const from = inside.get(member);
    if (from === undefined) return;
    inside.delete(member);
    const own = stays.get(member) ?? [];
    const last = own.at(-1);
    if (last && from - last.until <= grace) last.until = at;
    else own.push({ from, until: at });
    stays.set(member, own);
  };
  for (const event of events) {
    if (event.type === 'entered' && !inside.has(event.member)) inside.set(event.member, event.at);
    else if (event.type === 'left') depart(event.member, event.at);
    else if (event.type === 'interrupted')
      for (const m of [...inside.keys()]) {
        depart(m, event.from);
        inside.set(m, event.at);
      }
  }
  for (const member of [...inside.keys()]) depart(member, end);
  return stays;
}

const clipped = (stays: { from: number; until: number }[], from: number, until: number) =>
  stays
    .map((s) => ({ from: Math.max(s.from, from), until: Math.min(s.until, until) }))
    .filter((s) => s.until > s.from);
