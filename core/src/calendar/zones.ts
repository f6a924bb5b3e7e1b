import { toLocalDate } from './localDate';
import { offsetAt, toWall, type Instant } from './zone';

export type Hour = 'good' | 'late' | 'night';

/** How sociable a stretch of time is by somebody's own clock. */
export function hourOf(zone: string, startsAt: Instant, endsAt: Instant): Hour {
  const start = toWall(zone, startsAt);
  const end = toWall(zone, endsAt);
  const until = end.minutes + (end.day - start.day) * 1440;
  if (start.minutes < 6 * 60 || until > 23 * 60) return 'night';
  if (start.minutes < 8 * 60 || until > 22 * 60) return 'late';
  return 'good';
}

/** One session by the clock of one zone. */
export interface LocalHour {
  startsAt: Instant;
  /** Local date and minutes after its midnight. */
  date: string;
  minutes: number;
  /** Days from the home date: 1 where it is tomorrow already. */
  dayShift: number;
  hour: Hour;
  /** In weeks of differing clock changes, the minutes by which the local clock is off what it was and will be again. */
  drift: number;
}

export interface ZoneBand {
  zone: string;
  people: number;
  hours: LocalHour[];
  /** Sessions from which on the local hour is another for good: one of the two changes its clocks and the other never does. */
  shifts: { startsAt: Instant; minutes: number }[];
}

/**
 * The local hour of each session for each zone. Where home and a zone change their clocks on different dates, the
 * sessions between carry the drift.
 */
export function zoneBands(
  home: string,
  zones: readonly { zone: string; people: number }[],
  sessions: readonly { startsAt: Instant; endsAt: Instant }[],
): ZoneBand[] {
  return zones.map(({ zone, people }) => {
    const distances = sessions.map((s) => offsetAt(zone, s.startsAt) - offsetAt(home, s.startsAt));
    const { drifts, shiftsAt } = runsOf(distances);
    const hours = sessions.map(({ startsAt, endsAt }, i): LocalHour => {
      const wall = toWall(zone, startsAt);
      return {
        startsAt,
        date: toLocalDate(wall.day),
        minutes: wall.minutes,
        dayShift: wall.day - toWall(home, startsAt).day,
        hour: hourOf(zone, startsAt, endsAt),
        drift: drifts[i]!,
      };
    });
    return {
      zone,
      people,
      hours,
      shifts: shiftsAt.map(({ at, minutes }) => ({ startsAt: sessions[at]!.startsAt, minutes })),
    };
  });
}

/** A run of sessions at one distance that lies between two at another is a drift; any other change is for good. */
function runsOf(distances: readonly number[]) {
  const runs: { from: number; distance: number }[] = [];
  for (const [i, distance] of distances.entries())
    if (runs.at(-1)?.distance !== distance) runs.push({ from: i, distance });
  const drifts = distances.map(() => 0);
  const shiftsAt: { at: number; minutes: number }[] = [];
  let standing = runs[0];
  for (const [i, run] of runs.entries()) {
    const next = runs[i + 1];
    if (i > 0 && next && next.distance === standing!.distance) {
      for (let k = run.from; k < next.from; k++) drifts[k] = run.distance - standing!.distance;
    } else if (run.distance !== standing!.distance) {
      shiftsAt.push({ at: run.from, minutes: run.distance - standing!.distance });
      standing = run;
    }
  }
  return { drifts, shiftsAt };
}
