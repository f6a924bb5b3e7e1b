import { performance } from 'node:perf_hooks';
import { clashesOf, rankMakeUps, type MakeUpQuestion, type TimedSeries } from '@nimble-bell/core/clashes';
import { toEpochDay, toInstant } from '@nimble-bell/core/calendar';
import { ms, percentile, type Figure } from './table';

const ZONE = 'America/Halifax';
const WEEKS = 16;
const FIRST = toEpochDay('2026-08-31');

/** A generator of its own, so that every run has the same college. */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

/**
 * A college: each series twice a week at one of the day's hours, each student in four of them. Students choose what they
 * can go to, but for one choice in fifty.
 */
function college(series: number, enrolments: number): TimedSeries[] {
  const next = random(7);
  const pick = (n: number) => Math.floor(next() * n);
  const slots = Array.from({ length: series }, () => ({ day: pick(5), hour: 8 + pick(12) }));
  const people: string[][] = slots.map((_, i) => [`teacher${Math.floor(i / 3)}`]);
  for (let student = 0; student * 4 < enrolments; student++) {
    const taken = new Set<string>();
    for (let k = 0; k < 4; k++) {
      let choice = pick(series);
      const hoursOf = (i: number) => [0, 2].map((d) => `${(slots[i]!.day + d) % 7}/${slots[i]!.hour}`);
      const careless = next() < 0.02;
      while (!careless && hoursOf(choice).some((h) => taken.has(h))) choice = pick(series);
      for (const h of hoursOf(choice)) taken.add(h);
      people[choice]!.push(`student${student}`);
    }
  }
  return people.map((own, i) => {
    const { day, hour } = slots[i]!;
    const sessions = Array.from({ length: WEEKS * 2 }, (_, k) => {
      const date = FIRST + Math.floor(k / 2) * 7 + ((day + (k % 2) * 2) % 7);
      const startsAt = toInstant(ZONE, date, hour * 60);
      return { startsAt, endsAt: startsAt + 55 * 60_000 };
    }).sort((a, b) => a.startsAt - b.startsAt);
    return { id: `s${i}`, people: own, sessions };
  });
}

/** The same by each person's own timetable, sorted and swept: the plain way that does not square either. */
function swept(series: readonly TimedSeries[]): number {
  const own = new Map<string, { start: number; end: number; series: number }[]>();
  for (const [i, s] of series.entries())
    for (const person of new Set(s.people)) {
      let list = own.get(person);
      if (!list) own.set(person, (list = []));
      for (const { startsAt, endsAt } of s.sessions) list.push({ start: startsAt, end: endsAt, series: i });
    }
  const pairs = new Map<string, Set<string>>();
  for (const [person, list] of own) {
    list.sort((a, b) => a.start - b.start);
    for (let i = 0; i < list.length; i++)
      for (let j = i + 1; j < list.length && list[j]!.start < list[i]!.end; j++) {
        const [a, b] = [list[i]!, list[j]!];
        if (a.series === b.series) continue;
        const [x, y] = a.series < b.series ? [a, b] : [b, a];
        const key = `${x.series}/${x.start}/${y.series}/${y.start}`;
        const people = pairs.get(key);
        if (people) people.add(person);
        else pairs.set(key, new Set([person]));
      }
  }
  return pairs.size;
}

function timed(work: () => unknown, runs: number): number {
  work();
  const times = Array.from({ length: runs }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return percentile(times, 0.5);
}

/** Two works by turns, so that both meet the same moments of the machine; the ratio is the median of the rounds'. */
function byTurns(single: () => unknown, twice: () => unknown) {
  const once = (work: () => unknown) => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  for (let i = 0; i < 3; i++) {
    single();
    twice();
  }
  const rounds = Array.from({ length: 25 }, () => ({ a: once(single), b: once(twice) }));
  const median = (of: (r: { a: number; b: number }) => number) => percentile(rounds.map(of), 0.5);
  return { ours: median((r) => r.a), double: median((r) => r.b), ratio: median((r) => r.b / r.a) };
}

export function clashes(): Figure[] {
  const [one, two] = [college(2000, 60_000), college(4000, 120_000)];
  const found = clashesOf(one).length;
  if (found !== swept(one)) throw new Error('The two ways do not find the same clashes.');
  const theirs = timed(() => swept(one), 5);
  const { ours, double, ratio } = byTurns(
    () => clashesOf(one),
    () => clashesOf(two),
  );
  const what = `clashes of 2,000 series, 16 weeks, 60,000 enrolments (${found} found)`;
  return [
    {
      what,
      ours: ms(ours),
      peer: 'a sorted sweep a person',
      theirs: ms(theirs),
      ratio: `${(theirs / ours).toFixed(1)} to 1`,
      wanted: '',
    },
    {
      what: 'clashes of twice as many',
      ours: ms(double),
      peer: 'half as many',
      theirs: ms(ours),
      ratio: `${ratio.toFixed(2)} times`,
      wanted: 'at most 2.3 times',
    },
  ];
}

/** A class of 300, each with five courses of two sessions a week. */
function question(): MakeUpQuestion {
  const next = random(11);
  const zones = [ZONE, ZONE, 'Europe/Lisbon', 'Atlantic/Azores', 'America/St_Johns'];
  const timetable = () =>
    Array.from({ length: 5 * 2 * WEEKS }, (_, k) => {
      const startsAt = toInstant(
        ZONE,
        FIRST + Math.floor(next() * WEEKS * 7),
        (8 + Math.floor(next() * 12)) * 60 + (k % 2) * 30,
      );
      return { startsAt, endsAt: startsAt + 75 * 60_000 };
    });
  const attendee = (i: number) => ({ zone: zones[i % zones.length]!, busy: timetable() });
  const now = toInstant(ZONE, FIRST + 7, 0);
  return {
    term: {
      name: 'Bench',
      zone: ZONE,
      firstDay: '2026-08-31',
      lastDay: '2026-12-20',
      daysOff: [],
      daySwaps: [],
    },
    minutes: 80,
    now,
    noticeHours: 48,
    periods: [],
    lost: { startsAt: now },
    teachers: [attendee(0)],
    students: Array.from({ length: 300 }, (_, i) => attendee(i)),
  };
}

/** The plain way: every slot asks every session of every student. */
function plainCounts(q: MakeUpQuestion): number {
  let busy = 0;
  for (const slot of rankMakeUps(q, 100_000, 99))
    for (const { busy: own } of q.students)
      if (own.some((b) => b.startsAt < slot.endsAt && slot.startsAt < b.endsAt)) busy++;
  return busy;
}

export function makeUps(): Figure[] {
  const q = question();
  const ranked = rankMakeUps(q, 100_000, 99);
  if (plainCounts(q) !== ranked.reduce((sum, s) => sum + s.busy, 0))
    throw new Error('The two ways do not count the same.');
  const ours = timed(() => rankMakeUps(q), 9);
  const theirs = timed(() => plainCounts(q), 3);
  return [
    {
      what: `make-up ranking, 300 students with 5 courses each, ${ranked.length} slots`,
      ours: ms(ours),
      peer: 'every slot asking every session',
      theirs: ms(theirs),
      ratio: `${(theirs / ours).toFixed(1)} to 1`,
      wanted: '',
    },
  ];
}
