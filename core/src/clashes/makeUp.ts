import type { Period, Term } from '../calendar/plan';
import { mondayOf, toClock, toEpochDay, toLocalDate, toMinutes } from '../calendar/localDate';
import { countWords, listWords, zoneWords } from '../calendar/words';
import { termDays, weekOf } from '../calendar/term';
import { toInstant, toWall, type Instant } from '../calendar/zone';
import { hourOf } from '../calendar/zones';

/** What is known when a lost session's substitute is looked for. */
export interface MakeUpQuestion {
  term: Term;
  minutes: number;
  now: Instant;
  /** Hours that people must be told beforehand. */
  noticeHours: number;
  /** Bell times: a start on one of them is preferred. Without any, every half hour of the day is tried. */
  periods: readonly Period[];
  /** The lost session, to stay near. */
  lost: { startsAt: Instant };
  /** Who must be there; without them a slot is no slot. */
  teachers: readonly Attendee[];
  students: readonly Attendee[];
}

export interface Attendee {
  zone: string;
  /** Their other sessions, in any order. */
  busy: readonly { startsAt: Instant; endsAt: Instant }[];
}

export interface MakeUpSlot {
  date: string;
  start: string;
  startsAt: Instant;
  endsAt: Instant;
  week: number | null;
  /** Lower is better. */
  cost: number;
  /** Students who have another class then. */
  busy: number;
  /** Students for whom it is an unsociable hour. */
  unsociable: number;
  reasons: string[];
}

/** How much each drawback weighs. A student who cannot come is the worst, the night the next. */
export const WEIGHTS = {
  /** A student with another class. */
  busy: 10,
  /** A student for whom it ends after 23:00 or begins before 06:00. */
  night: 8,
  /** A student for whom it ends after 22:00 or begins before 08:00. */
  late: 2,
  /** All students together, where the start is not on the bell times. */
  offBell: 0.15,
  /** All students together, on a Saturday or Sunday. */
  weekend: 0.3,
  /** All students together, for each week away from the lost session. */
  perWeek: 0.12,
  /** All students together, for each hour of the day away from the lost session's. */
  perHour: 0.08,
};

/** Of one day, so many slots at most: a choice of days helps more than a choice of half hours. */
const MOST_A_DAY = 2;

const FIRST_START = 7 * 60;
const LAST_END = 23 * 60;
const STEP = 30;
const MINUTE = 60_000;

/** The `most` best slots of the remaining term, best first, at most `mostADay` of one day, each with its reasons. */
export function rankMakeUps(question: MakeUpQuestion, most = 12, mostADay = MOST_A_DAY): MakeUpSlot[] {
  const ranked = weighed(question).sort((a, b) => a.cost - b.cost || a.startsAt - b.startsAt);
  const ofDay = new Map<string, number>();
  return distinctFirst(ranked)
    .filter(({ date }) => {
      const n = (ofDay.get(date) ?? 0) + 1;
      ofDay.set(date, n);
      return n <= mostADay;
    })
    .slice(0, most);
}

/** Slots that lie apart, best first, and after them those that overlap a better one: half an hour later is no other choice. */
function distinctFirst(ranked: readonly MakeUpSlot[]): MakeUpSlot[] {
  const apart: MakeUpSlot[] = [];
  const beside: MakeUpSlot[] = [];
  const ofDay = new Map<string, MakeUpSlot[]>();
  for (const slot of ranked) {
    const known = ofDay.get(slot.date) ?? [];
    if (known.some((k) => k.startsAt < slot.endsAt && slot.startsAt < k.endsAt)) beside.push(slot);
    else {
      apart.push(slot);
      ofDay.set(slot.date, [...known, slot]);
    }
  }
  return [...apart, ...beside];
}

/** An open slot on the map of a week. */
export type MapSlot = Pick<
  MakeUpSlot,
  'date' | 'start' | 'startsAt' | 'endsAt' | 'cost' | 'busy' | 'unsociable'
>;

/** A week, by its Monday, with all its open slots. */
export interface MakeUpWeek {
  monday: string;
  slots: MapSlot[];
}

export interface MakeUps {
  best: MakeUpSlot[];
  week: MakeUpWeek;
  students: number;
}

/** The best slots, and the map of a week: the one that is asked for, or that of the best slot. */
export function makeUps(question: MakeUpQuestion, week: string | null): MakeUps {
  const best = rankMakeUps(question);
  const date = week ?? best[0]?.date ?? toLocalDate(toWall(question.term.zone, question.now).day);
  const monday = mondayOf(toEpochDay(date));
  const inWeek = ({ date: d }: { date: string }) => mondayOf(toEpochDay(d)) === monday;
  const slots = weighed(question)
    .filter(inWeek)
    .map(({ reasons, week: _, ...slot }) => slot);
  return { best, week: { monday: toLocalDate(monday), slots }, students: question.students.length };
}

