import type { NamedClash } from '@nimble-bell/core/api';
import { periodsFor, sessionsOf, termDays, type LaidSession } from '@nimble-bell/core/calendar';
import { check, type Finding, type Setup } from '@nimble-bell/core/readiness';
import type { Context } from '../context';
import { seriesOf, type CourseRow, type SeriesRow, type SessionRow } from '../courses/store';
import { freeFor } from '../recordings/space/free';
import { bellTimesOf } from '../terms/store';
import { rulesForChecks } from '../rules/checks';
import { clashesIn } from './clashes';
import { peopleForChecks, recordedSoFar } from './store';

/** Sound and picture of a class, where nothing recorded yet says better: bytes a minute. */
const TYPICAL_BYTES_PER_MINUTE = 4_000_000;

export interface Checked {
  findings: Finding[];
  clashes: NamedClash[];
  zones: { zone: string; people: number }[];
}

/** Reads a course's whole set-up and lets the rules speak. */
export async function checkCourse(
  ctx: Context,
  course: CourseRow,
  sessions: readonly SessionRow[],
  series?: readonly SeriesRow[],
): Promise<Checked> {
  const now = ctx.now();
  const [all, bells, people, clashes, storage, rules] = await Promise.all([
    series ?? seriesOf(ctx.db, course.id),
    bellTimesOf(ctx.db),
    peopleForChecks(ctx.db, course.id),
    clashesIn(ctx.db, course.id, now),
    storageFor(ctx, course.id, sessions, now),
    rulesForChecks(ctx, course, sessions),
  ]);
  const days = termDays(course.term);
  const setup: Setup = {
    term: course.term,
    now,
    people,
    youngPupils: course.youngPupils,
    door: course.door,
    limits: course.limits,
    rules,
    recording: course.recordingPlan,
    storage,
    clashes: clashes.map((c) => ({
      series: c.seriesId,
      session: c.sessionId,
      startsAt: c.startsAt,
      minutes: c.minutes,
      other: `${c.other.course} ${c.other.title}${c.oneLink ? ', behind the same link,' : ''}`,
      people: c.people,
    })),
    series: all.map((s) => {
      const periods = s.pattern ? periodsFor(s.pattern, bells) : [];
      return {
        ...s,
        periods,
        published: s.publishedAt !== null,
        planned: s.pattern
          ? sessionsOf(course.term, s.pattern, days, periods)
          : { sessions: [], skipped: [], minutes: 0, missing: 0, missingMinutes: 0 },
        sessions: sessions.filter((x) => x.seriesId === s.id) as readonly LaidSession[],
      };
    }),
  };
  const zones = new Map<string, number>();
  for (const p of people) if (p.role === 'student') zones.set(p.zone, (zones.get(p.zone) ?? 0) + 1);
  return {
    findings: check(setup),
    clashes: clashes.map(({ seriesId, ...clash }) => clash),
    zones: [...zones].map(([zone, count]) => ({ zone, people: count })),
  };
}

/** What is free, and what the sessions ahead will take by the measure of the recordings there are. */
async function storageFor(ctx: Context, course: string, sessions: readonly SessionRow[], now: number) {
  const known = await recordedSoFar(ctx.db, course);
  const free = await freeFor(ctx, Number(known?.own ?? 0)).catch(() => null);
  if (free === null) return null;
  const minutes = Number(known?.minutes ?? 0);
  const perMinute = minutes >= 30 ? Number(known!.bytes) / minutes : TYPICAL_BYTES_PER_MINUTE;
  const ahead = sessions
    .filter((s) => s.endsAt > now && s.state !== 'cancelled')
    .reduce((sum, s) => sum + s.minutes + s.lingerMinutes, 0);
  return { free, forecast: ahead * perMinute };
}
