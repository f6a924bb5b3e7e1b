import type { z } from 'zod';
import type { SeriesKind } from '../calendar/seriesKind';
import { teaches, type Role } from '../roster/role';
import { clockWords, instantWords, zoneWords } from '../calendar/words';
import type { Instant } from '../calendar/zone';
import type { Came, Way } from './comers';
import { allInForce, ENTRIES, inForce, type DoorValues, type Entry, type Layer } from '../settings/index';

export { CAME, WAYS, type Came, type Way } from './comers';
export { DoorInput, DoorAtInput } from './schema';
export { DOOR_ROWS, doorRuleWords, type DoorRow } from './words';

/** The door's rules in force. */
export type DoorRules = z.infer<typeof DoorValues>;

export const COLLEGE_DOOR: DoorRules = {
  opensMinutesBefore: 15,
  teacherFirst: true,
  classList: 'straight',
  guests: 'straight',
  accounts: 'straight',
  visitors: 'straight',
  telephone: 'straight',
  aloneMinutes: 10,
  lateMinutes: 15,
  late: 'straight',
  cameras: 'choice',
  arrivalsFor: 'nobody',
  arrivalsBy: 'line',
  missingMinutes: 5,
};

/**
 * The rules in force under these layers. Whether students may be in an always-open room without a teacher, only that
 * room's own series or session says; where it says nothing, they may.
 */
export function doorRules(layers: readonly Layer[], kind: SeriesKind = 'class'): DoorRules {
  const own = kind === 'open' ? layers.filter((l) => l.name === 'series' || l.name === 'session') : layers;
  const rules = allInForce(layers, 'door', COLLEGE_DOOR);
  return {
    ...rules,
    visitors: inForce(layers, 'door', 'visitors')?.value ?? rules.guests,
    teacherFirst:
      inForce(own, 'door', 'teacherFirst')?.value ?? (kind !== 'open' && COLLEGE_DOOR.teacherFirst),
  };
}

export interface DoorSession {
  state: 'planned' | 'moved' | 'cancelled' | 'live' | 'held';
  startsAt: Instant;
  endsAt: Instant;
  lingerMinutes: number;
  /** A room without dates, open all term; or one in which a teacher records alone. */
  kind?: SeriesKind;
  /** When the others who teach were told that nobody has rung in. */
  missedAt?: Instant | null;
}

export type DoorState =
  | { open: true }
  | { open: false; because: 'early'; opensAt: Instant }
  | { open: false; because: 'teacher'; toldAt?: Instant }
  | { open: false; because: 'over' }
  | { open: false; because: 'cancelled' };

/** Teachers may enter this long before the start, to set up. */
const SET_UP_MINUTES = 120;
const MINUTE = 60_000;

/** Whether this person may walk in now, and if not, why and from when. */
export function doorFor(session: DoorSession, rules: DoorRules, role: Role, now: Instant): DoorState {
  if (session.state === 'cancelled') return { open: false, because: 'cancelled' };
  if (session.state === 'held') return { open: false, because: 'over' };
  if (session.kind === 'capture' && !teaches(role)) return { open: false, because: 'teacher' };
  if (session.state === 'live') return { open: true };
  if (now > session.endsAt + session.lingerMinutes * MINUTE) return { open: false, because: 'over' };
  const minutes = teaches(role) ? SET_UP_MINUTES : rules.opensMinutesBefore;
  const opensAt = session.startsAt - minutes * MINUTE;
  if (now < opensAt) return { open: false, because: 'early', opensAt };
  if (!teaches(role) && rules.teacherFirst) {
    // What was told before it was moved was told of another time.
    const told = session.missedAt && session.missedAt >= session.startsAt ? { toldAt: session.missedAt } : {};
    return { open: false, because: 'teacher', ...told };
  }
  return { open: true };
}

/** Who stands at the door, as far as it asks. */
export interface AtDoor {
  role: Role;
  came?: Came | undefined;
  way?: Way | undefined;
}

const ownEntry = (rules: DoorRules, { role, came }: AtDoor): Entry =>
  role !== 'guest'
    ? rules.classList
    : came === 'account'
      ? rules.accounts
      : came === 'visitor'
        ? rules.visitors
        : rules.guests;

/** How somebody comes in at this time: the strictest of the rules that concern them. The start is an instant. */
export function entryFor(rules: DoorRules, who: AtDoor, startsAt: Instant, now: Instant): Entry {
  if (teaches(who.role)) return 'straight';
  const asked = [
    ownEntry(rules, who),
    ...(who.way === 'telephone' ? [rules.telephone] : []),
    ...(now >= startsAt + rules.lateMinutes * MINUTE ? [rules.late] : []),
  ];
  return ENTRIES[Math.max(...asked.map((entry) => ENTRIES.indexOf(entry)))]!;
}

/** What a shut door says, in the reader's own time. */
export function doorWords(door: Exclude<DoorState, { open: true }>, zone: string): string {
  if (door.because === 'cancelled') return 'This session is cancelled.';
  if (door.because === 'over') return 'This class is over. The link opens again for the next one.';
  if (door.because === 'teacher') {
    const told = door.toldAt ? ` The others who teach were told at ${clockWords(door.toldAt, zone)}.` : '';
    return `The door opens when your teacher rings in.${told}`;
  }
  return `The door opens ${instantWords(door.opensAt, zone)}, ${zoneWords(zone)} time.`;
}