/** Every open slot with what it costs, by time. */
function weighed(question: MakeUpQuestion): MakeUpSlot[] {
  const slots = openSlots(question);
  const taken = busyCounts(slots, question.students, question.minutes);
  const zones = new Map<string, number>();
  for (const s of question.students) zones.set(s.zone, (zones.get(s.zone) ?? 0) + 1);
  return slots.map((slot, i) => weigh(slot, taken[i]!, zones, question));
}

interface Open {
  date: string;
  start: string;
  startsAt: Instant;
  endsAt: Instant;
  week: number | null;
  weekend: boolean;
  onBell: boolean;
}

/** Every start in the rest of the term at which the teachers are free, on no day off, with enough notice. Ascending. */
function openSlots({ term, minutes, now, noticeHours, periods, teachers }: MakeUpQuestion): Open[] {
  const days = termDays(term);
  const earliest = now + noticeHours * 60 * MINUTE;
  const bells = new Set(periods.map((p) => p.start));
  const starts = new Set<number>([...bells].map(toMinutes));
  for (let m = FIRST_START; m + minutes <= LAST_END; m += STEP) starts.add(m);
  const clock = [...starts].filter((m) => m + minutes <= 24 * 60).sort((a, b) => a - b);
  const busy = teachers.flatMap((t) => t.busy);
  const slots: Open[] = [];
  for (let day = Math.max(days.first, toWall(term.zone, earliest).day); day <= days.last; day++) {
    if (days.follows[day - days.first]! < 0) continue;
    for (const m of clock) {
      const startsAt = toInstant(term.zone, day, m);
      const endsAt = startsAt + minutes * MINUTE;
      if (startsAt < earliest || busy.some((b) => b.startsAt < endsAt && startsAt < b.endsAt)) continue;
      const start = toClock(m);
      slots.push({
        date: toLocalDate(day),
        start,
        startsAt,
        endsAt,
        week: weekOf(days, day)?.number ?? null,
        weekend: (((day + 3) % 7) + 7) % 7 > 4,
        onBell: bells.size === 0 || bells.has(start),
      });
    }
  }
  return slots;
}

/** How many students have another class at each slot; one with two classes then counts once. */
function busyCounts(slots: readonly Open[], students: readonly Attendee[], minutes: number): Int32Array {
  const counts = new Int32Array(slots.length);
  const seenBy = new Int32Array(slots.length).fill(-1);
  const starts = Float64Array.from(slots, (s) => s.startsAt);
  for (const [index, { busy }] of students.entries())
    for (const { startsAt, endsAt } of busy)
      for (
        let i = firstAfter(starts, startsAt - minutes * MINUTE);
        i < starts.length && starts[i]! < endsAt;
        i++
      )
        if (seenBy[i] !== index) {
          seenBy[i] = index;
          counts[i]!++;
        }
  return counts;
}

/** The first place whose value is greater. */
function firstAfter(values: Float64Array, value: number): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (values[mid]! <= value) low = mid + 1;
    else high = mid;
  }
  return low;
}

function weigh(slot: Open, busy: number, zones: ReadonlyMap<string, number>, q: MakeUpQuestion): MakeUpSlot {
  const all = Math.max(1, q.students.length);
  const reasons: string[] = [];
  let cost = busy * WEIGHTS.busy;
  let unsociable = 0;
  const odd: string[] = [];
  for (const [zone, people] of zones) {
    const hour = hourOf(zone, slot.startsAt, slot.endsAt);
    if (hour === 'good') continue;
    cost += people * WEIGHTS[hour];
    unsociable += people;
    odd.push(`${toClock(toWall(zone, slot.startsAt).minutes)} for ${people} in ${zoneWords(zone)}`);
  }
  reasons.push(
    busy === 0
      ? `nobody of ${q.students.length} has another class`
      : `${busy} of ${q.students.length} ${busy === 1 ? 'has' : 'have'} another class`,
  );
  if (odd.length) reasons.push(listWords(odd));
  else reasons.push('a good hour for everyone');
  if (!slot.onBell) {
    cost += all * WEIGHTS.offBell;
    reasons.push('not on the bell times');
  }
  if (slot.weekend) {
    cost += all * WEIGHTS.weekend;
    reasons.push('at the weekend');
  }
  const usual = toWall(q.term.zone, q.lost.startsAt).minutes;
  const hours = Math.abs(toMinutes(slot.start) - usual) / 60;
  cost += all * hours * WEIGHTS.perHour;
  if (hours === 0) reasons.push('at the usual hour');
  const weeks = Math.abs(slot.startsAt - q.lost.startsAt) / (7 * 86_400_000);
  cost += all * weeks * WEIGHTS.perWeek;
  const days = Math.round(Math.abs(toEpochDay(slot.date) - toWall(q.term.zone, q.lost.startsAt).day));
  const when = slot.startsAt < q.lost.startsAt ? 'before' : 'after';
  const apart = days === 0 ? 'on the same day' : `${countWords(days, 'day')} ${when} the lost session`;
  reasons.push(apart);
  const { date, start, startsAt, endsAt, week } = slot;
  return { date, start, startsAt, endsAt, week, cost, busy, unsociable, reasons };
}
