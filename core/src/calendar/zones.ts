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
  /** Minutes by which the local clock differs from its usual distance to home: not 0 in weeks of differing clock changes. */
  drift: number;
}

export interface ZoneBand {
  zone: string;
  people: number;
  /** Minutes from home to this zone in most sessions. */
  usual: number;
  hours: LocalHour[];
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
    const usual = commonest(distances);
    const hours = sessions.map(({ startsAt, endsAt }, i): LocalHour => {
      const wall = toWall(zone, startsAt);
      return {
        startsAt,
        date: toLocalDate(wall.day),
        minutes: wall.minutes,
        dayShift: wall.day - toWall(home, startsAt).day,
        hour: hourOf(zone, startsAt, endsAt),
        drift: distances[i]! - usual,
      };
    });
    return { zone, people, usual, hours };
  });
}

/** The value there most often; of two as often, the first. */
function commonest(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  let best = 0;
  let most = 0;
  for (const [value, n] of counts) if (n > most) [best, most] = [value, n];
  return best;
}
